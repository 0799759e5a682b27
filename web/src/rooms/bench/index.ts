export { BenchList } from "./BenchList";
export { BenchRun } from "./BenchRun";

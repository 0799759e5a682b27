export { PlanRoom } from "./PlanRoom";

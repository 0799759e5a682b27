export { PlanList } from "./PlanList";
export { PlanRoom } from "./PlanRoom";

export { FirstPlan } from "./FirstPlan";
export { PlanFigures } from "./PlanFigures";
export { PlanList } from "./PlanList";

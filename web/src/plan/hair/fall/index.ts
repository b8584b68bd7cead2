export { Cost } from "./Cost";
export { Falls } from "./Falls";
export { FitAndLoad } from "./FitAndLoad";
export { Landing } from "./Landing";

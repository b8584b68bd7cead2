export { Ring } from "./Ring";
export { ToTheChair } from "./ToTheChair";

export { alike, useHandwork } from "./byhand/handwork";
export { direction, near } from "./byhand/edits";
export { fetchHandles } from "./byhand/lazyHandles";
export { structures } from "./structures";
export { HandBar, type HandTool } from "./byhand/HandBar";
export { useLasso } from "./byhand/lasso";

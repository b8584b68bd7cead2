import { lazy } from "react";

export { cameraAt, startStance, views, type Camera, type Stance } from "./camera";
export { pictured, type Pictured } from "./drawn";
export { HeadMap } from "./HeadMap";
export { HeadPicture, type Box } from "./HeadPicture";
export { central, cornrowName, place, ring, rowStart, spoken, zoneName } from "./names";
export { hookKey } from "./paint";
export * as paths from "./paths";
export { hooksOf, kindOf, legend, type Class, type Reading } from "./reading";
export type { HeadLayer, HeadTool, LayerView, View } from "./tool";
export { add, dot, mix, scale, unit, vec, type Flat, type Vec } from "./vectors";

/** The head at the chair; it loads with that. */
export const WorkedHead = lazy(async () => ({ default: (await import("./WorkedHead")).WorkedHead }));

/** The head as it has grown out; it loads with the installs being worn. */
export const GrownHead = lazy(async () => ({ default: (await import("./GrownHead")).GrownHead }));

/** The hair as it hangs; it loads once it is shown. */
export const DrapePicture = lazy(async () => ({
  default: (await import("./drape/DrapePicture")).DrapePicture,
}));

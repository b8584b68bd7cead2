import { memo } from "react";
import type { HeadShape, Layout } from "../api/types";
import { usePreferences } from "../app/preferences";
import type { Camera } from "./camera";
import { HeadDrawing, type DrawnSection } from "./HeadDrawing";
import type { DrawnBase } from "./tracks";

/** A parted head made ready for drawing. */
export interface Pictured {
  head: HeadShape;
  layout: Layout;
  sections: DrawnSection[];
  base: DrawnBase;
  /** Diameter of a plait at its root, mm. */
  plait: number;
}

/** A parted head drawn small, to look at only. */
export const SmallHead = memo(function SmallHead({ camera, ...pictured }: Pictured & { camera: Camera }) {
  const { hair, skin } = usePreferences();
  return <HeadDrawing {...pictured} camera={camera} hair={hair} skin={skin} small />;
});

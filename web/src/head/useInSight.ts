import { useCallback, useEffect } from "react";
import type { HeadShape, Layout, Notice, Section } from "../api/types";
import { cameraAt, type Stance } from "./camera";
import { clampLat } from "./stance";

interface Turned {
  now: () => Stance;
  turnTo: (to: Stance) => void;
}

/** Turns the head until a section is well in sight; by itself once sections are marked that are not. */
export function useInSight(
  { now, turnTo }: Turned,
  head: HeadShape,
  layout: Layout,
  marked: ReadonlySet<Notice["about"][number]> | undefined,
) {
  const bringInSight = useCallback(
    (s: Section) => {
      const at = cameraAt(head.axesMm, now());
      if (at.facing(s.centroid) > 0.25) return;
      const [x, y, z] = s.normal;
      turnTo({
        lon: (Math.atan2(y, x) * 180) / Math.PI,
        lat: clampLat((Math.atan2(z, Math.hypot(x, y)) * 180) / Math.PI),
      });
    },
    [head, now, turnTo],
  );

  // Marks behind the head would look like none: turn to the first of them.
  useEffect(() => {
    const shown = layout.sections.filter((s) => marked?.has(s.id));
    const at = cameraAt(head.axesMm, now());
    const first = shown[0];
    if (first && !shown.some((s) => at.facing(s.centroid) > 0.3)) bringInSight(first);
    // Only when other sections are marked, not whenever the layout changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [marked]);

  return bringInSight;
}

import { useRef, useState } from "react";
import type { Layout } from "../../../api/types";
import { hookKey, hooksOf, paths, type Camera, type Flat, type HeadTool } from "../../../head";
import styles from "./handwork.module.css";

const step = 2; // mm between the points of a lasso

/** A line drawn round places on the head. picked gets the names of what lies within, on the side in sight. */
export function useLasso(layout: Layout, picked: (sections: string[], hooks: string[]) => void) {
  const [points, setPoints] = useState<readonly Flat[]>([]);
  const latest = useRef<Flat[]>([]);
  const drag: NonNullable<HeadTool["drag"]> = {
    move: (p) => {
      const last = latest.current[latest.current.length - 1];
      if (last && Math.hypot(p[0] - last[0], p[1] - last[1]) < step) return;
      latest.current = [...latest.current, p];
      setPoints(latest.current);
    },
    end: (camera: Camera) => {
      const outline = latest.current;
      latest.current = [];
      setPoints([]);
      if (outline.length < 4) return;
      const within = (p: readonly [number, number, number]) =>
        camera.facing(p) > 0.05 && inside(camera.flat(p), outline);
      picked(
        layout.sections.filter((s) => within(s.centroid)).map((s) => s.id),
        hooksOf(layout).flatMap((h, i) => (within(h.at) ? [hookKey(i)] : [])),
      );
    },
  };
  const drawn = <path className={styles.lasso} d={points.length > 1 ? paths.open(points, (p) => p) : ""} />;
  return { drag, drawn };
}

/** Whether a place lies within an outline (even-odd rule). */
export function inside([x, y]: Flat, outline: readonly Flat[]): boolean {
  let within = false;
  outline.forEach((p, i) => {
    const q = outline[(i + 1) % outline.length] ?? p;
    if (p[1] > y !== q[1] > y && x < p[0] + ((y - p[1]) / (q[1] - p[1])) * (q[0] - p[0])) within = !within;
  });
  return within;
}

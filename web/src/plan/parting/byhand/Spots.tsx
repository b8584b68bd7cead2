import type { Settings } from "../../../api/types";
import { add, paths, scale, unit, vec, type Camera, type Vec } from "../../../head";
import { point } from "./edits";
import styles from "./handwork.module.css";

interface Props {
  spots: Settings["leftOut"];
  camera: Camera;
  axes: readonly number[];
}

/** Spots left out, shown while they are painted. */
export function Spots({ spots, camera, axes }: Props) {
  return spots.map((s, i) => (
    <path
      key={i}
      className={styles.spot}
      d={camera
        .clip(edgeOf(s.at, s.radiusMm, axes))
        .map((part) => paths.closed(part, camera.flat))
        .join("")}
    />
  ));
}

/** The edge of a spot on the scalp. */
function edgeOf(at: readonly number[], radius: number, axes: readonly number[]): Vec[] {
  const [a, b, c] = vec(axes);
  const centre = point(at, axes);
  const n = unit([centre[0] / (a * a), centre[1] / (b * b), centre[2] / (c * c)]);
  const e1 = unit(Math.abs(n[2]) < 0.9 ? [-n[1], n[0], 0] : [0, -n[2], n[1]]);
  const e2: Vec = [n[1] * e1[2] - n[2] * e1[1], n[2] * e1[0] - n[0] * e1[2], n[0] * e1[1] - n[1] * e1[0]];
  return Array.from({ length: 28 }, (_, i) => {
    const turn = (i * Math.PI) / 14;
    const p = add(centre, add(scale(radius * Math.cos(turn), e1), scale(radius * Math.sin(turn), e2)));
    return scale(1 / Math.hypot(p[0] / a, p[1] / b, p[2] / c), p);
  });
}

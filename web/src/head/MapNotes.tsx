import { memo } from "react";
import type { Layout, Settings } from "../api/types";
import { spotRing } from "../byhand/handles";
import type { Camera } from "./camera";
import styles from "./MapNotes.module.css";
import { zoneName } from "./names";
import * as paths from "./paths";
import type { Reading } from "./reading";
import { vec } from "./vectors";

interface Props {
  layout: Layout;
  camera: Camera;
  axes: readonly number[];
  marked: ReadonlySet<string> | undefined;
  reading: Reading;
  /** Spots left out, to be shown while they are painted. */
  spots: NonNullable<Settings["leftOut"]>;
}

/** What is written and drawn over the head: numbers at the rows' ends, channels, marked tracks, spots. */
export const MapNotes = memo(function MapNotes({ layout, camera, axes, marked, reading, spots }: Props) {
  const line = (points: readonly (readonly number[])[]) =>
    camera
      .clipLine(points.map(vec))
      .map((stretch) => paths.open(stretch, camera.flat))
      .join("");
  return (
    <g className={styles.notes}>
      {reading === "stagger" &&
        layout.channels.map((c, i) => <path key={i} className={styles.channel} d={line(c.line)} />)}
      {layout.tracks
        .filter((t) => marked?.has(t.id))
        .map((t) => (
          <path key={t.id} className={styles.marked} d={line(t.line)} />
        ))}
      {spots.map((s, i) => (
        <path
          key={i}
          className={styles.spot}
          d={camera
            .clip(spotRing(s.at, s.radiusMm, axes))
            .map((part) => paths.closed(part, camera.flat))
            .join("")}
        />
      ))}
      {reading !== "hair" &&
        layout.rows.map((r) => {
          const at = vec(r.end);
          if (camera.facing(at) < 0.1) return null;
          const [x, y] = camera.flat(at);
          return (
            <g key={`${r.zone}${r.row}`} transform={`translate(${x.toFixed(1)} ${y.toFixed(1)})`}>
              <title>{`${zoneName(r.zone)}, row ${r.row}: ${r.sections} sections`}</title>
              <rect x={-6} y={-4.6} width={12} height={9.2} rx={4.6} />
              <text>{r.sections}</text>
            </g>
          );
        })}
    </g>
  );
});

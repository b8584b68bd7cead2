import { memo } from "react";
import type { Layout } from "../api/types";
import type { Camera } from "./camera";
import styles from "./MapNotes.module.css";
import { zoneName } from "./names";
import * as paths from "./paths";
import type { Reading } from "./reading";

interface Props {
  layout: Layout;
  camera: Camera;
  marked: ReadonlySet<string> | undefined;
  /** What the head is coloured by; none for hair. */
  reading: Reading | undefined;
}

/** What is written and drawn over the head: numbers at the rows' ends, channels, marked cornrows. */
export const MapNotes = memo(function MapNotes({ layout, camera, marked, reading }: Props) {
  const line = (points: Layout["partLine"]) =>
    camera
      .clipLine(points)
      .map((stretch) => paths.open(stretch, camera.flat))
      .join("");
  return (
    <g className={styles.notes}>
      {reading?.key === "stagger" &&
        layout.channels.map((c, i) => <path key={i} className={styles.channel} d={line(c.line)} />)}
      {layout.tracks
        .filter((t) => marked?.has(t.id))
        .map((t) => (
          <path key={t.id} className={styles.marked} d={line(t.line)} />
        ))}
      {reading?.rows &&
        layout.rows.map((r) => {
          if (camera.facing(r.end) < 0.1) return null;
          const [x, y] = camera.flat(r.end);
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

import type { Drape, Landings } from "../../../api/types";
import styles from "./Landing.module.css";

interface Props {
  drape: Drape;
  lines: Landings["lines"];
  /** Pieces that are pointed at, as indices into those of the drape. */
  drawn: readonly number[] | undefined;
}

type Side = "behind" | "side";

/** A part of the body from behind or from the side, as a path. */
function outline(slices: readonly (readonly number[])[], side: Side): string {
  const ends = ([, front = 0, back = 0, wide = 0]: readonly number[]) =>
    side === "behind" ? [-wide, wide] : [-front, -back];
  const down = slices.map((s) => `${ends(s)[0]?.toFixed(0)} ${(-(s[0] ?? 0)).toFixed(0)}`);
  const up = slices.map((s) => `${ends(s)[1]?.toFixed(0)} ${(-(s[0] ?? 0)).toFixed(0)}`).reverse();
  return `M${[...down, ...up].join("L")}Z`;
}

/** The person from behind and from the side, with the lines of the body and where the pieces end. */
export function BodyPicture({ drape, lines, drawn }: Props) {
  const tall = drape.statureMm;
  const vertex = drape.vertexMm;
  const lowest = Math.min(...drape.pieces.map((p) => p.points[p.points.length - 1]?.[2] ?? 0));
  const foot = Math.min(0.66 * tall, Math.max(0.52 * tall, vertex - lowest + 40)) - vertex;
  const half = 0.155 * tall;
  const picked = new Set(drawn);
  const view = (side: Side, middle: number) => (
    <g transform={`translate(${middle} 0)`}>
      <ellipse cx={0} cy={0} rx={side === "behind" ? 76 : 98} ry={vertex} fill="var(--line)" />
      <path d={outline(drape.face, side)} fill="var(--line)" />
      <path d={outline(drape.torso, side)} fill="var(--line)" />
      {[...drape.pieces.keys()]
        .sort((a, b) => Number(picked.has(a)) - Number(picked.has(b)))
        .map((i) => {
          const p = drape.pieces[i];
          if (!p) return null;
          const at = p.points.map(([x = 0, y = 0, z = 0]) => [side === "behind" ? -y : -x, -z] as const);
          const end = at[at.length - 1];
          const on = picked.size === 0 || picked.has(i);
          return (
            <g key={i} opacity={on ? 1 : 0.25}>
              <polyline
                points={at.map(([x, y]) => `${x.toFixed(0)},${y.toFixed(0)}`).join(" ")}
                stroke={picked.has(i) ? "var(--marigold)" : "var(--leaf)"}
                strokeWidth={picked.has(i) ? 7 : 3.5}
                strokeOpacity={picked.has(i) ? 1 : 0.5}
              />
              {end && <circle cx={end[0]} cy={end[1]} r={picked.has(i) ? 11 : 7} fill="var(--ink)" />}
            </g>
          );
        })}
      <text x={0} y={foot - 12} textAnchor="middle">
        {side === "behind" ? "from behind" : "from the side"}
      </text>
    </g>
  );
  return (
    <svg
      className={styles.body}
      viewBox={`${-half - 30} ${-vertex - 50} ${4 * half + 320} ${foot + vertex + 60}`}
      role="img"
      aria-label="Where the ends land, from behind and from the side"
    >
      {view("behind", 0)}
      {view("side", 2 * half)}
      {lines.map((l) => {
        const y = (1 - l.share) * tall - vertex;
        return (
          <g key={l.key}>
            <line
              x1={-half - 20}
              x2={3 * half + 20}
              y1={y}
              y2={y}
              stroke="var(--ink)"
              strokeWidth={2}
              strokeDasharray="5 12"
            />
            <text x={3 * half + 30} y={y + 16}>
              {l.name}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

import type { Drape } from "../../../api/types";
import styles from "./Falls.module.css";

/** The outline of hair from behind, as a path: down the client's left, up the right. */
function outlineOf({ outline }: Drape): string {
  const side = (of: (b: Drape["outline"][number]) => number) =>
    outline.map((b) => `${of(b).toFixed(0)} ${(-b.zMm).toFixed(0)}`);
  return `M${[...side((b) => -b.leftMm), ...side((b) => -b.rightMm).reverse()].join("L")}Z`;
}

/** The body from behind, as a path. */
function bodyOf(drape: Drape): string {
  const rings = [...drape.face.map((s) => [s[0], 0.9 * (s[3] ?? 0)]), ...drape.torso.map((s) => [s[0], s[3]])]
    .map(([z = 0, w = 0]) => ({ z, w }))
    .sort((a, b) => b.z - a.z);
  const down = rings.map(({ z, w }) => `${(-w).toFixed(0)} ${(-z).toFixed(0)}`);
  const up = rings.map(({ z, w }) => `${w.toFixed(0)} ${(-z).toFixed(0)}`).reverse();
  return `M${[...down, ...up].join("L")}Z`;
}

/** The outline of the hair from behind over the body, with those of other states dashed. */
export function FullnessPicture({ drape, others }: { drape: Drape; others: readonly Drape[] }) {
  const lowest = Math.min(...[drape, ...others].flatMap((d) => d.outline.map((b) => b.zMm)));
  const foot = Math.max(420, 40 - lowest);
  const wide = 0.34 * drape.statureMm;
  return (
    <svg
      className={styles.outline}
      viewBox={`${-wide} -160 ${2 * wide} ${foot + 160}`}
      role="img"
      aria-label={`Outline of the hair from behind: ${drape.chin.layers.toFixed(1)} pieces over one another at the chin, ${drape.shoulder.layers.toFixed(1)} at the shoulder`}
    >
      <ellipse cx={0} cy={0} rx={76} ry={drape.vertexMm} fill="var(--line)" />
      <path d={bodyOf(drape)} fill="var(--line)" />
      <path d={outlineOf(drape)} fill="var(--leaf)" fillOpacity={0.55} stroke="var(--leaf)" strokeWidth={4} />
      {others.map((d, i) => (
        <path
          key={i}
          d={outlineOf(d)}
          fill="none"
          stroke="var(--marigold)"
          strokeWidth={5}
          strokeDasharray={`${18 + 8 * i} 10`}
        />
      ))}
    </svg>
  );
}

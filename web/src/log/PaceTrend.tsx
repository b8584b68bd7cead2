import type { SkillPace } from "../api/types";
import { when } from "../lib/units";
import styles from "./Log.module.css";

const [wide, high, edge] = [260, 92, 14];

/** Each install as a dot, what is learnt as a line, and the range that holds eighty of a hundred. */
export function PaceTrend({ skill }: { skill: SkillPace }) {
  const values = skill.lines.map((l) => l.actualMin / Math.max(0.01, l.rateMin));
  const [low, high1] = [skill.factor * (1 - skill.spread), skill.factor * (1 + skill.spread)];
  const least = Math.min(0.6, low, ...values) - 0.05;
  const most = Math.max(1.4, high1, ...values) + 0.05;
  const y = (v: number) => high - edge / 2 - ((v - least) / (most - least)) * (high - edge);
  const x = (i: number) => edge + ((wide - 2 * edge) * (i + 0.5)) / values.length;
  return (
    <svg
      className={styles.trend}
      viewBox={`0 0 ${wide} ${high}`}
      role="img"
      aria-label={`${skill.name}, install by install: ${values.map((v) => `${v.toFixed(2)} ×`).join(", ")}`}
    >
      <rect
        x="0"
        width={wide}
        y={y(high1)}
        height={Math.max(1, y(low) - y(high1))}
        className={styles.range}
      />
      <line x1="0" x2={wide} y1={y(1)} y2={y(1)} className={styles.one} />
      <text x="2" y={y(1) - 3}>
        1 ×
      </text>
      <line x1="0" x2={wide} y1={y(skill.factor)} y2={y(skill.factor)} className={styles.learnt} />
      {skill.lines.map((l, i) => (
        <circle key={l.installId} cx={x(i)} cy={y(values[i] ?? 1)} r="4.5">
          <title>{`${when(l.at)}: ${(values[i] ?? 1).toFixed(2)} ×${l.own ? ", own head" : ""}`}</title>
        </circle>
      ))}
    </svg>
  );
}

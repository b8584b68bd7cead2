import { memo } from "react";
import type { DaySitting, Hand } from "../../api/types";
import { hours } from "../../lib/units";
import styles from "./day.module.css";
import { after, kinds, stretches, type Stretch } from "./kinds";

interface Props {
  sitting: DaySitting;
  hands: readonly Hand[];
  /** The longest of all sittings, minutes: lines of one plan share a scale. */
  longest: number;
}

const wide = 360;
const lane = 30;
const gap = 16;
const top = 4;

/** One sitting as a line: what each does when, with breaks and waiting. */
export const DayLine = memo(function DayLine({ sitting, hands, longest }: Props) {
  const present = hands.map((_, i) => i).filter((i) => sitting.spans.some((s) => s.person === i));
  const named = present.length > 1;
  const x = (minutes: number) => (minutes / longest) * wide;
  const y = (person: number) =>
    top + present.indexOf(person) * (lane + (named ? gap : 0)) + (named ? gap - 2 : 0);
  const all = stretches(sitting.spans);
  const bottom = top + present.length * (lane + (named ? gap : 0));
  const step = longest > 8 * 60 ? 120 : longest > 3 * 60 ? 60 : 30;
  const ticks = Array.from({ length: Math.floor(sitting.minutes / step) + 1 }, (_, i) => i * step);
  return (
    <svg
      className={styles.line}
      viewBox={`-2 0 ${wide + 4} ${bottom + 18}`}
      role="img"
      aria-label={`${sitting.does}, ${hours(sitting.minutes)}: ${lineText(all, hands, named)}`}
    >
      <defs>
        <pattern id="break" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" className={styles.breakGround} />
          <rect width="2" height="5" className={styles.breakStripe} />
        </pattern>
      </defs>
      {named &&
        present.map((p) => (
          <g key={p}>
            <text x={0} y={y(p) - 4} className={styles.who}>
              {hands[p]?.name}
            </text>
            <line
              x1={0}
              x2={x(sitting.minutes)}
              y1={y(p) + lane / 2}
              y2={y(p) + lane / 2}
              className={styles.wait}
            />
          </g>
        ))}
      {all.map((s, i) => (
        <g key={i}>
          <rect
            x={x(s.start)}
            y={y(s.person)}
            width={Math.max(1, x(s.end) - x(s.start))}
            height={lane}
            rx={3}
            fill={kinds[s.kind].fill}
          />
          {s.rests
            .filter((r) => !r.arms)
            .map((r) => (
              <rect
                key={r.start}
                x={x(r.start)}
                y={y(s.person)}
                width={Math.max(1.5, x(r.end) - x(r.start))}
                height={lane}
                fill="url(#break)"
              />
            ))}
          {s.rests
            .filter((r) => r.arms)
            .map((r) => (
              <circle
                key={r.start}
                cx={x(r.start)}
                cy={y(s.person) + lane - 4}
                r={1.6}
                className={styles.arms}
              />
            ))}
          {x(s.end) - x(s.start) > 9 && (
            <text
              x={x(widest(s))}
              y={y(s.person) + lane / 2 + 4.5}
              className={styles.kindMark}
              fill={kinds[s.kind].ink}
            >
              {kinds[s.kind].mark}
            </text>
          )}
        </g>
      ))}
      {ticks.map((t) => (
        <g key={t}>
          <line x1={x(t)} x2={x(t)} y1={bottom} y2={bottom + 4} className={styles.tick} />
          {x(sitting.minutes) - x(t) > -1 && x(t) < wide - 14 && (
            <text x={x(t)} y={bottom + 15} className={styles.tickText} data-first={t === 0}>
              {after(sitting.at, t)}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
});

/** The middle of the longest work between two breaks: there the letter of a stretch is read. */
function widest({ start, end, rests }: Stretch): number {
  const breaks = rests.filter((r) => !r.arms);
  const from = [start, ...breaks.map((r) => r.end)];
  const to = [...breaks.map((r) => r.start), end];
  const runs = from.map((f, i) => [f, to[i] ?? end] as const);
  const [f, t] = runs.reduce((most, run) => (run[1] - run[0] > most[1] - most[0] ? run : most));
  return (f + t) / 2;
}

/** The line in words, for those who listen. */
const lineText = (all: readonly Stretch[], hands: readonly Hand[], named: boolean) =>
  all
    .map(
      (s) =>
        `${named ? `${hands[s.person]?.name ?? ""} ` : ""}${kinds[s.kind].name.toLowerCase()} ${hours(s.end - s.start)}`,
    )
    .join(", ");

import type { WearClock } from "../api/types";
import styles from "./Wear.module.css";

const radius = 40;
const round = 2 * Math.PI * radius;

/** The weeks of a head as a ring: what is worn, the weeks in which it is usual to take it down, and the day planned. */
export function WearRing({ clock, down }: { clock: WearClock; down?: boolean }) {
  const { day, from, planned, latest, state } = clock;
  const all = Math.max(latest, planned, day, 7) * 1.04;
  const at = (d: number) => (Math.min(d, all) / all) * round;
  const turn = (d: number) => (360 * Math.min(d, all)) / all - 90;
  const week = Math.floor(day / 7);
  const left = planned - day;
  return (
    <svg
      className={styles.ring}
      viewBox="0 0 100 100"
      role="img"
      data-state={down ? "down" : state}
      aria-label={
        down
          ? `Taken down after ${week} weeks`
          : `Week ${week} of ${Math.round(planned / 7)}; ${left >= 0 ? `${left} days left` : `${-left} days over`}`
      }
    >
      <circle cx="50" cy="50" r={radius} className={styles.ringBack} />
      <circle
        cx="50"
        cy="50"
        r={radius}
        className={styles.ringRange}
        strokeDasharray={`${Math.max(0, at(latest) - at(from)).toFixed(1)} ${round.toFixed(1)}`}
        transform={`rotate(${turn(from).toFixed(1)} 50 50)`}
      />
      <circle
        cx="50"
        cy="50"
        r={radius}
        className={styles.ringWorn}
        strokeDasharray={`${at(day).toFixed(1)} ${round.toFixed(1)}`}
        transform="rotate(-90 50 50)"
      />
      <line
        x1={50 + (radius - 9)}
        y1="50"
        x2={50 + (radius + 9)}
        y2="50"
        className={styles.ringPlanned}
        transform={`rotate(${turn(planned).toFixed(1)} 50 50)`}
      />
      <text x="50" y="50" textAnchor="middle" className={styles.ringWeek}>
        {week}
      </text>
      <text x="50" y="64" textAnchor="middle" className={styles.ringOf}>
        {week === 1 ? "week" : "weeks"}
      </text>
    </svg>
  );
}

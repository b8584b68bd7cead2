import type { WornHead } from "../api/types";
import { localDay } from "../lib/localDay";
import { day } from "../lib/units";
import styles from "./Wear.module.css";
import { span } from "./words";

/** Why it comes down then: the reasons, the shortest time first. */
export function ClockPart({ head }: { head: WornHead }) {
  const { clock } = head;
  const most = Math.max(...clock.reasons.map((r) => r.most), 8);
  return (
    <>
      <ul className={styles.reasons}>
        {clock.reasons.map((r) => (
          <li key={r.key + r.text} data-decides={r.decides}>
            <span>
              {r.text}
              {r.decides && <em>this decides</em>}
            </span>
            <span className={styles.bar} aria-hidden>
              <i
                style={{
                  marginLeft: `${(100 * Math.min(r.least, r.most)) / (most + 1)}%`,
                  width: `${(100 * Math.max(1, r.most - r.least)) / (most + 1)}%`,
                }}
              />
            </span>
            <b>{span(Math.min(r.least, r.most), r.most)}</b>
          </li>
        ))}
      </ul>
      <h3>Days to come</h3>
      <ul className={styles.dates}>
        {head.dates
          .filter((d) => d.on >= localDay())
          .map((d) => (
            <li key={d.on + d.key} data-key={d.key}>
              <b>{day(d.on)}</b> {d.title}
            </li>
          ))}
      </ul>
      <p className={styles.note}>
        The usual advice of the trade, not a medical limit: what itches, smells, flakes, mats or hurts comes
        down sooner.
      </p>
    </>
  );
}

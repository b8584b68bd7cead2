import type { DayPlan } from "../../api/types";
import { localDay } from "../../lib/localDay";
import { day as writeDay, hours } from "../../lib/units";
import panel from "../../ui/panel.module.css";
import styles from "./day.module.css";

/** What comes before the first sitting, counted back from it. */
export function BeforePart({ day }: { day: DayPlan }) {
  const dated = day.due.some((d) => d.on !== "");
  const today = localDay();
  return (
    <>
      {!dated && <p className={panel.lead}>Give the first sitting a date, and these get theirs.</p>}
      <ol className={styles.due}>
        {day.due.map((d) => (
          <li key={d.key} data-due={d.key}>
            <span>
              {d.on !== "" ? (
                <b data-late={d.on < today}>{writeDay(d.on)}</b>
              ) : d.daysBefore === 0 ? (
                <b>The same day</b>
              ) : (
                <b>{d.daysBefore === 1 ? "The day before" : `${d.daysBefore} days before`}</b>
              )}
              {d.at && ` ${d.at}`}
            </span>
            <span>
              {d.title}
              <small>
                {[
                  d.minutes > 0 && hours(d.minutes),
                  d.waitHours > 0 && `stands ${Math.round(d.waitHours)} h by itself`,
                  d.on !== "" && d.on < today && "its day is past",
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </small>
            </span>
          </li>
        ))}
      </ol>
      <p className={panel.lead}>Orders and the last day to place them stand under Hair, Stash and orders.</p>
    </>
  );
}

import { useShopping } from "../../api/queries";
import type { DayPlan, PlanInput } from "../../api/types";
import { localDay } from "../../lib/localDay";
import { day as writeDay, hours } from "../../lib/units";
import panel from "../../ui/panel.module.css";
import type { StoredPlan } from "../draft/stored";
import styles from "./day.module.css";

interface Props {
  plan: StoredPlan;
  input: PlanInput;
  day: DayPlan;
}

/** What comes before the first sitting, counted back from it: hair ordered and at home, rinsed, own hair washed, something eaten. */
export function BeforePart({ plan, input, day }: Props) {
  const dated = day.due.some((d) => d.on !== "");
  const today = localDay();
  const orders = (useShopping(plan.isStored ? plan.id : "", input).data?.orders ?? [])
    .filter((o) => o.orderBy !== "")
    .map((o) => ({
      key: `order:${o.supplier}`,
      title: `Last day to order: ${o.name}`,
      on: o.orderBy,
      at: undefined,
      daysBefore: 0,
      minutes: 0,
      waitHours: 24 * o.days,
    }));
  const due = dated ? [...day.due, ...orders].sort((a, b) => a.on.localeCompare(b.on)) : day.due;
  return (
    <>
      {!dated && <p className={panel.lead}>Give the first sitting a date, and these get theirs.</p>}
      <ol className={styles.due}>
        {due.map((d) => (
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
                  d.waitHours > 0 &&
                    (d.waitHours >= 24
                      ? `${Math.round(d.waitHours / 24)} days on its way`
                      : `stands ${Math.round(d.waitHours)} h by itself`),
                  d.on !== "" && d.on < today && "its day is past",
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </small>
            </span>
          </li>
        ))}
      </ol>
    </>
  );
}

import { Link } from "react-router";
import { useWorn } from "../api/queries";
import { usePreferences } from "../lib/preferences";
import { comb, day } from "../lib/units";
import { deeds, left, WearRing, within } from "../wear";
import styles from "./TodayPage.module.css";

const most = 4;

/** The installs being worn whose day comes first, each one touch from its clock. */
export function HeadsWorn() {
  const { data } = useWorn();
  const unit = usePreferences((p) => p.unit);
  if (!data || data.length === 0) return null;
  return (
    <section className={styles.heads} aria-label="Installs being worn">
      {data.slice(0, most).map((w) => (
        <Link key={w.id} to={`/wear/${w.id}`} className={styles.worn} data-state={w.clock.state}>
          <WearRing clock={w.clock} />
          <span>
            <strong>{w.client || w.title}</strong>
            <small>
              {w.clock.state === "over" ? "Past its day" : "Take down"} {day(w.dueOn)}, {left(w.clock)} ·{" "}
              {comb(w.grownMm, unit)} {unit} grown out
            </small>
            {w.advice[0] ? (
              <span className={styles.next}>
                {deeds[w.advice[0].do]}, {within(w.advice[0].withinDays)}
              </span>
            ) : (
              w.clock.checkLate && <span className={styles.next}>A check is due</span>
            )}
          </span>
        </Link>
      ))}
      {data.length > most && (
        <Link to="/wear" className={styles.toCalendar}>
          All {data.length} heads
        </Link>
      )}
    </section>
  );
}

import { Skeleton } from "antd";
import { Link } from "react-router";
import { useWorn } from "../api/queries";
import type { WornEntry } from "../api/types";
import { usePreferences } from "../lib/preferences";
import { comb, day } from "../lib/units";
import { Page } from "../ui/Page";
import { Trouble } from "../ui/Trouble";
import { WearRing } from "./WearRing";
import styles from "./Wear.module.css";
import { deeds, left, nextLook, within } from "./words";

/** The installs being worn: how long each has been, what has grown out, and what is due. */
function WearPage() {
  const worn = useWorn();
  return (
    <Page
      title="Wear"
      lead="Installs being worn: how long they have been, what to look for, and when they come down."
    >
      {worn.isPending && <Skeleton active />}
      {worn.error && <Trouble error={worn.error} retry={() => void worn.refetch()} />}
      {worn.data?.length === 0 && (
        <section className={styles.empty}>
          <h2>No install is being worn</h2>
          <p>
            When the last check of an install is taken <strong>at the chair</strong>, its head comes here: a
            clock, what to look for week by week, the care to hand over, and the taking down.
          </p>
          <Link to="/">Today</Link>
        </section>
      )}
      <ul className={styles.heads}>
        {worn.data?.map((w) => (
          <li key={w.id}>
            <Worn entry={w} />
          </li>
        ))}
      </ul>
    </Page>
  );
}

/** One head in the list: the ring, what is next, and what the last check asks for. */
export function Worn({ entry }: { entry: WornEntry }) {
  const unit = usePreferences((p) => p.unit);
  const { clock, advice } = entry;
  const gravest = advice[0];
  return (
    <Link to={`/wear/${entry.id}`} className={styles.worn} data-state={clock.state}>
      <WearRing clock={clock} />
      <span className={styles.what}>
        <strong>{entry.client || entry.title}</strong>
        {entry.client && <small>{entry.title}</small>}
        <span className={styles.due} data-state={clock.state}>
          {clock.state === "over" ? "Past its day" : "Take down"} {day(entry.dueOn)}, {left(clock)}
        </span>
        <small>
          {comb(entry.grownMm, unit)} {unit} grown out · {nextLook(entry)}
        </small>
        {gravest && (
          <span className={styles.asks} data-do={gravest.do}>
            {deeds[gravest.do]}, {within(gravest.withinDays)}
            {advice.length > 1 && ` · and ${advice.length - 1} more`}
          </span>
        )}
      </span>
    </Link>
  );
}

export default WearPage;

import { CalendarOutlined } from "@ant-design/icons";
import { Link } from "react-router";
import { useAtChair, useCalendar, usePeople } from "../api/queries";
import { addDays, clock, entriesOf } from "../calendar";
import { ToTheChair } from "../chair";
import { localDay } from "../lib/localDay";
import { day as writeDay } from "../lib/units";
import styles from "./TodayPage.module.css";

/** How many days ahead are looked at, and how many sittings are shown of them. */
const ahead = 13;
const most = 4;

/** The sittings of today, and the next ones. */
export function NextSittings() {
  const today = localDay();
  const { data } = useCalendar(today, addDays(today, ahead));
  const people = usePeople().data;
  const atChair = useAtChair().data;
  if (!data) return null;
  const next = [...entriesOf(data, people ?? [])]
    .sort(([a], [b]) => a.localeCompare(b))
    .flatMap(([on, list]) => (on < today ? [] : list))
    .filter((e) => e.kind === "sitting")
    .slice(0, most);
  if (next.length === 0) return null;
  return (
    <section className={styles.sittings} aria-label="Next sittings">
      {next.map((e) => {
        const inner = (
          <>
            <span className={styles.sittingDay} data-today={e.on === today}>
              {e.on === today ? "Today" : writeDay(e.on)}
            </span>
            <strong>
              {e.from !== undefined && clock(e.from)} {e.title}
            </strong>
            <small>{e.says}</small>
          </>
        );
        if (e.planId && e.on === today && !atChair?.some((i) => i.planId === e.planId))
          return (
            <div key={e.key} className={styles.sittingToday}>
              <Link to={`/plans/${e.planId}/day`}>{inner}</Link>
              <ToTheChair plan={e.planId} />
            </div>
          );
        return e.planId ? (
          <Link key={e.key} to={`/plans/${e.planId}/day`}>
            {inner}
          </Link>
        ) : (
          <div key={e.key}>{inner}</div>
        );
      })}
      <Link to="/calendar" className={styles.toCalendar}>
        <CalendarOutlined aria-hidden /> Calendar
      </Link>
    </section>
  );
}

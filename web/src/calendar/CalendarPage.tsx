import { LeftOutlined, RightOutlined } from "@ant-design/icons";
import { Button, Segmented, Skeleton } from "antd";
import { useEffect, useMemo, useState, type CSSProperties } from "react";
import { Link } from "react-router";
import { useCalendar, usePeople } from "../api/queries";
import { localDay } from "../lib/localDay";
import { useNarrow } from "../lib/narrow";
import { Page } from "../ui/Page";
import { Trouble } from "../ui/Trouble";
import styles from "./CalendarPage.module.css";
import { Elsewhere } from "./Elsewhere";
import { addDays, addMonths, clock, entriesOf, lanes, monthDays, weekDays, type Entry } from "./entries";

type Look = "month" | "week";

const monthName = new Intl.DateTimeFormat(undefined, { month: "long", year: "numeric" });
const weekdayName = new Intl.DateTimeFormat(undefined, { weekday: "short" });
const dayName = new Intl.DateTimeFormat(undefined, { weekday: "long", day: "numeric", month: "long" });
const dateOf = (on: string) => new Date(`${on}T12:00:00`);

/** The sittings of the studio by month and week, with what comes before them and when people are busy. */
function CalendarPage() {
  const [look, setLook] = useState<Look>("month");
  const [on, setOn] = useState(() => localDay());
  const narrow = useNarrow();
  const days = look === "month" ? monthDays(on) : weekDays(on);
  const { data, error, refetch } = useCalendar(days[0] ?? on, days.at(-1) ?? on);
  const people = usePeople().data;
  const entries = useMemo(() => (data ? entriesOf(data, people ?? []) : undefined), [data, people]);
  // Late in a month today would lie below the edge.
  const isThere = entries !== undefined;
  useEffect(() => {
    if (isThere) document.querySelector("[data-day][data-today=true]")?.scrollIntoView({ block: "nearest" });
  }, [isThere]);
  const go = (by: number) => setOn(look === "month" ? addMonths(on, by) : addDays(on, 7 * by));
  const today = data?.today ?? localDay();
  return (
    <Page title="Calendar" lead="Sittings of the studio, what comes before them, and when people are busy.">
      <div className={styles.turn}>
        <Button
          size="large"
          icon={<LeftOutlined />}
          aria-label={`The ${look} before`}
          onClick={() => go(-1)}
        />
        <h2 aria-live="polite">
          {look === "month"
            ? monthName.format(dateOf(on))
            : `Week of ${dayName.format(dateOf(days[0] ?? on))}`}
        </h2>
        <Button
          size="large"
          icon={<RightOutlined />}
          aria-label={`The ${look} after`}
          onClick={() => go(1)}
        />
        <Button size="large" disabled={on === today} onClick={() => setOn(today)}>
          Today
        </Button>
        <Segmented<Look>
          size="large"
          aria-label="How much is shown"
          value={look}
          options={[
            { value: "month", label: "Month" },
            { value: "week", label: "Week" },
          ]}
          onChange={setLook}
        />
      </div>
      {error && <Trouble error={error} retry={() => void refetch()} />}
      {!entries && !error && <Skeleton active paragraph={{ rows: 8 }} />}
      {entries &&
        (look === "month" ? (
          <MonthGrid
            days={days}
            month={on.slice(0, 7)}
            today={today}
            chosen={on}
            entries={entries}
            narrow={narrow}
            onDay={setOn}
          />
        ) : narrow ? (
          <Agenda days={days} entries={entries} today={today} />
        ) : (
          <WeekGrid days={days} entries={entries} today={today} />
        ))}
      {entries && look === "month" && narrow && <Agenda days={[on]} entries={entries} today={today} />}
      {data && data.bookings.length === 0 && (
        <p className={styles.empty}>
          Nothing is booked here. A plan goes on the calendar in its step Day, under Take along.
        </p>
      )}
      <Elsewhere />
    </Page>
  );
}

interface MonthProps {
  days: readonly string[];
  /** The month, such as 2026-12. */
  month: string;
  today: string;
  chosen: string;
  entries: ReadonlyMap<string, Entry[]>;
  narrow: boolean;
  onDay: (on: string) => void;
}

/** How many entries a day of the month has room for. */
const room = 3;

function MonthGrid({ days, month, today, chosen, entries, narrow, onDay }: MonthProps) {
  return (
    <div className={styles.month} data-narrow={narrow}>
      {days.slice(0, 7).map((d) => (
        <div key={d} className={styles.weekday} aria-hidden>
          {weekdayName.format(dateOf(d))}
        </div>
      ))}
      {days.map((d) => {
        const list = entries.get(d) ?? [];
        const number = dateOf(d).getDate();
        const mark = {
          "data-other": !d.startsWith(month),
          "data-today": d === today,
          "data-day": d,
        };
        if (narrow)
          return (
            <button
              key={d}
              type="button"
              className={styles.dot}
              aria-pressed={d === chosen}
              aria-label={`${dayName.format(dateOf(d))}, ${list.length === 0 ? "nothing" : `${list.length} on it`}`}
              onClick={() => onDay(d)}
              {...mark}
            >
              <b>{number}</b>
              <span aria-hidden>
                {[...new Set(list.map((e) => e.kind))].map((k) => (
                  <i key={k} data-kind={k} />
                ))}
              </span>
            </button>
          );
        return (
          <section key={d} className={styles.day} aria-label={dayName.format(dateOf(d))} {...mark}>
            <b>{number}</b>
            {list.slice(0, list.length > room + 1 ? room : room + 1).map((e) => (
              <OneEntry key={e.key} entry={e} short />
            ))}
            {list.length > room + 1 && (
              <button type="button" className={styles.more} onClick={() => onDay(d)}>
                {list.length - room} more
              </button>
            )}
          </section>
        );
      })}
    </div>
  );
}

/** Something on the calendar; a plan's is a way to it. */
function OneEntry({ entry: e, short = false }: { entry: Entry; short?: boolean }) {
  const text = (
    <>
      {e.from !== undefined && (
        <time>
          {clock(e.from)}
          {!short && e.kind !== "errand" && `–${clock(5 * Math.round(e.to / 5))}`}
        </time>
      )}{" "}
      <span>{e.title}</span>
      {!short && <small>{e.says}</small>}
    </>
  );
  const look = {
    className: styles.entry ?? "",
    "data-kind": e.kind,
    "data-home": e.home ?? false,
    title: `${e.title} · ${e.says}`,
  };
  return e.planId ? (
    <Link to={`/plans/${e.planId}/day`} {...look}>
      {text}
    </Link>
  ) : (
    <div {...look}>{text}</div>
  );
}

/** Days one below the other, with what is on them. */
function Agenda({ days, entries, today }: Pick<MonthProps, "days" | "entries" | "today">) {
  return (
    <div className={styles.agenda}>
      {days.map((d) => (
        <section key={d} data-today={d === today} aria-label={dayName.format(dateOf(d))}>
          <h3>{dayName.format(dateOf(d))}</h3>
          {(entries.get(d) ?? []).map((e) => (
            <OneEntry key={e.key} entry={e} />
          ))}
          {!entries.has(d) && <p>Nothing</p>}
        </section>
      ))}
    </div>
  );
}

const hourHigh = 40;

function WeekGrid({ days, entries, today }: Pick<MonthProps, "days" | "entries" | "today">) {
  const timed = days.flatMap((d) => (entries.get(d) ?? []).filter((e) => e.from !== undefined));
  const first = Math.floor(Math.min(8 * 60, ...timed.map((e) => e.from ?? 0)) / 60);
  const last = Math.ceil(Math.max(20 * 60, ...timed.map((e) => e.to)) / 60);
  const untimed = Math.max(
    1,
    ...days.map((d) => (entries.get(d) ?? []).filter((e) => e.from === undefined).length),
  );
  const hoursShown = Array.from({ length: last - first }, (_, i) => first + i);
  return (
    <div className={styles.week} style={{ "--untimed": `${26 * untimed + 4}px` } as CSSProperties}>
      <div className={styles.clock} aria-hidden>
        {hoursShown.map((h) => (
          <span key={h} style={{ height: hourHigh }}>
            {clock(h * 60)}
          </span>
        ))}
      </div>
      {days.map((d) => {
        const list = entries.get(d) ?? [];
        return (
          <section key={d} aria-label={dayName.format(dateOf(d))} data-today={d === today}>
            <h3>
              {weekdayName.format(dateOf(d))} <b>{dateOf(d).getDate()}</b>
            </h3>
            <div className={styles.untimed}>
              {list
                .filter((e) => e.from === undefined)
                .map((e) => (
                  <OneEntry key={e.key} entry={e} short />
                ))}
            </div>
            <div className={styles.hours} style={{ height: hourHigh * hoursShown.length }}>
              {lanes(list).map(({ entry, lane, of }) => (
                <div
                  key={entry.key}
                  className={styles.block}
                  style={{
                    top: ((entry.from ?? 0) / 60 - first) * hourHigh,
                    height: Math.max(26, ((entry.to - (entry.from ?? 0)) / 60) * hourHigh),
                    left: `${(100 * lane) / of}%`,
                    width: `${100 / of}%`,
                  }}
                >
                  <OneEntry entry={entry} />
                </div>
              ))}
            </div>
          </section>
        );
      })}
    </div>
  );
}

export default CalendarPage;

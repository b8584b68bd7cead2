import type { Month, Person } from "../api/types";
import { localDay } from "../lib/localDay";

/** Something on a day of the calendar. */
export interface Entry {
  key: string;
  kind: "sitting" | "errand" | "busy";
  on: string;
  /** Minutes from midnight of its day; none for what has no time. */
  from: number | undefined;
  to: number;
  title: string;
  says: string;
  planId?: string;
  home?: boolean;
}

const minutesOf = (at: string) => {
  const [h, m] = at.split(":").map(Number);
  return (h ?? 0) * 60 + (m ?? 0);
};

/** Minutes from midnight as a time of the clock. */
export const clock = (minutes: number) => {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${two(Math.floor(minutes / 60) % 24)}:${two(Math.round(minutes) % 60)}`;
};

const wholeDay = 24 * 60;

/** What is on each day, in order: what has no time first. */
export function entriesOf(month: Month, people: readonly Person[]): Map<string, Entry[]> {
  const days = new Map<string, Entry[]>();
  const add = (e: Entry) => {
    const list = days.get(e.on);
    if (list) list.push(e);
    else days.set(e.on, [e]);
  };
  for (const b of month.bookings) {
    const { booked, id } = b;
    const who = booked.client !== "" ? booked.client : booked.title;
    const plan = b.planId ? { planId: b.planId } : {};
    booked.sittings.forEach((s, i) => {
      const from = minutesOf(s.at);
      const of = booked.sittings.length > 1 ? ` · ${i + 1} of ${booked.sittings.length}` : "";
      add({
        key: `${id}-${i}`,
        kind: "sitting",
        on: s.on,
        from,
        to: Math.min(wholeDay, from + s.minutes),
        title: `${who}${of}`,
        says: [s.does, s.names.join(", "), s.chair ? "" : "at home"].filter(Boolean).join(" · "),
        home: !s.chair,
        ...plan,
      });
    });
    booked.errands.forEach((e, i) =>
      add({
        key: `${id}-e${i}`,
        kind: "errand",
        on: e.on,
        from: e.at ? minutesOf(e.at) : undefined,
        to: e.at ? minutesOf(e.at) + 30 : 0,
        title: `${who.split(" ")[0] ?? ""}: ${e.title}`,
        says: who,
        ...plan,
      }),
    );
  }
  month.busy.forEach((b, i) => {
    const name = people.find((p) => p.id === b.personId)?.name ?? "Someone";
    const [fromDay, fromAt] = b.from.split("T");
    const [toDay, toAt] = b.to.split("T");
    // Over several days each has its share.
    for (let on = fromDay ?? ""; on !== "" && on <= (toDay ?? ""); on = nextDay(on)) {
      const from = on === fromDay ? minutesOf(fromAt ?? "0:00") : 0;
      const to = on === toDay ? minutesOf(toAt ?? "0:00") : wholeDay;
      if (to > from) add({ key: `busy-${i}-${on}`, kind: "busy", on, from, to, title: b.title, says: name });
    }
  });
  for (const list of days.values()) list.sort((a, b) => (a.from ?? -1) - (b.from ?? -1));
  return days;
}

const dateOf = (on: string) => new Date(`${on}T12:00:00`);

/** The date some days after another. */
export function addDays(on: string, days: number): string {
  const d = dateOf(on);
  d.setDate(d.getDate() + days);
  return localDay(d);
}

const nextDay = (on: string) => addDays(on, 1);

/** The first day of the month some months after that of a date. */
export function addMonths(on: string, months: number): string {
  const d = dateOf(on);
  return localDay(new Date(d.getFullYear(), d.getMonth() + months, 1, 12));
}

/** The Monday of a date's week. */
export const mondayOf = (on: string) => addDays(on, -((dateOf(on).getDay() + 6) % 7));

/** The days a month is shown by: whole weeks. */
export function monthDays(on: string): string[] {
  const first = mondayOf(addMonths(on, 0));
  const end = addMonths(on, 1);
  const out: string[] = [];
  for (let d = first; d < end || out.length % 7 !== 0; d = addDays(d, 1)) out.push(d);
  return out;
}

/** The seven days of a date's week. */
export const weekDays = (on: string) => Array.from({ length: 7 }, (_, i) => addDays(mondayOf(on), i));

/** Entries side by side where they share time: the lane of each, and how many there are. */
export function lanes(entries: readonly Entry[]): { entry: Entry; lane: number; of: number }[] {
  const ends: number[] = [];
  const placed = entries
    .filter((e) => e.from !== undefined)
    .map((entry) => {
      const from = entry.from ?? 0;
      let lane = ends.findIndex((end) => end <= from);
      if (lane < 0) lane = ends.length;
      ends[lane] = entry.to;
      return { entry, lane };
    });
  return placed.map((p) => ({ ...p, of: Math.max(1, ends.length) }));
}

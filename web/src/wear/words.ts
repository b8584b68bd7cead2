import type { WearAdvice, WearClock, WearEntry, WornEntry, WornHead } from "../api/types";
import { day } from "../lib/units";
import { countOf } from "../lib/countOf";

/** Weeks as one says them. */
export const weeks = (n: number) => countOf(n, "week");

/** A range of weeks. */
export const span = (least: number, most: number) =>
  least === most ? weeks(most) : `${least} to ${weeks(most)}`;

/** How long until the day planned, or since. */
export function left({ planned, day }: WearClock): string {
  const days = planned - day;
  if (days === 0) return "today";
  if (days < 0) return days === -1 ? "a day over" : `${-days} days over`;
  return days === 1 ? "tomorrow" : `in ${days} days`;
}

/** When it is looked at next. */
export const nextLook = ({ clock, nextOn }: Pick<WornEntry, "clock" | "nextOn">) =>
  nextOn === undefined || clock.checkLate ? "a check is due" : `next check ${day(nextOn)}`;

/** What each advice asks for, in a word. */
export const deeds: Readonly<Record<WearAdvice["do"], string>> = {
  clinician: "See a clinician",
  "take-down": "Take down",
  loosen: "Loosen",
  refresh: "Redo the ring",
  "put-back": "Put back",
  tend: "Tend",
};

/** By when. */
export const within = (days: number) =>
  days === 0 ? "today" : days === 1 ? "by tomorrow" : `within ${days} days`;

export const felt = { comfortable: "comfortable", tight: "tight", painful: "painful", "": "" } as const;
export const edges = {
  better: "better than before",
  same: "as they were",
  worse: "thinner",
  "": "",
} as const;

/** What an entry says, in a line. */
export function told(entry: WearEntry, head: WornHead): string {
  const name = head.pieces.find((p) => p.key === entry.piece)?.name ?? "pieces";
  const back = (entry.saved ?? []).reduce((n, s) => n + s.good + s.worn, 0);
  switch (entry.kind) {
    case "checked": {
      const found = head.signs.filter((s) => (entry.signs?.[s.key] ?? 0) > 0);
      return found.length === 0
        ? "Checked: all well"
        : `Checked: ${found.map((s) => s.grades[entry.signs?.[s.key] ?? 0]?.toLowerCase()).join("; ")}`;
    }
    case "put-back":
      return `${entry.count} of ${name} put back`;
    case "replaced":
      return `${entry.count} of ${name} replaced`;
    case "lost":
      return `${entry.count} of ${name} lost`;
    case "ring-off":
      return `Outer row taken off, ${back} pieces kept`;
    case "renewed":
      return entry.rows === 2 ? "Both outer rows done again" : "Outer row done again";
    case "taken-down":
      return `Taken down, ${back} pieces saved`;
    case "noted":
      return entry.photo ? "Picture" : "Note";
  }
}

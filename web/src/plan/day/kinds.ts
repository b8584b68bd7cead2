import type { DayPlan, DaySpan } from "../../api/types";

export type Kind = DaySpan["kind"];

/** How each kind of work is drawn and called on the day line: never by colour alone. */
export const kinds: Readonly<Record<Kind, { name: string; mark: string; fill: string; ink: string }>> = {
  settle: { name: "Prepare the head", mark: "S", fill: "#e9d9b6", ink: "#2a231c" },
  tracks: { name: "Cornrows", mark: "C", fill: "#4f7186", ink: "#fffaf0" },
  net: { name: "Net", mark: "N", fill: "#a9c0cc", ink: "#2a231c" },
  plaits: { name: "Part and plait", mark: "P", fill: "#94b690", ink: "#2a231c" },
  hook: { name: "Hook on", mark: "H", fill: "#c98a1b", ink: "#2a231c" },
  attach: { name: "Attach and hide", mark: "A", fill: "#2e5a38", ink: "#fffaf0" },
  conceal: { name: "Hide", mark: "A", fill: "#2e5a38", ink: "#fffaf0" },
  finish: { name: "Check and finish", mark: "F", fill: "#6d5f8d", ink: "#fffaf0" },
};

/** Spans of one person that follow each other in one kind of work, drawn as one. */
export interface Stretch {
  kind: Kind;
  person: number;
  start: number;
  end: number;
  rests: { start: number; end: number; arms: boolean }[];
}

/** The stretches of a sitting, person by person. */
export function stretches(spans: readonly DaySpan[]): Stretch[] {
  const out: Stretch[] = [];
  const last = new Map<number, Stretch>();
  for (const s of [...spans].sort((a, b) => a.startMin - b.startMin)) {
    const before = last.get(s.person);
    const rests = (s.rests ?? []).map((r) => ({ start: r.startMin, end: r.endMin, arms: r.arms ?? false }));
    if (before && kinds[before.kind].mark === kinds[s.kind].mark && s.startMin - before.end < 0.5) {
      before.end = s.endMin;
      before.rests.push(...rests);
      continue;
    }
    const next = { kind: s.kind, person: s.person, start: s.startMin, end: s.endMin, rests };
    last.set(s.person, next);
    out.push(next);
  }
  return out;
}

/** The time of the clock some minutes after another, such as 21:40; past midnight it begins anew. */
export function after(at: string, minutes: number): string {
  const [h, m] = at.split(":").map(Number);
  const sum = Math.round((h ?? 0) * 60 + (m ?? 0) + minutes);
  const two = (n: number) => String(n).padStart(2, "0");
  return `${two(Math.floor(sum / 60) % 24)}:${two(sum % 60)}`;
}

/** What sitting i is called: those of a helper beforehand are not counted. */
export function sittingName({ sittings }: Pick<DayPlan, "sittings">, i: number): string {
  if (sittings[i]?.evening) return "The evening before";
  return `Sitting ${i + 1 - sittings.filter((s) => s.evening).length}`;
}

/** How many days lie between two dates. */
export const daysBetween = (from: string, to: string) =>
  Math.round((Date.parse(`${to}T12:00:00Z`) - Date.parse(`${from}T12:00:00Z`)) / 86_400_000);

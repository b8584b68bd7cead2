import names from "../../../core/parting/zones.json";
import type { Section } from "../api/types";
import { length, type LengthUnit } from "../lib/units";

const zoneNames: Readonly<Record<string, string>> = names;

export const zoneName = (zone: string) => zoneNames[zone] ?? zone;

/** What a cornrow is called, as the core says it: "Cornrow 3 on top", "Left side, cornrow 1". */
export function cornrowName({ zone, id }: { zone: string; id: string }): string {
  const number = id.replace(/^[A-Z]+/, "");
  const name = zoneName(zone);
  return name.startsWith("Cornrows")
    ? `Cornrow ${number}${name.slice("Cornrows".length)}`
    : `${name}, cornrow ${number}`;
}

/** Whether a zone reaches over both sides of the head. */
export const central = (zone: string) => zone.length === 1;

/** Whether the rows of a zone run all round the head. */
export const ring = (zone: string) => zone === "R" || zone === "H";

/** Where the rows of a zone are counted, and measured, from. */
export function rowStart(zone: string): string {
  if (ring(zone)) return "the front centre";
  if (central(zone)) return "the middle";
  return zone.startsWith("B") || zone.startsWith("N") ? "the middle part" : "the hairline";
}

/** Where a section lies, as one would say it at the chair. */
export function place(s: Section): string {
  const row = ring(s.zone) ? `ring ${s.row} from the hairline` : `row ${s.row} from below`;
  const from = ring(s.zone)
    ? "the front centre, going left"
    : central(s.zone)
      ? "the client’s left"
      : rowStart(s.zone);
  return `${row}, ${ordinal(s.index)} from ${from}`;
}

function ordinal(n: number): string {
  const ending = n % 100 > 10 && n % 100 < 14 ? "th" : ({ 1: "st", 2: "nd", 3: "rd" }[n % 10] ?? "th");
  return `${n}${ending}`;
}

/** A section in one line, for a screen reader. */
export function spoken(s: Section, unit: LengthUnit): string {
  const size = `${length(s.widthMm.mean, unit)} wide, ${length(s.heightMm.mean, unit)} high`;
  const facts = [
    s.linked && "linked",
    s.locked && "locked",
    s.given.count > 1 && `${s.given.count} pieces`,
  ].filter(Boolean);
  return `${zoneName(s.zone)}, ${place(s)}: ${[size, ...facts].join(", ")}`;
}

import type { Section } from "../api/types";
import { length, type LengthUnit } from "../app/units";

export const zoneNames: Record<string, string> = {
  FL: "Front left",
  FR: "Front right",
  BL: "Back left",
  BR: "Back right",
};

export const zoneName = (zone: string) => zoneNames[zone] ?? zone;

/** Where a section lies, as one would say it at the chair. */
export function place(s: Section): string {
  const from = s.zone.startsWith("F") ? "the hairline" : "the middle part";
  return `row ${s.row} from below, ${ordinal(s.index)} from ${from}`;
}

function ordinal(n: number): string {
  const ending = n % 100 > 10 && n % 100 < 14 ? "th" : ({ 1: "st", 2: "nd", 3: "rd" }[n % 10] ?? "th");
  return `${n}${ending}`;
}

/** A section in one line, for a screen reader. */
export const spoken = (s: Section, unit: LengthUnit) =>
  `${zoneName(s.zone)}, ${place(s)}: ${length(s.widthMm.mean, unit)} wide, ${length(s.heightMm.mean, unit)} high`;

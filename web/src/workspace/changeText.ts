import type { Change } from "../api/types";
import { length, money, weight, type LengthUnit } from "../app/units";

/** A changed value as the reader writes it. */
function write(text: string, kind: Change["unit"], unit: LengthUnit, currency: string): string {
  switch (kind) {
    case "mm":
      return length(Number(text), unit);
    case "minor":
      return money(Number(text), currency);
    case "g":
      return weight(Number(text), unit);
    case "%":
      return `${text} %`;
    case "":
      return text === "" ? "nothing" : text;
  }
}

/** A change in one line: "Front section width: 1 in → ¾ in". */
export const changeText = (c: Change, unit: LengthUnit, currency: string) =>
  `${c.label}: ${write(c.from, c.unit, unit, currency)} → ${write(c.to, c.unit, unit, currency)}`;

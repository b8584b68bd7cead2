import type { Change } from "../../api/types";
import { length, weight, type LengthUnit } from "../../lib/units";

/** A changed value as the reader writes it. */
function write(
  text: string,
  kind: Change["unit"],
  unit: LengthUnit,
  money: (minor: number) => string,
): string {
  switch (kind) {
    case "mm":
      return length(Number(text), unit);
    case "minor":
      return money(Number(text));
    case "g":
      return weight(Number(text), unit);
    case "%":
      return `${text} %`;
    case "":
      return text === "" ? "nothing" : text;
  }
}

/** A change in one line: "Front section width: 1 in → ¾ in". */
export const changeText = (c: Change, unit: LengthUnit, money: (minor: number) => string) =>
  `${c.label}: ${write(c.from, c.unit, unit, money)} → ${write(c.to, c.unit, unit, money)}`;

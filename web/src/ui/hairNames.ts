import type { PlanInput } from "../api/types";

/** Where own hair is measured. */
export const areas = [
  ["frontMm", "In front"],
  ["sidesMm", "At the sides"],
  ["crownMm", "At the crown"],
  ["napeMm", "At the nape"],
] as const;

/** What is used up at a head, as it is spoken of. */
export const productNames: Readonly<Record<NonNullable<PlanInput["avoid"]>[number], string>> = {
  gel: "Firm gel",
  wax: "Balm of wax",
  oil: "Scalp oil",
  "leave-in": "Leave-in",
  foam: "Setting foam",
  glue: "Glue",
  bands: "Thin bands",
  rings: "Rings",
  cord: "Cord",
};

/** The entries of a list of names, for a choice. */
export function choices<K extends string>(names: Readonly<Record<K, string>>) {
  return (Object.keys(names) as K[]).map((value) => ({ value, label: names[value] }));
}

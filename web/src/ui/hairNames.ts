/** Where own hair is measured. */
export const areas = [
  ["frontMm", "In front"],
  ["sidesMm", "At the sides"],
  ["crownMm", "At the crown"],
  ["napeMm", "At the nape"],
] as const;

/** The entries of a list of names, for a choice. */
export function choices<K extends string>(names: Readonly<Record<K, string>>) {
  return (Object.keys(names) as K[]).map((value) => ({ value, label: names[value] }));
}

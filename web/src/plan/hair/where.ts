import type { Layout, Where, WhereKind } from "../../api/types";
import { zoneName } from "../../head";
import { countOf } from "../../lib/countOf";

/** Where a use can hold, by a word; zones, rows and places name theirs. */
export const whereNames: Readonly<Record<WhereKind, string>> = {
  everywhere: "Everywhere",
  base: "On the base",
  front: "In front",
  back: "Behind",
  hairline: "Along the hairline",
  part: "Along the part",
  nape: "At the nape",
  ends: "Where cornrows go on as braids",
  zones: "A zone",
  rows: "A row",
  places: "Picked on the head",
};

/** Where, as one says it. */
export function whereText({ kind, zones, rows, places }: Where): string {
  switch (kind) {
    case "zones":
      return (zones ?? []).map(zoneName).join(", ");
    case "rows":
      return (rows ?? []).map((r) => `${zoneName(r.zone)}, row ${r.row}`).join("; ");
    case "places": {
      const n = places?.length ?? 0;
      return countOf(n, "spot picked on the head", "spots picked on the head");
    }
    default:
      return whereNames[kind];
  }
}

/** A choice of where, under a name of its own. */
export interface WhereChoice {
  value: string;
  label: string;
  where: Where;
}

const simple = ["front", "back", "hairline", "part", "nape", "ends"] as const;

/** The places of this head that a use can be for, by group. */
export function whereChoices(layout: Layout): { label: string; options: WhereChoice[] }[] {
  const bases = [...new Set([...layout.tracks, ...layout.nets].map((t) => t.zone))];
  const zones = [...new Set([...layout.zones.map((z) => z.zone), ...bases])];
  return [
    {
      label: "Of the head",
      options: simple
        .filter((kind) => kind !== "part" || layout.partLine.length > 0)
        .filter((kind) => kind !== "ends" || layout.tracks.some((t) => t.fed))
        .map((kind) => ({ value: kind, label: whereNames[kind], where: { kind } })),
    },
    {
      label: "A zone",
      options: zones.map((zone) => ({
        value: `zone ${zone}`,
        label: zoneName(zone),
        where: { kind: "zones", zones: [zone] },
      })),
    },
    {
      label: "A row",
      options: layout.rows.map((r) => ({
        value: `row ${r.zone} ${r.row}`,
        label: `${zoneName(r.zone)}, row ${r.row}`,
        where: { kind: "rows", rows: [{ zone: r.zone, row: r.row }] },
      })),
    },
  ];
}

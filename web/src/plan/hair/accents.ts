import { useMemo } from "react";
import { useItemChoice } from "../../api/queries";
import type { Accent, Catalogue, ItemDocument, PlanInput } from "../../api/types";
import { pieceName } from "./pieceChoice";

/** What can be put on besides: the pieces of the plan, and the small things of the supplies. */
export function useAccentChoice({ pieces }: PlanInput, catalogue: Catalogue) {
  const items = useItemChoice().data;
  return useMemo(() => {
    const things = (items ?? []).filter((i) =>
      catalogue.kinds.some((k) => k.kind === i.item.kind && !k.hair),
    );
    return {
      options: [
        {
          label: "Pieces of this plan",
          options: pieces.map((p) => ({ value: p.key, label: pieceName(pieces, p) })),
        },
        {
          label: "Small things of the supplies",
          options: things.map((i) => ({ value: i.id, label: i.item.name })),
        },
      ],
      of: (value: string): Pick<Accent, "piece" | "thing"> => {
        const item = things.find((i) => i.id === value);
        return item ? { thing: thingOf(item) } : { piece: value };
      },
    };
  }, [items, pieces, catalogue]);
}

/** A small thing of the supplies as a plan has it. */
export function thingOf({ id, item }: ItemDocument): NonNullable<Accent["thing"]> {
  const single = item.offers.find((o) => o.packs === 1) ?? item.offers[0];
  const colour = item.colours[0]?.name;
  return {
    name: item.name,
    massG: item.massG,
    pack: item.pack.units,
    priceMinor: single ? Math.round(single.priceMinor / single.packs) : 0,
    item: id,
    ...(colour !== undefined && { colour }),
  };
}

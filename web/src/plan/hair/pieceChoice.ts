import { useMemo } from "react";
import { useItemChoice } from "../../api/queries";
import type { Catalogue, Item, Piece } from "../../api/types";

/** The pieces to choose from: those of the supplies in their first colour, and what the price list has besides. */
export function usePieceChoice(catalogue: Catalogue): readonly Piece[] {
  const items = useItemChoice().data;
  return useMemo(() => {
    const own = (items ?? []).flatMap(({ piece, item }) => (piece ? [inColour(piece, item.colours[0])] : []));
    return [...own, ...catalogue.pieces.filter((p) => !own.some((o) => o.name === p.name))];
  }, [items, catalogue]);
}

type Colour = Item["colours"][number];

const noColours: readonly Colour[] = [];

/** The colours the item of a piece comes in. */
export function useColours(piece: Piece): readonly Colour[] {
  const items = useItemChoice().data;
  return items?.find((i) => i.id === piece.item)?.item.colours ?? noColours;
}

/** What the supplies say of a piece now, where that is not what the plan was made with. */
export function useNewerFacts(piece: Piece): Piece | undefined {
  const items = useItemChoice().data;
  const of = items?.find((i) => i.id === piece.item);
  if (!of?.piece) return undefined;
  const now = inColour(
    of.piece,
    of.item.colours.find((c) => c.name === piece.colour),
  );
  const facts = (p: Piece) =>
    JSON.stringify(
      Object.entries(p)
        .filter(([name]) => name !== "key")
        .sort(([x], [y]) => x.localeCompare(y)),
    );
  return facts(now) === facts(piece) ? undefined : now;
}

/** A piece in one of its colours. */
export const inColour = (piece: Piece, colour: Colour | undefined): Piece =>
  colour ? { ...piece, colour: colour.name, swatch: colour.swatch } : piece;

/** What a piece is called among those of its plan: with its colour, where that alone tells it apart. */
export const pieceName = (pieces: readonly Piece[], piece: Piece): string =>
  piece.colour && pieces.some((p) => p.key !== piece.key && p.name === piece.name)
    ? `${piece.name}, ${piece.colour.toLowerCase()}`
    : piece.name;

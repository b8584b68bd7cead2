import type { Catalogue, Method, PlanInput, Way } from "../api/types";
import { kindOf, type Reading } from "../head";

export const methodOf = (catalogue: Catalogue, id: Way["method"]): Method | undefined =>
  catalogue.methods.find((m) => m.id === id);

/** The method of a way, told apart from others of the same method by number. */
export function wayName(catalogue: Catalogue, ways: readonly Way[], key: string): string {
  const way = ways.find((w) => w.key === key);
  if (!way) return key;
  const name = methodOf(catalogue, way.method)?.name ?? way.method;
  const same = ways.filter((w) => w.method === way.method);
  return same.length > 1 ? `${name} (${same.indexOf(way) + 1})` : name;
}

/** The head coloured by what hangs where: by piece and by method. */
export const givenReadings = (input: PlanInput, catalogue: Catalogue): Reading[] => {
  const piece = (i: number) => kindOf(i, input.pieces[i]?.name ?? "");
  const way = (i: number) => kindOf(i, wayName(catalogue, input.ways, input.ways[i]?.key ?? ""));
  return [
    { key: "piece", name: "Piece", of: (s) => piece(s.given.piece), ofHook: (h) => piece(h.given.piece) },
    { key: "method", name: "Method", of: (s) => way(s.given.way), ofHook: (h) => way(h.given.way) },
  ];
};

import type { Catalogue, Layout, Method, PlanInput, Way } from "../api/types";
import { hooksOf, kindOf, type Reading } from "../head";

export const methodOf = (catalogue: Catalogue, id: Way["method"]): Method | undefined =>
  catalogue.methods.find((m) => m.id === id);

/** Whether a method hides plaits that hang loose. */
export const onPlaits = (method: Method | undefined): boolean => method?.grounds.includes("plait") ?? false;

/** Whether a method hangs pieces where no plait hangs loose: on tracks, a net, linked plaits. */
export const onBase = (method: Method | undefined): boolean =>
  method?.grounds.some((g) => g !== "plait") ?? false;

/** The method of a way, told apart from others of the same method by number. */
export function wayName(catalogue: Catalogue, ways: readonly Way[], key: string): string {
  const way = ways.find((w) => w.key === key);
  if (!way) return key;
  const name = methodOf(catalogue, way.method)?.name ?? way.method;
  const same = ways.filter((w) => w.method === way.method);
  return same.length > 1 ? `${name} (${same.indexOf(way) + 1})` : name;
}

/** The ways worth showing: all but the hooking of the base on a head that has none. Their letters follow this order. */
export function shownWays({ ways, uses }: PlanInput, layout: Layout): readonly Way[] {
  const bare = hooksOf(layout).length === 0;
  const onPlaits = new Set(uses.filter((u) => u.where.kind !== "base").map((u) => u.way));
  return ways.filter((w) => !bare || w.key !== uses[1]?.way || onPlaits.has(w.key));
}

/** The head coloured by what hangs where: by piece and by method. */
export const givenReadings = (input: PlanInput, catalogue: Catalogue, layout: Layout): Reading[] => {
  const shown = shownWays(input, layout);
  const piece = (i: number) => kindOf(i, input.pieces[i]?.name ?? "");
  const way = (i: number) => {
    const of = input.ways[i];
    return of ? kindOf(shown.indexOf(of), wayName(catalogue, input.ways, of.key)) : kindOf(i, "");
  };
  return [
    { key: "piece", name: "Piece", of: (s) => piece(s.given.piece), ofHook: (h) => piece(h.given.piece) },
    { key: "method", name: "Method", of: (s) => way(s.given.way), ofHook: (h) => way(h.given.way) },
  ];
};

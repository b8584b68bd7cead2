import type { Accent, Catalogue, Given, Hook, Method, PlanInput, Section, Way } from "../../api/types";
import { kindOf, type Class, type Reading } from "../../head";
import { pieceName } from "./pieceChoice";
import type { Reaching } from "../draft/onBench";

export const methodOf = (catalogue: Catalogue, id: Way["method"]): Method | undefined =>
  catalogue.methods.find((m) => m.id === id);

/** Whether a method hides plaits that hang loose. */
export const onPlaits = (method: Method | undefined): boolean => method?.grounds.includes("plait") ?? false;

/** Whether a method hangs pieces where no plait hangs loose: on cornrows, a net, linked plaits. */
export const onBase = (method: Method | undefined): boolean =>
  method?.grounds.some((g) => g !== "plait") ?? false;

/** What a way is called: its method, with its letter where there are several to tell apart. */
export function wayName(catalogue: Catalogue, input: WaysOf, key: string): string {
  const way = input.ways.find((w) => w.key === key);
  if (!way) return key;
  const name = methodOf(catalogue, way.method)?.name ?? way.method;
  const shown = shownWays(input);
  const at = shown.indexOf(way);
  return at < 0 || shown.length < 2 ? name : `${String.fromCharCode(65 + at)} ${name}`;
}

/** What the letters of ways follow from. */
export type WaysOf = Pick<PlanInput, "ways" | "uses"> & { parting: Pick<PlanInput["parting"], "structure"> };

/** The ways worth showing: all but the hooking of the base on a head that has none. Their letters follow this order. */
export function shownWays({ ways, uses, parting }: WaysOf): readonly Way[] {
  const onPlaits = new Set(uses.filter((u) => u.where.kind !== "base").map((u) => u.way));
  return ways.filter((w) => parting.structure !== "all" || w.key !== uses[1]?.way || onPlaits.has(w.key));
}

/** What an accent is called. */
export const accentName = (input: PlanInput, { piece, thing }: Accent): string =>
  thing?.name ?? input.pieces.find((p) => p.key === piece)?.name ?? "";

const plain = { fill: "#efe4cb", ink: "#2a231c" };
/** Of a plan of outer rows: what is not done again. */
const stays: Class = { key: "stays", fill: "#cfc3ad", ink: "#2a231c", mark: "·", name: "Stays as it hangs" };

const noAccent: Class = { key: "-", mark: "", name: "None", ...plain };

/** How far packs of one piece go in working order: the pack every place is filled from. */
function reachReading({ filling, packs }: Reaching): Reading {
  const rank = new Map(filling.order.map((place, i) => [place, i]));
  const of = ({ place }: Given): Class => {
    const at = rank.get(place);
    if (at === undefined)
      return { key: "0", mark: "–", name: "Another piece", fill: "#e9e0cc", ink: plain.ink };
    const pack = filling.reach.find((r) => at < r.places)?.packs ?? filling.reach.length;
    return pack <= packs
      ? { key: "1", mark: String(pack), name: "Reached", fill: "#2e5a38", ink: "#fffaf0" }
      : { key: "2", mark: String(pack), name: "Needs a further pack", fill: "#fbe9c4", ink: plain.ink };
  };
  return {
    key: "reach",
    name: "Reach",
    of: (s) => of(s.given),
    ofHook: (h) => of(h.given),
    order: ["1", "2", "0"],
  };
}

/** The head coloured by what hangs where: by piece and by method. */
export const givenReadings = (input: PlanInput, catalogue: Catalogue, reach?: Reaching): Reading[] => {
  const shown = shownWays(input);
  const piece = ({ piece: i, kept }: Given) => {
    if (kept) return stays;
    const of = input.pieces[i];
    return kindOf(i, of ? pieceName(input.pieces, of) : "");
  };
  const way = ({ way: i, kept }: Given) => {
    if (kept) return stays;
    const of = input.ways[i];
    // The letter is the mark.
    return of ? kindOf(shown.indexOf(of), methodOf(catalogue, of.method)?.name ?? of.method) : kindOf(i, "");
  };
  const accents = input.accents ?? [];
  const accent = ({ accents: at }: Given) => {
    const i = at[0];
    const of = i === undefined ? undefined : accents[i];
    return i === undefined || !of ? noAccent : kindOf(i, accentName(input, of));
  };
  return [
    ...(reach ? [reachReading(reach)] : []),
    ...(accents.length > 0
      ? [
          {
            key: "accent",
            name: "Accents",
            of: (s: Section) => accent(s.given),
            ofHook: (h: Hook) => accent(h.given),
            order: [...accents.map((_, i) => String(i)), noAccent.key],
          },
        ]
      : []),
    { key: "piece", name: "Piece", of: (s) => piece(s.given), ofHook: (h) => piece(h.given) },
    { key: "method", name: "Method", of: (s) => way(s.given), ofHook: (h) => way(h.given) },
  ];
};

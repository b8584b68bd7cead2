import type { Catalogue, Kind, Lot } from "../api/types";

type Facts = Catalogue["kinds"][number];

const unknown: Facts = {
  kind: "bands",
  name: "Things",
  unit: "piece",
  units: "pieces",
  hair: false,
  loose: false,
  hangs: false,
};

/** What holds for every item of a kind. */
export const kindOf = (catalogue: Catalogue, kind: Kind): Facts =>
  catalogue.kinds.find((k) => k.kind === kind) ?? unknown;

/** A number of what is counted in packs of a kind. */
export const counted = (n: number, kind: Facts) => `${n} ${n === 1 ? kind.unit : kind.units}`;

/** How often a lot was worn, and its state. */
export const worn = ({ round, condition }: Lot["lot"]) =>
  `worn ${round === 1 ? "once" : round === 2 ? "twice" : `${round} times`}, ${condition}`;

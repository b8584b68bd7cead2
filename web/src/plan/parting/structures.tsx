import type { Structure } from "../../api/types";

/** The structures, slowest first, with where individuals stand and why one takes it. */
export const structures: Record<Structure, { name: string; why: string }> = {
  all: { name: "All over", why: "A plait in every section: it styles every way, and takes longest." },
  linked: {
    name: "Linked plaits",
    why: "Each plait is laid into the next one behind it. The parts still look individual; no cornrows to work.",
  },
  "ear-to-ear": {
    name: "Ear to ear",
    why: "Individuals in front of the ear-to-ear part, a base behind: a natural front, a fast back.",
  },
  "front-design": {
    name: "Front design",
    why: "Decorative cornrows in front, individuals beside them, a base behind. Left and right must agree.",
  },
  horseshoe: {
    name: "Horseshoe",
    why: "Rows of individuals on both sides of the part, a base beside and behind: free parting on top in about half the time.",
  },
  perimeter: {
    name: "Perimeter",
    why: "A ring of individuals round the hairline, a base inside: can be tied up, and only the ring is redone.",
  },
  "net-cap": {
    name: "Net cap",
    why: "The hairline and the part line free, all else under a net: least pull, for fine hair, with many places to hook.",
  },
  "part-line": {
    name: "Part line only",
    why: "A few plaits along the part, cornrows for the rest: the cheapest illusion.",
  },
};

const head = "M22 4c10 0 16 8 16 20s-6 20-16 20S6 36 6 24 12 4 22 4Z";
const nose = "M20 4l2-3 2 3";

const dots = (places: readonly (readonly [number, number])[]) =>
  places.map(([x, y]) => (
    <circle key={`${x} ${y}`} cx={x} cy={y} r={1.7} fill="currentColor" stroke="none" />
  ));

const behind = [14, 18, 22, 26, 30]
  .map((x) => `M${x} 27V${x === 22 ? 41 : x === 18 || x === 26 ? 40 : 37}`)
  .join("");
const front = [
  [13, 12],
  [18, 10],
  [26, 10],
  [31, 12],
  [11, 18],
  [16, 16],
  [28, 16],
  [33, 18],
  [19, 19],
  [25, 19],
] as const;
const back = [
  [11, 26],
  [17, 26],
  [22, 28],
  [27, 26],
  [33, 26],
  [14, 33],
  [20, 35],
  [25, 35],
  [30, 33],
  [18, 40],
  [26, 40],
] as const;
const ring = Array.from({ length: 16 }, (_, i) => {
  const turn = (i * Math.PI) / 8;
  return [22 + 12.5 * Math.sin(turn), 24 - 16.5 * Math.cos(turn)] as const;
});
const beside = [9, 13, 17, 21].flatMap((y) => [[18.5, y] as const, [25.5, y] as const]);

const drawings: Record<Structure, { lines?: string; dots: readonly (readonly [number, number])[] }> = {
  all: { dots: [...front, ...back] },
  linked: { dots: [], lines: "M12 14l5 5-5 5 5 5-3 6M22 8l4 5-4 5 4 5-4 5 4 6-3 6M32 14l-4 5 4 5-4 5 3 6" },
  "ear-to-ear": { dots: front, lines: `M7 23H37${behind}` },
  "front-design": {
    dots: [
      [10, 19],
      [12, 14],
      [34, 19],
      [32, 14],
      [14, 21],
      [30, 21],
    ],
    lines: `M7 25H37M17 8q-3 8 0 14M20 7q-2 8 0 15M24 7q2 8 0 15M27 8q3 8 0 14${behind}`,
  },
  horseshoe: {
    dots: [...beside, [22, 25]],
    // At the sides and behind thin cornrows run together into fewer.
    lines:
      "M12 12V22q0 5-1 9V36M9 16V22q0 5 2 9M32 12V22q0 5 1 9V36M35 16V22q0 5-2 9M16 28q1 4 2 6V40M20 28q-1 4-2 6M24 28q1 4 2 6V40M28 28q-1 4-2 6M22 29V41",
  },
  perimeter: { dots: ring, lines: "M16 14V34M20 12V36M24 12V36M28 14V34" },
  "net-cap": {
    dots: [...ring, [22, 11], [22, 15]],
    lines: "M14 18l6 6-6 6M20 18l6 6-6 6M26 18l4 6-4 6M14 24l6 8M30 24l-6 8M18 18l-4 6M24 18l-6 6",
  },
  "part-line": { dots: beside, lines: "M14 11V34M10 15V31M30 11V34M34 15V31M18 26V40M22 26V41M26 26V40" },
};

/** A head from above, its face up, with what stands where. */
export const StructureIcon = ({ structure }: { structure: Structure }) => (
  <svg
    viewBox="0 0 44 48"
    width="44"
    height="48"
    aria-hidden
    fill="none"
    stroke="currentColor"
    strokeWidth="1.4"
  >
    <path d={head} strokeWidth="1.8" />
    <path d={nose} />
    {drawings[structure].lines && <path d={drawings[structure].lines} strokeWidth="1.1" />}
    {dots(drawings[structure].dots)}
  </svg>
);

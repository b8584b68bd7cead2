import type { Wish } from "../../api/types";

type Pattern = Wish["pattern"];

export const patternNames: Record<Pattern, string> = {
  grid: "Grid",
  brick: "Brick",
  triangle: "Triangle",
  "free-hand": "Free-hand",
};

export const patternNotes: Record<Pattern, string> = {
  grid: "Parts of neighbouring rows line up: clean lines, on purpose.",
  brick: "Each section sits over the part of the next row, so hair falls between and no line opens.",
  triangle: "A zigzag in each row: softer part lines, none of them straight.",
  "free-hand": "Brick without a comb, for a grown-in look: even counts, uneven lines.",
};

const drawings: Record<Pattern, string> = {
  brick: "M2 10h40M2 19h40M15 1v9M29 1v9M8 10v9M22 10v9M36 10v9M15 19v8M29 19v8",
  grid: "M2 10h40M2 19h40M12 1v26M22 1v26M32 1v26",
  triangle:
    "M2 10h40M2 19h40M2 10l7-9 7 9 7-9 7 9 7-9 5 8M2 10l7 9 7-9 7 9 7-9 7 9 5-8M2 27l7-8 7 8 7-8 7 8 7-8 5 7",
  "free-hand":
    "M2 9q10 3 20 1t20 0M2 19q12-2 20 0t20-1M14 1l2 9M30 2l-2 8M8 10l1 9M21 10l-1 9M36 9l1 9M15 19l-1 8M28 19l2 8",
};

/** A few rows of a pattern, drawn small. */
export const PatternIcon = ({ pattern }: { pattern: Pattern }) => (
  <svg
    viewBox="0 0 44 28"
    width="40"
    height="25"
    aria-hidden
    fill="none"
    stroke="currentColor"
    strokeWidth="1.8"
  >
    <path d={drawings[pattern]} />
  </svg>
);

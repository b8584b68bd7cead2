import type { Piece } from "../api/types";

/** How pieces end, which decides how they are cared for. */
export const pieceEnds: { value: NonNullable<Piece["ends"]>; label: string }[] = [
  { value: "", label: "Plain" },
  { value: "curly", label: "Curly" },
  { value: "loose", label: "Left loose" },
];

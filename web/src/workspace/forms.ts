import type { Piece } from "../api/types";

export const formNames: Record<Piece["form"], string> = {
  "looped-loc": "Pre-looped loc",
  "looped-twist": "Pre-looped twist",
  bulk: "Bulk hair",
};

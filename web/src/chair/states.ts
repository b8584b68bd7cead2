import type { ChairView } from "../api/types";
import type { Class } from "../head";

const ink = "#2a231c";

/** How a place stands, as a colour and a mark. */
export const states = {
  open: { key: "0", fill: "#d8c7a6", ink, mark: "", name: "To do" },
  plaited: { key: "1", fill: "#b58a58", ink, mark: "≀", name: "Plaited" },
  done: { key: "2", fill: "#8cc08f", ink, mark: "✓", name: "Piece on" },
  without: { key: "3", fill: "#a79f94", ink, mark: "–", name: "Left out" },
} as const satisfies Record<string, Class>;

/** How every place stands, in the order of the plan. */
export const statesOf = (view: ChairView): Class[] =>
  view.pieces.map((piece, i) => {
    if (piece === "done") return states.done;
    if (piece === "left-out") return states.without;
    return view.plaits[i] === "done" ? states.plaited : states.open;
  });

import { create } from "zustand";
import type { DrapeStyle, Showing } from "../../api/types";

/** How the hair is looked at: worn in which style, and what is pointed at. */
interface Worn {
  style: DrapeStyle;
  /** Whether what shows is marked. */
  cover: boolean;
  /** What shows and is pointed at in its list. */
  pointed: Showing | undefined;
  /** What the part that is open asks the head to show. */
  asked: string | undefined;
  set: (change: Partial<Omit<Worn, "set">>) => void;
}

export const useWorn = create<Worn>()((set) => ({
  style: "down",
  cover: true,
  pointed: undefined,
  asked: undefined,
  set,
}));

/** What the head is coloured by, or what is laid over it. */
export const drapeKey = "drape";
export const fitKey = "fit";
export const loadKey = "load";
export const landingKey = "landing";

export const styleNames: Readonly<Record<DrapeStyle, string>> = {
  down: "Down",
  "half-up": "Half up",
  tied: "Tied back",
};

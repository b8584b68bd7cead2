import { create } from "zustand";
import { createJSONStorage, persist } from "zustand/middleware";
import { storage } from "./storage";
import type { LengthUnit } from "./units";

export const hairTones = {
  black: { name: "Black", dark: [20, 16, 18], light: [84, 72, 76] },
  brown: { name: "Dark brown", dark: [37, 25, 20], light: [118, 84, 62] },
  chestnut: { name: "Chestnut", dark: [62, 32, 20], light: [158, 98, 62] },
  grey: { name: "Grey", dark: [74, 72, 74], light: [176, 172, 170] },
} as const;

export const skinTones = {
  deep: { name: "Deep", light: "#8a5a3f", base: "#6d4430", shade: "#4a2c1f", scalp: "#b98a6a" },
  warm: { name: "Warm brown", light: "#bb8460", base: "#9c6848", shade: "#6f4630", scalp: "#dcb08d" },
  tan: { name: "Tan", light: "#d9a982", base: "#c08c66", shade: "#936444", scalp: "#ecc9aa" },
  fair: { name: "Fair", light: "#f0d0b6", base: "#dcb293", shade: "#b08464", scalp: "#f8e4d2" },
} as const;

export type HairTone = keyof typeof hairTones;
export type SkinTone = keyof typeof skinTones;

interface Preferences {
  unit: LengthUnit;
  dim: boolean;
  hair: HairTone;
  skin: SkinTone;
  paper: "letter" | "a4";
  /** Whether keys of one letter do something; some voices and switches press them by chance. */
  letterKeys: boolean;
  /** Which hand holds the hook: drawn steps are turned over for the left. */
  leftHanded: boolean;
  /** At the chair: whether the next step is said aloud, and whether the head is drawn as in a mirror. */
  speaks: boolean;
  mirror: boolean;
  set: (change: Partial<Omit<Preferences, "set">>) => void;
}

/** What this person prefers on this machine. */
export const usePreferences = create<Preferences>()(
  persist(
    (set) => ({
      unit: "in",
      dim: false,
      hair: "brown",
      skin: "warm",
      paper: "letter",
      letterKeys: true,
      leftHanded: false,
      speaks: false,
      mirror: false,
      set,
    }),
    { name: "kladotex.preferences", storage: createJSONStorage(() => storage) },
  ),
);

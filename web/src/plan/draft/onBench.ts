import { createContext, useContext } from "react";
import type { Filling, PlanResult } from "../../api/types";
import type { Draft } from "./draft";
import type { StoredPlan } from "./stored";

/** How far a number of packs goes is shown on the head: which piece, and how many of its packs. */
export interface Reaching {
  filling: Filling;
  packs: number;
}

/** The plan that is open: how it is kept, as it is shown, and what it comes to. */
export interface OnBench {
  plan: StoredPlan;
  /** An earlier version while one is looked at. */
  draft: Draft;
  /** Undefined until the plan was first computed. */
  result: PlanResult | undefined;
  /** Packs are pointed at, to be shown on the head. */
  point: (reach: Reaching | undefined) => void;
}

export const BenchContext = createContext<OnBench | undefined>(undefined);

/** The plan that is open. */
export function useBench(): OnBench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error("Steps are drawn inside a plan.");
  return bench;
}

/** What the plan that is open comes to: for what is drawn once it was computed. */
export function useComputed(): PlanResult {
  const { result } = useBench();
  if (!result) throw new Error("This is drawn once the plan was computed.");
  return result;
}

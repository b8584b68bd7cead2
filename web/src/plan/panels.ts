import { lazy } from "react";
import { fetchHandles } from "./byhand/lazyHandles";
import { fetchFall } from "./fall/parts";
import { fetchShop } from "./shop/parts";

/*
 * The steps of a plan. Each loads by itself, so that a plan opens with the step that is asked
 * for; the others follow while nothing is going on.
 */
const sources = {
  look: () => import("./LookStep"),
  parting: () => import("./PartingStep"),
  hair: () => import("./HairStep"),
  attach: () => import("./AttachStep"),
  day: () => import("./day/DayStep"),
  shop: fetchShop,
  fall: fetchFall,
  handles: fetchHandles,
};

export const LookStep = lazy(async () => ({ default: (await sources.look()).LookStep }));
export const PartingStep = lazy(async () => ({ default: (await sources.parting()).PartingStep }));
export const HairStep = lazy(async () => ({ default: (await sources.hair()).HairStep }));
export const AttachStep = lazy(async () => ({ default: (await sources.attach()).AttachStep }));
export const DayStep = lazy(async () => ({ default: (await sources.day()).DayStep }));

/** Fetches the steps that are not open yet. One that can not be had now is asked for again when it is opened. */
export async function fetchSteps() {
  await Promise.allSettled(Object.values(sources).map((source) => source()));
}

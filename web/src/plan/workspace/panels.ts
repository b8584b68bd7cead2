import { lazy } from "react";
import { fetchHandles } from "../parting";
import { fetchFall, fetchShop } from "../hair";

/*
 * The steps of a plan. Each loads by itself, so that a plan opens with the step that is asked
 * for; the others follow while nothing is going on.
 */
const sources = {
  head: () => import("../head/HeadStep"),
  parting: () => import("../parting/PartingStep"),
  hair: () => import("../hair/HairStep"),
  attach: () => import("../attach/AttachStep"),
  day: () => import("../day/DayStep"),
  shop: fetchShop,
  fall: fetchFall,
  handles: fetchHandles,
};

export const HeadStep = lazy(async () => ({ default: (await sources.head()).HeadStep }));
export const PartingStep = lazy(async () => ({ default: (await sources.parting()).PartingStep }));
export const HairStep = lazy(async () => ({ default: (await sources.hair()).HairStep }));
export const AttachStep = lazy(async () => ({ default: (await sources.attach()).AttachStep }));
export const DayStep = lazy(async () => ({ default: (await sources.day()).DayStep }));

/** Fetches the steps that are not open yet. One that cannot be had now is asked for again when it is opened. */
export async function fetchSteps() {
  await Promise.allSettled(Object.values(sources).map((source) => source()));
}

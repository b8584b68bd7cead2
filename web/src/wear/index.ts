export { WearRing } from "./WearRing";
export { deeds, left, within } from "./words";

export { fetchFall } from "./fall/parts";
export { fetchShop } from "./shop/parts";
export { givenReadings, methodOf, onBase, onPlaits, shownWays, wayName } from "./ways";
export { useAssign } from "./assign/useAssign";
export type { AssignTool } from "./assign/AssignBar";
export { useDrapeLayer } from "./fall/useDrapeLayer";
export { useFallReadings } from "./fall/useFallReadings";
export { usesText, UseList } from "./UseList";
export { whereNames } from "./where";

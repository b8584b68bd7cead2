export { OtherPieces } from "./OtherPieces";
export { PackReach } from "./PackReach";
export { Prepare } from "./Prepare";
export { StashAndOrders } from "./StashAndOrders";
export { ToBuy } from "./ToBuy";

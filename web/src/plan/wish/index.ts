export { WishPart } from "./WishPart";

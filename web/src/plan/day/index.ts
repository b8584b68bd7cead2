export { orderReading } from "./order";

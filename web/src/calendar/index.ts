export { addDays, clock, entriesOf, type Entry } from "./entries";

export { couldStop } from "./could-stop";
export { type Matter, type Matters, type MattersOptions, mattersOf, TriedBefore } from "./matters";

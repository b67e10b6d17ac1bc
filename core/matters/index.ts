export { type Matter, type Matters, type MattersOptions, mattersOf } from "./matters";

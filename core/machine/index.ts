export { type Expectation, GROUPS, type Group, type PowerOn } from "./expectation";
export { cpuHeat, HEAT_OFF_K, type Heat, ROOM_C, warmedC } from "./heat";
export { type Assignment, MODES, type Mode, modesOf } from "./modes";
export type { Observable } from "./observable";
export { type Element, partsOfElement } from "./paths";
export { powerOn } from "./power-on";
export { asExpected } from "./readings";
export type { Moment } from "./sequence";
export { type Simulation, simulate } from "./simulate";

export type { EventKind, JobEvent, JobEvents, Stood } from "./events";
export { HAPPENINGS, type Happening, isClosed, isStage, STAGES, type Stage, stageAfter } from "./stage";
export { eventWords, isEventKind } from "./words";

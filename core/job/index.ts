export type { EventKind, JobEvent, JobEvents } from "./events";
export { HAPPENINGS, type Happening, isClosed, isStage, STAGES, type Stage, stageAfter } from "./stage";
export { eventWords, isEventKind } from "./words";

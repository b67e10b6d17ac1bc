export { IsolationLevel, LockMode } from "@mikro-orm/core";
export {
  Fault,
  type FaultRow,
  Job,
  JobPart,
  type JobRow,
  Link,
  type LinkRow,
  LogEntry,
  Observation,
  Override,
  type OverrideRow,
  Plan,
  PlanRun,
  type PlanRunRow,
  ShelfRevision,
  ShelfType,
  Shop,
  StepDone,
  Technician,
  type TechnicianRow,
} from "./entities";
export { isLost } from "./lost";
export { type EntityManager, entityManager, ormConfig } from "./orm";
export { layPart } from "./part-rows";

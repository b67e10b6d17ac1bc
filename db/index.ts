export { IsolationLevel, LockMode, UniqueConstraintViolationException } from "@mikro-orm/core";
export { afterCommit } from "./after-commit";
export {
  Credential,
  Fault,
  type FaultRow,
  Job,
  JobHead,
  JobPart,
  type JobRow,
  Link,
  type LinkRow,
  LogEntry,
  MachineToken,
  Observation,
  Offer,
  Override,
  type OverrideRow,
  PartReturn,
  Person,
  type PersonRow,
  Photo,
  Plan,
  PlanRun,
  type PlanRunRow,
  ProofRow,
  Reading,
  Session,
  SetupRow,
  ShelfRevision,
  ShelfType,
  Shop,
  ShopEntry,
  SoakLog,
  StepDone,
  StepSkipped,
  StepTime,
  Tip,
  TypePhoto,
} from "./entities";
export { isLost } from "./lost";
export { type EntityManager, entityManager, ormConfig } from "./orm";
export { layPart } from "./part-rows";
export { prepared, queryBuilderOf } from "./query-builder";

import { Photo, StepDone, StepSkipped, StepTime } from "./bench";
import { Fault, FaultEvent, LogEntry, Observation, PartReturn, ProofRow, SetupRow, SoakLog } from "./happened";
import { Job, JobHead, JobPart, Offer, Override } from "./job";
import { ByItself, ClientPage, Loan, MachineToken, Reading, Secret } from "./machine";
import { Attempt, Credential, Person, Session, Shop, ShopEntry, Turn, WrongTry } from "./people";
import { Link, Plan, PlanRun } from "./plan";
import { ShelfRevision, ShelfType, Tip, TypePhoto } from "./shelf";

export * from "./bench";
export * from "./happened";
export * from "./job";
export * from "./machine";
export * from "./people";
export * from "./plan";
export * from "./shelf";

export const ENTITIES = [
  Person,
  Credential,
  Session,
  Turn,
  Attempt,
  WrongTry,
  ShopEntry,
  ShelfType,
  ShelfRevision,
  Job,
  JobHead,
  Shop,
  JobPart,
  Plan,
  PlanRun,
  Link,
  StepDone,
  StepSkipped,
  StepTime,
  Photo,
  Override,
  LogEntry,
  Observation,
  Fault,
  FaultEvent,
  PartReturn,
  Offer,
  Tip,
  TypePhoto,
  SoakLog,
  SetupRow,
  ProofRow,
  ClientPage,
  MachineToken,
  Reading,
  Loan,
  Secret,
  ByItself,
];

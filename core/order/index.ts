export { type Card, type CardKind, cardsOf, turnWords } from "./cards";
export { type Compared, compareSchools, comparing } from "./compare";
export { orderJson, undoJson } from "./json";
export {
  type Conflict,
  type Minutes,
  type Order,
  POSTURE_WORDS,
  POSTURES,
  type Posture,
  type Precedence,
  type PrecedenceKind,
  type Problem,
  type Rig,
  STEP_KINDS,
  type Step,
  type StepKind,
  type Work,
} from "./model";
export { notInYet } from "./not-in-yet";
export { type Now, nowOf } from "./now";
export { type OrderAsked, orderOf, orderOfProblem } from "./order";
export { MEASURE_WORDS, MEASURES_SET, minutesOf } from "./practice";
export { problemOf } from "./problem";
export { type Pulled, pull } from "./pull";
export { startedBy, startWords } from "./rig";
export { type Asked, type History, measureOfPlug, stepsByName, stepsFor } from "./steps";
export { doneAfter, type Out, type Price, pricesOf, type Undo, undoOf } from "./undo";
export { faultsOf } from "./valid";

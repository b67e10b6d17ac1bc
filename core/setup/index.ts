export { type Curve, type CurvePoint, curvesOf, type Measured } from "./curves";
export { numberIn, SETUP_GROUPS, type SetupAsked, type SetupDone, type SetupItem, type SetupState, setupOf, stateOf } from "./setup";
export { type Check, checkOfItem, checkOfLine, checkOfPromise, SOAK_CHECK, whatFits } from "./short";

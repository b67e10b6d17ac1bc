export { type Curve, type CurvePoint, curvesOf, type Measured, noiseAtShare } from "./curves";
export { SETUP_GROUPS, type SetupAsked, type SetupDone, type SetupItem, type SetupState, setupOf, stateOf } from "./setup";

export { Cable, Lead, Limit, Load, Need, PORT_ROLES, Port } from "./connectors";
export { contradictions, isUsable } from "./contradictions";
export { type ConnectorFamily, FAMILIES, FAMILY_IDS, family, isFamily, looksAlike, type Pin, shapeOf } from "./families";
export { FLAT_FIELDS, flatValues, withFlatValues } from "./flat";
export { fullName } from "./full-name";
export { LOOM_NAME, LOOM_TAG, LOOMS, Loom } from "./looms";
export { type Mating, mate, type Outcome, usable } from "./mating";
export { type Measurable, type Measured, measurable, withMeasured } from "./measure";
export { DISPLAY_SOCKETS, FORM_FACTORS, isLiquid, PART_KINDS, type PartKind, PartType, passesPower, SUPPLY_FORMS } from "./part-type";
export { fanOutline, isFaceOn, noRoomBehind, type Outline, overlap, SUPPLY_MM, supplyOutline } from "./places";
export { controlLost, countedByLeds, headerLimit, loadCurrentA, PRACTICE, startingCurrentA } from "./practice";
export { fromStored, STORED_VERSION, toStored } from "./stored";
export {
  assumed,
  type Beside,
  comesAlong,
  counted,
  type Figure,
  type FigureValue,
  figureOfPort,
  figuresOf,
  figureWords,
  groupsOf,
  isProvisional,
  type ManualLine,
  MOST_MANUAL_LINES,
  manualLines,
  provisional,
  rangeOf,
  TYPICAL_KINDS,
  type Values,
  withFigure,
} from "./typical";
export { Point } from "./values";

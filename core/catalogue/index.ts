export { contradictions, isUsable } from "./contradictions";
export { type ConnectorFamily, FAMILIES, FAMILY_IDS, family, isFamily, looksAlike, type Pin, shapeOf } from "./families";
export { FLAT_FIELDS, flatValues, withFlatValues } from "./flat";
export { LOOM_NAME, LOOM_TAG, LOOMS, Loom } from "./looms";
export { type Mating, mate, type Outcome, usable } from "./mating";
export { type Measurable, type Measured, measurable, withMeasured } from "./measure";
export { Cable, DISPLAY_SOCKETS, Lead, Limit, Load, Need, PART_KINDS, type PartKind, PartType, PORT_ROLES, Point, Port } from "./part-type";
export { controlLost, countedByLeds, headerLimit, loadCurrentA, PRACTICE, startingCurrentA } from "./practice";

export { FAMILIES, FAMILY_IDS, family, isFamily, type ConnectorFamily, type Pin } from "./families";
export { LOOMS, LOOM_NAME, LOOM_TAG, Loom } from "./looms";
export { mate, usable, type Mating, type Outcome } from "./mating";
export {
  PART_KINDS, PartType, Point, Need, Port, Lead, Cable, Load, Limit,
  type PartKind,
} from "./part-type";
export { controlLost, headerLimit, PRACTICE, startingCurrentA } from "./practice";

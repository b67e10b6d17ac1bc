export { partIdOf } from "./address";
export { assumedIn, assumedOn, type RestsOn, sayingAssumed } from "./assumed";
export { coolsCpu, cpuCoolers } from "./cools";
export { manhattanMm, type Rect, runCostCm, runLengthMm, SLACK_MM } from "./geometry";
export {
  asPlugged,
  buildGraph,
  byText,
  isConstant,
  isDone,
  lead,
  naturally,
  port,
  regionOf,
  type TypeLookup,
  typeLookup,
  withConnections,
  zoneOf,
} from "./graph";
export { boardPorts, kept, partsOfKind, wholeParts } from "./kept";
export { mateOf, outletOf, outletWanted, pinOutOf } from "./mates";
export { portNodes } from "./nodes";
export { type Hanging, hangings, isOnRadiator, isOnRadiatorOf } from "./on-radiators";
export { parseJson, parseWith, type ReadBuild, type ReadFaults, readBuild, readBuildText, readingBuild } from "./read";
export { Address, Build, CONNECTION_STATES, Connection, MOST_LEADS, Part, Policy, Settings, Wishes } from "./schema";
export type { Graph, LeadNode, PartNode, PortNode } from "./shape";

export { manhattanMm, type Rect, runCostCm, runLengthMm, SLACK_MM } from "./geometry";
export {
  asPlugged,
  buildGraph,
  byText,
  type Graph,
  isDone,
  type LeadNode,
  lead,
  naturally,
  type PartNode,
  type PortNode,
  partsOfKind,
  port,
  regionOf,
  type TypeLookup,
  typeLookup,
  withConnections,
  zoneOf,
} from "./graph";
export { parseJson, parseWith, type ReadBuild, type ReadFaults, readBuild, readBuildText } from "./read";
export { Address, Build, CONNECTION_STATES, Connection, MOST_LEADS, Part, Policy, Settings, Wishes } from "./schema";

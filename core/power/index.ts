export { type Budget, byDraw, type Moment, type PartDraw, powerBudget, RAIL_NAME, RAILS, type Rail, usualSupply } from "./budget";
export {
  cableLimitW,
  cpuPlugsNeeded,
  type Draw,
  efficiencyPercent,
  efficiencyPoints,
  peakW,
  plugLimitW,
  portDrawW,
  SENSE_W,
  wholeDraw,
} from "./draw";
export { outletLimitW, outletLoads, railLimitW } from "./outlets";
export { type PlugDrop, plugDrops, RAIL_TOLERANCE_V, wireAreaMm2, wireDiameterMm, wireDropV, wireOhmPerM } from "./wire";

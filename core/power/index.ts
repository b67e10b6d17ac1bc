export { type Budget, byDraw, type Moment, type PartDraw, powerBudget, RAIL_NAME, RAILS, type Rail, usualSupply } from "./budget";
export { cpuDrawW, cpuFilledW, cpuShareOnceFilled, cpuSockets, cpuSocketsNeeded, cpuSocketW } from "./cpu";
export {
  adapterIns,
  cableLimitW,
  type Draw,
  efficiencyPercent,
  efficiencyPoints,
  feedsPorts,
  hungW,
  plugLimitW,
  portDrawW,
  SENSE_W,
  throughCablesW,
  wantedDrawW,
  wholeDraw,
} from "./draw";
export { outletLimitW, outletLoads, railLimitW } from "./outlets";
export { peakW } from "./peak";
export { type PlugDrop, plugDrops, RAIL_TOLERANCE_V, wireAreaMm2, wireDiameterMm, wireDropV, wireOhmPerM } from "./wire";

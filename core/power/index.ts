export { type Budget, byDraw, type Moment, type PartDraw, powerBudget, RAIL_NAME, RAILS, type Rail, usualSupply } from "./budget";
export { cableLimitW, cpuPlugsNeeded, type Draw, efficiencyPercent, efficiencyPoints, peakW, plugLimitW, portDrawW, wholeDraw } from "./draw";

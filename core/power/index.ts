export { cableLimitW, cpuPlugsNeeded, type Draw, efficiencyPercent, peakW, plugLimitW, portDrawW, wholeDraw } from "./draw";

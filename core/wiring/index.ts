export { looseCables } from "./cables";
export { boardEnd, bootDrive, bootSlower, cageOrder, driveOrder, otherEnd, passedOver, runsHot, slotMBs, socketOrder, speaks } from "./data";
export { type FirmwareBehind, firmwareBehind } from "./firmware";
export { cardOrder, lanesAt, lanesLost, slotsInOrder, tooFewLanes } from "./lanes";
export { type Loosening, type Ways, wayWords } from "./loosening";
export { caseFan, coolsTheCpu, needOf, needOfSocket, wantsBothCpuPlugs } from "./needs";
export { type Run, runOf } from "./run";
export { amps, throughLowNoise } from "./words";

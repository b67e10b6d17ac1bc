export { drivesWithoutCage } from "./cage";
export { cardBoxes, SLOT_PITCH_MM, slotOf, slotsTaken } from "./cards";
export { type Clearance, said, TIGHT_MM, verdictOf } from "./clearance";
export { clearances, type FitGroup, riserNeedMm, tightOrWorse, worstClearance } from "./clearances";
export { type FanSeat, fanSeat, fanSeats } from "./fans";
export { FAN_MM, type RadiatorSeat, radiatorSeats } from "./radiators";
export { type Standoffs, standoffs, standoffsNow } from "./standoffs";
export { FITTINGS_MM, type TubeEnd, type Tubes, tubes } from "./tubes";
export { type TriedWay, triedWays, wayOutWords } from "./ways";

export { SLOT_PITCH_MM, slotOf } from "./cards";
export { type Clearance, clearances, type FitGroup, riserNeedMm, said, TIGHT_MM, tightOrWorse, verdictOf, worstClearance } from "./clearances";
export { type FanSeat, fanSeat, fanSeats } from "./fans";
export { type RadiatorSeat, radiatorSeats } from "./radiators";
export { type Standoffs, standoffs } from "./standoffs";
export { FITTINGS_MM, type TubeEnd, type Tubes, tubes } from "./tubes";
export { type TriedWay, triedWays, wayOutWords } from "./ways";

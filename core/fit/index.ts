export { type Clearance, clearances, type FitGroup, SLOT_PITCH_MM, said, TIGHT_MM, verdictOf } from "./clearances";
export { type FanSeat, fanSeat, fanSeats } from "./fans";
export { type RadiatorSeat, radiatorSeats } from "./radiators";
export { type Standoffs, standoffs } from "./standoffs";

// What each screen gets of a job's view, and no more.
export { type BenchSlice, benchSlice } from "./bench";
export { type FaultsSlice, faultsSlice, type Line } from "./faults";
export { type BootSlice, bootSlice } from "./first-boot";
export { type FrameSlice, frameSlice } from "./frame";
export { type HandoverSlice, handoverSlice } from "./handover";
export { type OrderSlice, orderSlice } from "./order";
export { type PartsSlice, partsSlice } from "./parts";
export { type SimulatedSlice, simulatedSlice } from "./simulated";
export { wiringSlice } from "./wiring";

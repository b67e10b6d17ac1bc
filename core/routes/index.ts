export { routesJson } from "./json";
export { leadsNear, type Near } from "./near";
export { type Cutout, drawnNetwork, type Network, networkOf } from "./network";
export { cableNeeds, leadNeeds, leadToPortCm, leadToPortMm, partToPortMm, plugToPlugMm, portToPortCm, portToPortMm } from "./reach";
export { type Behind, type CutoutFill, cutoutsFor, type Fold, type Route, type Routes, routesOf } from "./routes";
export { bundleMm, flatMm, leadMm } from "./thickness";
export { type Needs, type Stretch, straightMm, type Way } from "./way";
export { backCloses, behindWords, FULL_PERCENT, routeWords } from "./words";

export { boardHas, isSwitch, panelPinout, panelPlaces, rightPins } from "./contact";
export { commandedFrom, type Hung, hungByRoot, hungOn, signallers } from "./hung";
export { type Commander, closesRing, commander, passesOn, type Root, rootId, rootOf, upstream } from "./root";
export { displacedBy, type End, type Nowhere, switchedOff, TRAVELS, type Travel, type Way, wayOfLead, wayOfSocket } from "./way";

export { looseCables } from "./cables";
export { boardEnd, bootDrive, driveOrder, runsHot, slotMBs } from "./data";
export { amps, type Free, freeEnds, needOf, throughLowNoise, whyEmpty, whyFree, whyHere } from "./explain";
export { closesRing, type Hung, hungOn, signallers } from "./hung";
export { type Loosening, type Ways, wayWords } from "./loosening";
export {
  type Consumer,
  consumerOf,
  fitsRoot,
  type Group,
  isConstant,
  milli,
  type Nets,
  netsOf,
  opened,
  type Root,
  type Source,
  sourceOf,
} from "./net-parts";
export { boardHas, isSwitch, panelPinout, panelPlaces } from "./panel";
export { schoolDeparture, schoolWords } from "./school";

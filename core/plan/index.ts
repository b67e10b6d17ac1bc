export { type Cost, compareCost, LEVEL_WORDS, LEVELS, type Level } from "./levels";
export { amps, type Free, freeEnds, whyEmpty, whyFree, whyHere } from "./explain";
export { type Hung, hungOn } from "./hung";
export { boardEnd, type Verdict, verify } from "./verify";
export { isSwitch, panelPinout, panelPlaces } from "./panel";
export { type Plan, type PlanOptions, plan } from "./planner";
export { sourceOf } from "./net-parts";

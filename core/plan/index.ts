export { type Verdict, verify, wholeCost } from "./answer/verify";
export { comparePlans, type Move, type PlanDifference } from "./ask/compare";
export { costsOfPlaces, costWords, type Place, type PlaceCost } from "./ask/price-places";
export { waysIn } from "./ask/relax";
export { type Cost, compareCost, FREE_LEVELS, LEVEL_WORDS, LEVELS, type Level, type PartCost } from "./cost/cost";
export type { Gap, Piece } from "./model/model";
export { freshId } from "./model/offer";
export { type Plan, type PlanOptions, type PlanProgress, plan, proofWords } from "./planner";
export { heldOf, holdsStill, keyOf, SolvedPieces } from "./solve/cache";

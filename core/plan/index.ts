export { freshId } from "./candidates";
export { comparePlans, type Move, type PlanDifference } from "./compare";
export { type Cost, compareCost, LEVEL_WORDS, LEVELS, type Level, type PartCost } from "./levels";
export { heldOf, holdsStill, keyOf, PieceMemory } from "./memory";
export type { Gap, Piece } from "./model";
export { costsOfPlaces, costWords, type Place, type PlaceCost } from "./places";
export { type Plan, type PlanOptions, type PlanProgress, plan, proofWords } from "./planner";
export { type Verdict, verify, wholeCost } from "./verify";
export { waysIn } from "./ways";

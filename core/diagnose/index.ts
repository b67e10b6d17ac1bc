export { answerTo } from "./answer";
export { type Backward, backwardOf, goodOf, isOff, suspicion } from "./backward";
export { causesOf, nameOf } from "./causes";
export { bestFirst, minutesByShare } from "./choose";
export { type Access, deedsOf, type Shop, type Told } from "./deeds";
export { elsewhere } from "./elsewhere";
export { belongsTo } from "./incidents";
export {
  type Deed,
  type Evidence,
  entropyBits,
  type Hypothesis,
  mends,
  NOW_WORKS,
  posterior,
  resultOf,
  type Suspicion,
  shareOf,
  suspicionOf,
} from "./inference";
export { accessOf, diagnoseJson, happenedOf } from "./json";
export { deedById, isMended, type KnownDeed, priorsFrom } from "./known";
export { type Answer, type DeedShown, type Happened, leadsTo, type NextDeed, within } from "./leads-to";
export { type Misplaced, misplaced } from "./misplaced";
export { repairsOf } from "./repairs";

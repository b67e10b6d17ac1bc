export { bagOf, type InBag } from "./bag";
export { handoverJson } from "./file";
export { type Packing, packingOf } from "./packing";
export { type Missing, missingOf, PHOTO_PLACES, type PhotoPlace, type Recorded, type Way, type Where } from "./ready";
export { isBetter, isSilent, type PromiseNow, SOLD_STATES, type SoldRow, type SoldState, soldAgainstBuilt, type Word } from "./sold";

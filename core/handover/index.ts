export { bagOf, type InBag } from "./bag";
export { clientPage, clientPaper, type Facts } from "./client-paper";
export { handoverJson } from "./file";
export { codeOf, LABEL_KINDS, type LabelKind, type LabelWords, labelsOf } from "./labels";
export { type Packing, packingOf } from "./packing";
export { asItIs, type Paper, type Row, type Say, type Section, say, withRows } from "./paper";
export { type Missing, missingOf, PHOTO_PLACES, type PhotoPlace, type Recorded, type Way, type Where } from "./ready";
export { type Room, roomToGrow } from "./room";
export { isBetter, isSilent, type PromiseNow, SOLD_STATES, type SoldRow, type SoldState, soldAgainstBuilt, type Word, withoutLaidIn } from "./sold";

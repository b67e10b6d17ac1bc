export { Agreed, changedSince, type OfferAsked, type OfferLine, offerOf, sumsOf } from "./offer";
export { asCsv, type Bought, type Purchase, purchases, type Spent, spent } from "./purchases";

import { NOW_WORKS } from "./inference";
import type { DeedKind } from "./repairs";

export const NO_CHANGE = "no change";
export const [FOLLOWS, STAYS] = ["it follows the lead", "it stays at the position"];
const REPAIRED = ["that was it", NO_CHANGE, "changed", "impossible"];
const WENT_AROUND = [NOW_WORKS, NO_CHANGE, "impossible"];

const RESULTS: Partial<Record<DeedKind, readonly string[]>> = {
  look: [],
  measure: [],
  bridge: WENT_AROUND,
  "spare beside": WENT_AROUND,
  minimal: WENT_AROUND,
  "swap leads": [NOW_WORKS, FOLLOWS, STAYS, "impossible"],
};

/** What may come of a deed, in the words in which it is recorded; of a look none: it is a value of its line. */
export const resultsOf = (kind: DeedKind): readonly string[] => RESULTS[kind] ?? REPAIRED;

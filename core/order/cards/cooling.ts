import { type Cards, firstAndMore } from "./kind";

/** A cooler in the case: its backplate, its radiator, its head. */
export const COOLING: Cards<"cooler" | "hang" | "head"> = {
  cooler: { kind: "assembly", title: firstAndMore },
  hang: { kind: "assembly", title: firstAndMore },
  head: { kind: "assembly", title: firstAndMore },
};

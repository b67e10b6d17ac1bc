import { type Cards, firstAndMore } from "./kind";

/** A last look before something is covered. */
export const GATE: Cards<"gate"> = { gate: { kind: "gate", title: firstAndMore } };

import type { Step } from "../model";
import { type Cards, firstAndMore } from "./kind";

const title = (steps: readonly Step[]): string =>
  steps.every((s) => s.measure === "seat-memory")
    ? `Put ${steps.length} memory modules in`
    : `Put the board together on the table: ${steps.length} things`;

/** What is put together before it is in the case, and what is started there. */
export const TABLE: Cards<"table" | "radiator" | "trial"> = {
  table: { kind: "assembly", title },
  radiator: { kind: "assembly", title: (steps) => `Put the radiator together on the table: ${steps.length} things` },
  trial: { kind: "assembly", title: firstAndMore },
};

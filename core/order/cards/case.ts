import { type Cards, firstAndMore } from "./kind";

/** The case: opened, made ready, the board in it; closed. */
export const CASE: Cards<"open" | "case" | "board-in" | "look" | "close"> = {
  open: { kind: "assembly", title: (steps) => `Make the case ready: ${steps.length} things` },
  case: { kind: "assembly", title: (steps) => `Make the tray ready: ${steps.length} things` },
  "board-in": { kind: "assembly", title: firstAndMore },
  look: { kind: "assembly", title: firstAndMore },
  close: { kind: "assembly", title: () => "Close the case and pack the bag" },
};

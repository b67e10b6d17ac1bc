import type { School } from "../school";

/** Test outside the case (common practice). */
export const benchTest: School<"benchTest"> = {
  id: "benchTest",
  word: "Test outside the case",
  options: {
    first: { words: "bench test first", risk: "twenty minutes more, and plugs are plugged twice" },
    "straight-in": { words: "straight into the case", risk: "a dead board, CPU or module comes out again with everything on it" },
  },
  movesPlugs: false,
  roles: [],
};

import type { School } from "../school";

/** Modular cables (common practice). */
export const supplyCables: School<"supplyCables"> = {
  id: "supplyCables",
  word: "Modular cables",
  options: {
    derived: { words: "as the bay asks for it", risk: "none of its own" },
    before: { words: "into the supply before it goes in", risk: "they hang in the way while it slides in" },
    after: { words: "after the supply is in", risk: "in a tight bay no hand gets to the outlets" },
  },
  movesPlugs: false,
  roles: [],
};

import type { School } from "../school";

/** Cooler and backplate (common practice). */
export const coolerFirst: School<"coolerFirst"> = {
  id: "coolerFirst",
  word: "Cooler and backplate",
  options: {
    derived: { words: "as the case and the cooler ask for it", risk: "none of its own" },
    before: { words: "before the board goes in", risk: "a tall cooler is in the way of the board's upper plugs and screws" },
    after: { words: "after the board is in", risk: "the backplate must be reachable from behind" },
  },
  movesPlugs: false,
  roles: [],
};

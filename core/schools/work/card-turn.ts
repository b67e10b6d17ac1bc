import type { School } from "../school";

/** Graphics card (common practice). */
export const cardTurn: School<"cardTurn"> = {
  id: "cardTurn",
  word: "Graphics card",
  options: {
    last: { words: "last", risk: "its own plugs are reached past everything else" },
    early: { words: "as soon as the board is in", risk: "it hangs over the lower edge while that is plugged, and may be knocked" },
  },
  movesPlugs: false,
  roles: [],
};

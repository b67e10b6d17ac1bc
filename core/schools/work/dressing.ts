import type { School } from "../school";

/** Dressing (common practice). */
export const dressing: School<"dressing"> = {
  id: "dressing",
  word: "Dressing",
  options: {
    "after-leads": { words: "laid before the first start, tied for good after it", risk: "one turn of the case more" },
    "before-start": { words: "tied before the first start", risk: "a wrong plug costs its ties" },
    "after-start": { words: "only after the first start", risk: "it starts with loose leads: keep them off the fans" },
  },
  movesPlugs: false,
  roles: [],
};

/** Schools of the work: how one goes about it, not where plugs go. */
export type WorkSchool = "benchTest" | "rehearsal" | "coolerFirst" | "supplyCables" | "cardTurn" | "dressing" | "sataData" | "driver";

export interface SchoolOfWork {
  id: WorkSchool;
  word: string;
  /** Every answer, with what it risks. */
  options: Readonly<Record<string, { words: string; risk: string }>>;
}

/** The questions on which good technicians differ (common practice). Adding one is adding an entry here and its precedences. */
export const WORK_SCHOOLS: readonly SchoolOfWork[] = [
  {
    id: "benchTest",
    word: "Test outside the case",
    options: {
      first: { words: "bench test first", risk: "twenty minutes more, and plugs are plugged twice" },
      "straight-in": { words: "straight into the case", risk: "a dead board, CPU or module comes out again with everything on it" },
    },
  },
  {
    id: "rehearsal",
    word: "Rehearsal on the table",
    options: {
      no: { words: "no rehearsal", risk: "a dead fan or light is found when it is behind everything" },
      table: { words: "everything laid flat, wired and started, then built", risk: "every plug is plugged twice" },
    },
  },
  {
    id: "coolerFirst",
    word: "Cooler and backplate",
    options: {
      derived: { words: "as the case and the cooler ask for it", risk: "none of its own" },
      before: { words: "before the board goes in", risk: "a tall cooler is in the way of the board's upper plugs and screws" },
      after: { words: "after the board is in", risk: "the backplate must be reachable from behind" },
    },
  },
  {
    id: "supplyCables",
    word: "Modular cables",
    options: {
      derived: { words: "as the bay asks for it", risk: "none of its own" },
      before: { words: "into the supply before it goes in", risk: "they hang in the way while it slides in" },
      after: { words: "after the supply is in", risk: "in a tight bay no hand gets to the outlets" },
    },
  },
  {
    id: "cardTurn",
    word: "Graphics card",
    options: {
      last: { words: "last", risk: "its own plugs are reached past everything else" },
      early: { words: "as soon as the board is in", risk: "it hangs over the lower edge while that is plugged, and may be knocked" },
    },
  },
  {
    id: "dressing",
    word: "Dressing",
    options: {
      "after-leads": { words: "laid before the first start, tied for good after it", risk: "one turn of the case more" },
      "before-start": { words: "tied before the first start", risk: "a wrong plug costs its ties" },
      "after-start": { words: "only after the first start", risk: "it starts with loose leads: keep them off the fans" },
    },
  },
  {
    id: "sataData",
    word: "SATA data plugs",
    options: {
      last: { words: "late", risk: "a covered port is forgotten" },
      first: { words: "with the other plugs of their edge", risk: "they break easily when hands work beside them" },
    },
  },
  {
    id: "driver",
    word: "Driver",
    options: {
      hand: { words: "by hand", risk: "slower" },
      electric: { words: "electric for fans, radiator and supply", risk: "threads in thin steel strip; never on the board" },
    },
  },
];

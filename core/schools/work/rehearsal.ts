import type { School } from "../school";

/** Rehearsal on the table (common practice). */
export const rehearsal: School<"rehearsal"> = {
  id: "rehearsal",
  word: "Rehearsal on the table",
  options: {
    no: { words: "no rehearsal", risk: "a dead fan or light is found when it is behind everything" },
    table: { words: "everything laid flat, wired and started, then built", risk: "every plug is plugged twice" },
  },
  movesPlugs: false,
  roles: [],
};

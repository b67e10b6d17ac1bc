import type { School } from "../school";

/** SATA data plugs (common practice). */
export const sataData: School<"sataData"> = {
  id: "sataData",
  word: "SATA data plugs",
  options: {
    last: { words: "late", risk: "a covered port is forgotten" },
    first: { words: "with the other plugs of their edge", risk: "they break easily when hands work beside them" },
  },
  movesPlugs: false,
  roles: [],
};

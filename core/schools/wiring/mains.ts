import type { School } from "../school";

/** The mains of the shop's country: they decide what the supply's class gives, and move no plug. */
export const mains: School<"mainsV"> = {
  id: "mainsV",
  word: "Mains",
  options: { "230": { words: "230 V" }, "115": { words: "115 V" } },
  movesPlugs: false,
  roles: [],
};

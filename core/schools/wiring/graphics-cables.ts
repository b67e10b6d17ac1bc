import type { School } from "../school";

/** Two plugs of one graphics cable in one card: while the whole card stays within the cable, or never. */
export const graphicsCables: School<"graphicsCables"> = {
  id: "graphicsCables",
  word: "Graphics cables",
  options: { "by-draw": { words: "two sockets on a cable while its watts allow" }, "one-each": { words: "a cable for each socket" } },
  movesPlugs: true,
  roles: [],
};

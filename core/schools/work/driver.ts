import type { School } from "../school";

/** Driver (common practice). */
export const driver: School<"driver"> = {
  id: "driver",
  word: "Driver",
  options: {
    hand: { words: "by hand", risk: "slower" },
    electric: { words: "electric for fans, radiator and supply", risk: "threads in thin steel strip; never on the board" },
  },
  movesPlugs: false,
  roles: [],
};

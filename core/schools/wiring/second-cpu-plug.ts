import type { School } from "../school";

/** A second CPU plug: `wantsBothCpuPlugs` asks it, with overclocking. */
export const secondCpuPlug: School<"secondCpuPlug"> = {
  id: "secondCpuPlug",
  word: "Second CPU plug",
  options: { "by-draw": { words: "when the draw needs it" }, always: { words: "always" } },
  movesPlugs: true,
  roles: [],
};

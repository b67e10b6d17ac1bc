import { COOLING_HEADERS, isAt, type School } from "../school";

/** Case fans: by their place, each for itself, or on a powered hub. */
export const caseFans: School<"caseFans"> = {
  id: "caseFans",
  word: "Case fans",
  options: {
    "group-by-place": { words: "one header for a place, on splitters" },
    "own-header": { words: "a header for each while there are some" },
    hub: { words: "on a powered hub" },
  },
  movesPlugs: true,
  roles: ["case-fan"],
  departs: (graph, _, at) => {
    const answer = graph.build.policy.caseFans;
    // On a hub with the fans of a radiator they follow the CPU: the lesser evil than a radiator divided.
    if (at.hub !== undefined && answer !== "own-header" && isAt(at, ...COOLING_HEADERS)) return false;
    if (answer === "hub") return at.hub === undefined || isAt(at, "pump");
    if (answer === "own-header") return at.hub !== undefined || !isAt(at, "case-fan");
    // On a hub with a knob of its own, or that nothing commands, the board's headers are not asked.
    return at.hub !== undefined && at.header === undefined ? false : !isAt(at, "case-fan");
  },
  asksHub: ({ caseFans }) => caseFans === "hub",
  words: (policy) =>
    ({
      "group-by-place": "fans of one place share one curve",
      "own-header": "each case fan has its own header",
      hub: "case fans go on a powered hub",
    })[policy.caseFans],
};

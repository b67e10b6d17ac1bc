import { partsOfKind } from "../../assembly";
import { memorySpeed } from "../../memory";
import { finding, PARTS_AND_PLAN, type Rule } from "../rule";

export const memorySpeedRule: Rule = {
  id: "memory-speed",
  title: "Memory runs at what was sold",
  protects: "the speed the client paid for",
  on: PARTS_AND_PLAN,
  rests: { memory: ["mts"] },
  reads: ["memory", "board", "cpu"],
  run: ({ graph, on }) => {
    const sold = Math.min(...partsOfKind(graph, "memory").map((p) => p.type.ratings.profileMts ?? Number.POSITIVE_INFINITY));
    const real = memorySpeed(graph, true, on === "parts");
    if (!real || !Number.isFinite(sold) || real.mts >= sold) return [];
    return [
      finding(
        "memory-speed",
        "warn",
        `The modules are sold as ${sold} MT/s; they will run at ${real.mts} MT/s, limited by ${real.because}.`,
        partsOfKind(graph, "memory").map((p) => p.id),
      ),
    ];
  },
};

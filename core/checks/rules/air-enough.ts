import { airOf } from "../../air";
import { partsOfKind } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const airEnough: Rule = {
  id: "air-enough",
  title: "Enough air for the heat, and the pressure is known",
  protects: "a machine that is loud or hot",
  on: PARTS_ONLY,
  run: ({ graph }) => {
    if (!partsOfKind(graph, "case")[0]) return [];
    const a = airOf(graph);
    const moves = Math.max(a.inM3h, a.outM3h);
    const fans = a.fans.map((f) => f.part.id);
    const numbers = `${Math.round(a.inM3h)} m³/h in, ${Math.round(a.outM3h)} m³/h out at ${Math.round(a.share * 100)} % speed`;
    if (moves < a.neededM3h * 0.7)
      return [
        partsFinding("air-enough", {
          severity: "warn",
          message: `${numbers}; ${Math.round(a.neededM3h)} m³/h would carry ${Math.round(a.heatW)} W away at 10 K. Fans will run faster than planned.`,
          parts: fans,
          ifIgnored: "Louder than sold, or hotter.",
          ways: ["Another fan at a free mount, or larger ones."],
        }),
      ];
    if (a.sign === "under" && a.fans.some((f) => f.blows === "in"))
      return [
        partsFinding("air-enough", {
          severity: "note",
          message: `${numbers}. ${a.why}`,
          parts: fans,
          ways: ["One exhaust fewer, or one intake more."],
        }),
      ];
    return [];
  },
};

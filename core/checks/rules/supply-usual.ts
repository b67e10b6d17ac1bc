import { powerBudget } from "../../power";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const supplyUsual: Rule = {
  id: "supply-usual",
  title: "The supply is of a usual size, with room for what may come",
  protects: "an upgrade that was promised",
  on: PARTS_ONLY,
  rests: { supply: ["watts"], card: ["watts"] },
  run: ({ graph }) => {
    const b = powerBudget(graph);
    if (!b.supply) return [];
    const { upgrade, upgradeW } = graph.build.wishes;
    if (upgradeW > 0 && b.headroomAfterUpgradeW < 0)
      return [
        partsFinding("supply-usual", {
          severity: "warn",
          message: `${upgrade || "The upgrade"} would draw ${upgradeW} W more; ${b.headroomW < 0 ? `the machine draws ${Math.round(-b.headroomW)} W more than the supply's ${b.supplyW} W already` : `${Math.round(b.headroomW)} W are left of ${b.supplyW} W`}.`,
          parts: [b.supply.id],
          ifIgnored: "The upgrade needs another supply.",
          swap: b.supply.id,
        }),
      ];
    if (b.supplyW >= b.usual.fromW && b.supplyW <= b.usual.toW) return [];
    const words = b.supplyW < b.usual.fromW ? "less" : "more";
    return [
      partsFinding("supply-usual", {
        severity: "note",
        message: `${b.supplyW} W is ${words} than people fit for this (${b.usual.because}): ${b.usual.fromW} to ${b.usual.toW} W. Common practice, a sanity check only.`,
        parts: [b.supply.id],
      }),
    ];
  },
};

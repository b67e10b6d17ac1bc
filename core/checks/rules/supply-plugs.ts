import { powerBudget } from "../../power";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const supplyPlugs: Rule = {
  id: "supply-plugs",
  title: "The supply has plugs enough",
  protects: "a build that stops at the last cable",
  on: PARTS_ONLY,
  rests: { supply: ["cpu", "gfx", "g16", "sata"], card: ["plugs"], drive: ["form"] },
  run: ({ graph }) => {
    const b = powerBudget(graph);
    const supply = b.supply;
    if (!supply) return [];
    return b.connectors
      .filter((c) => c.needed > c.there)
      .map((c) =>
        partsFinding("supply-plugs", {
          severity: "stop",
          message: `${c.name}: ${c.needed} wanted, ${c.there} on the cables of ${supply.type.name}.`,
          parts: [supply.id],
          swap: supply.id,
        }),
      );
  },
};

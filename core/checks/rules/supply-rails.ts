import { powerBudget, RAIL_NAME } from "../../power";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const supplyRails: Rule = {
  id: "supply-rails",
  title: "Each rail carries what hangs on it",
  protects: "a supply that shuts down below its rating",
  on: PARTS_ONLY,
  run: ({ graph }) => {
    const b = powerBudget(graph);
    return b.rails.flatMap((r) =>
      r.limitA === undefined || r.peakA <= r.limitA || !b.supply
        ? []
        : [
            partsFinding("supply-rails", {
              severity: "stop",
              message: `${RAIL_NAME[r.rail]}: ${r.peakA.toFixed(1)} A at peak, ${b.supply.type.name} gives ${r.limitA} A.`,
              parts: [b.supply.id],
              ifIgnored: "It shuts down under load.",
              swap: b.supply.id,
            }),
          ],
    );
  },
};

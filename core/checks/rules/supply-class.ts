import { partsOfKind } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const supplyClass: Rule = {
  id: "supply-class",
  title: "The supply has an efficiency class",
  protects: "a supply that nobody honest recommends",
  on: PARTS_ONLY,
  rests: { supply: ["efficiency"] },
  reads: ["supply"],
  run: ({ graph }) =>
    partsOfKind(graph, "supply")
      .filter((s) => s.type.ratings.efficiency === undefined || s.type.ratings.efficiency === "none")
      .map((s) =>
        partsFinding("supply-class", {
          severity: "warn",
          message: `${s.type.name} has no efficiency class: nothing says what it draws from the mains, or how well it was tested.`,
          parts: [s.id],
          swap: s.id,
        }),
      ),
};

import { partsOfKind } from "../../assembly";
import { radiatorSeats } from "../../fit";
import { PARTS_AND_PLAN, partsFinding, type Rule } from "../rule";

/** Cooling below what was sold: a radiator with fewer fans than it has places for. */
export const coolingSold: Rule = {
  id: "cooling-sold",
  title: "The cooler cools as it was sold",
  protects: "the temperatures that the client pays for",
  on: PARTS_AND_PLAN,
  reads: ["case", "cooler", "fan"],
  run: ({ graph }) =>
    partsOfKind(graph, "cooler").flatMap((p) => {
      const block = p.type.body.radiator;
      if (!block) return [];
      const own = p.type.leads.filter((l) => l.role === "radiator-fan").length;
      const fans = own + (radiatorSeats(graph).find((s) => s.cooler === p)?.fans.length ?? 0);
      if (fans >= block.fans) return [];
      return [
        partsFinding("cooling-sold", {
          severity: "warn",
          message:
            fans === 0
              ? `No fan blows through the radiator of ${p.part.label ?? p.type.name}: it takes ${block.fans}. Hang fans where it hangs.`
              : `${fans} of ${block.fans} fans on the radiator of ${p.part.label ?? p.type.name}: it cools less than it could.`,
          parts: [p.id],
          ifIgnored: "The processor slows itself down under load.",
        }),
      ];
    }),
};

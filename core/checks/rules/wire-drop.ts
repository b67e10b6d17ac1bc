import { plugDrops, RAIL_TOLERANCE_V } from "../../power";
import { PARTS_AND_PLAN, partsFinding, type Rule } from "../rule";

/** Beyond this share of what the rail may lose in all, the wire alone takes too much (common practice: a half). */
const SHARE = 0.5;

export const wireDrop: Rule = {
  id: "wire-drop",
  title: "Enough volts arrive at the plugs",
  protects: "a card that resets under load",
  on: PARTS_AND_PLAN,
  reads: ["supply", "cpu", "card", "board"],
  run: ({ graph }) =>
    plugDrops(graph)
      .filter((d) => d.dropV > RAIL_TOLERANCE_V * SHARE)
      .map((d) =>
        partsFinding("wire-drop", {
          severity: d.dropV > RAIL_TOLERANCE_V ? "stop" : "warn",
          message: `${d.name}: ${d.currentA.toFixed(1)} A over ${d.lengthMm} mm loses ${d.dropV.toFixed(2)} V of the ${RAIL_TOLERANCE_V} V that the 12 V rail may vary.`,
          parts: [d.port, d.lead],
          ifIgnored: "Under load the card or the CPU sees too little and resets.",
        }),
      ),
};

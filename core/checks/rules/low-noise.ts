import { airOf, LOW_NOISE } from "../../air";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const lowNoise: Rule = {
  id: "low-noise",
  title: "No resistor before a fan that cools a radiator",
  protects: "a processor or card that slows itself down",
  on: PARTS_ONLY,
  reads: ["case", "fan", "cooler"],
  run: ({ graph }) =>
    airOf(graph)
      .fans.filter((f) => f.part.part.lowNoise && f.through.includes("radiator"))
      .map((f) =>
        partsFinding("low-noise", {
          severity: "warn",
          message: `${f.part.part.label ?? f.part.type.name} blows through a radiator and hangs on a low-noise lead: a resistor, about ${Math.round((1 - LOW_NOISE) * 100)} % less speed and air at any setting.`,
          parts: [f.part.id],
          ifIgnored: "The radiator cools less, and no curve can make up for it.",
          ways: ["Take the lead out and set a quieter curve instead."],
        }),
      ),
};

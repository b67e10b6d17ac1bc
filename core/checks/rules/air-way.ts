import { airOf } from "../../air";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const airWay: Rule = {
  id: "air-way",
  title: "Fans work with each other",
  protects: "air that goes in circles",
  on: PARTS_ONLY,
  reads: ["case", "fan", "cooler"],
  run: ({ graph }) =>
    airOf(graph)
      .fans.filter((f) => f.against)
      .map((f) =>
        partsFinding("air-way", {
          severity: "warn",
          message: `${f.part.part.label ?? f.part.type.name} blows ${f.blows} at the ${f.region}, and ${f.against}.`,
          parts: [f.part.id],
          ifIgnored: "The same air goes round, warm.",
          ways: ["Turn it round: go by the arrow on its frame."],
        }),
      ),
};

import { airOf, inAndOut } from "../../air";
import { changed, PARTS_ONLY, partsFinding, type Rule } from "../rule";

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
          tries: [
            {
              what: "Turned round, by the arrow on its frame",
              change: (build) => changed(build, f.part.id, (p) => ({ ...p, blows: f.blows === "in" ? "out" : "in" })),
              leadsTo: inAndOut,
            },
          ],
        }),
      ),
};

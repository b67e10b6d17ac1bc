import { airOf, LOW_NOISE } from "../../air";
import { changed, PARTS_ONLY, partsFinding, type Rule } from "../rule";

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
          tries: [
            {
              what: "Its low-noise lead out, and a quieter curve set instead",
              change: (build) => changed(build, f.part.id, ({ lowNoise: _, ...p }) => p),
              leadsTo: (after) => {
                const now = airOf(after).fans.find((x) => x.part.id === f.part.id);
                return now?.flowM3h === undefined || f.flowM3h === undefined
                  ? "how much air that is, its entry does not say"
                  : `${Math.round(now.flowM3h)} m³/h through it, ${Math.round(f.flowM3h)} now`;
              },
            },
          ],
        }),
      ),
};

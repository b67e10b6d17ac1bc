import { inAndOut } from "../../air";
import { type Build, type Graph, partsOfKind } from "../../assembly";
import { type TubeEnd, tubes } from "../../fit";
import { changed, PARTS_ONLY, partsFinding, type Rule, type Try } from "../rule";

const OTHER: Record<TubeEnd, TubeEnd> = { rear: "front", front: "rear", top: "bottom", bottom: "top" };

/** The radiator and its fans at the other places of the case. */
function places(graph: Graph, cooler: string): Try[] {
  const shell = partsOfKind(graph, "case")[0];
  const seat = tubes(graph).find((t) => t.seat.cooler.id === cooler)?.seat;
  return (shell?.type.body.radiatorPlaces ?? [])
    .filter((p) => p.id !== seat?.place?.id)
    .map((place) => {
      const fans = new Map((seat?.fans ?? []).map((f, i) => [f.id, place.mounts[i % place.mounts.length]]));
      return {
        what: `The radiator at the ${place.label}`,
        change: (build: Build): Build => ({
          ...build,
          parts: build.parts.map((p) => (p.id === cooler ? { ...p, mount: place.id } : fans.has(p.id) ? { ...p, mount: fans.get(p.id) } : p)),
        }),
      };
    });
}

export const tubeSide: Rule = {
  id: "tube-side",
  title: "Tubes come out where they are in nobody's way",
  protects: "a fan or card given up while fitting",
  on: PARTS_ONLY,
  reads: ["case", "cooler", "fan", "board", "card"],
  run: ({ graph }) =>
    tubes(graph).flatMap((t) => {
      const name = t.seat.cooler.part.label ?? t.seat.cooler.type.name;
      const out = [];
      const first = t.blocks[0];
      if (first)
        out.push(
          partsFinding("tube-side", {
            severity: "warn",
            message: `The tubes of ${name} come out at the ${t.end} end of the ${t.seat.place?.label} place, where ${t.blocks.map((b) => b.part.label ?? b.type.name).join(" and ")} ${t.blocks.length === 1 ? "stands" : "stand"}.`,
            parts: [t.seat.cooler.id, ...t.blocks.map((b) => b.id)],
            ifIgnored: "Found while fitting: the radiator is turned or hung again, or the fan is given up.",
            tries: [
              {
                what: "The radiator turned round",
                change: (build) => changed(build, t.seat.cooler.id, (p) => ({ ...p, tubes: OTHER[t.end] })),
                leadsTo: (after) => {
                  const now = tubes(after).find((x) => x.seat.cooler.id === t.seat.cooler.id);
                  return now ? `${Math.round(now.reachMm)} of ${now.seat.radiator.tubeMm} mm of tube` : "";
                },
              },
              ...(first.type.kind === "fan" && t.blocks.length === 1
                ? [
                    {
                      what: `${first.part.label ?? first.type.name} given up`,
                      change: (build: Build) => changed(build, first.id, () => undefined),
                      leadsTo: inAndOut,
                    },
                  ]
                : []),
            ],
          }),
        );
      if (t.pumpHighest)
        out.push(
          partsFinding("tube-side", {
            severity: "warn",
            message: `${name} hangs below its pump: air gathers in the pump.`,
            parts: [t.seat.cooler.id],
            ifIgnored: "Gurgling, and a pump that wears out early (common practice).",
            tries: places(graph, t.seat.cooler.id),
          }),
        );
      return out;
    }),
};

import { airOf, inAndOut, unknownWords, usualWay } from "../../air";
import { type Build, type Graph, isOnRadiator, partsOfKind } from "../../assembly";
import { changed, freeMounts, PARTS_ONLY, partsFinding, type Rule, type Try } from "../rule";

/** Mounts that are tried for one more fan. */
const MOST_MOUNTS = 3;

/** One more fan like those that are there, at the free mounts of its size. */
function oneMore(graph: Graph, way?: "in" | "out"): Try[] {
  const fans = partsOfKind(graph, "fan").filter((f) => !isOnRadiator(f.part));
  const like = fans[0];
  if (!like) return [];
  const free = freeMounts(graph, like, (m) => way === undefined || usualWay(m.region) === way);
  return free.slice(0, MOST_MOUNTS).map((m) => ({
    what: `One more ${like.type.name} at ${m.label}`,
    change: (build) => ({ ...build, parts: [...build.parts, { id: `fan-at-${m.id}`, type: like.type.id, mount: m.id, from: "client" as const }] }),
    leadsTo: inAndOut,
  }));
}

export const airEnough: Rule = {
  id: "air-enough",
  title: "Enough air for the heat, and the pressure is known",
  protects: "a machine that is loud or hot",
  on: PARTS_ONLY,
  run: ({ graph }) => {
    if (!partsOfKind(graph, "case")[0]) return [];
    const a = airOf(graph);
    const moves = Math.max(a.inM3h, a.outM3h);
    const fans = a.fans.map((f) => f.part.id);
    const numbers = `${inAndOut(graph)} at ${Math.round(a.share * 100)} % speed`;
    if (moves < a.neededM3h * 0.7 && a.unknown.length > 0)
      return [
        partsFinding("air-enough", {
          severity: "note",
          message: `${numbers}; ${Math.round(a.neededM3h)} m³/h would carry ${Math.round(a.heatW)} W away at 10 K.${unknownWords(a.unknown)}`,
          parts: a.unknown.map((p) => p.id),
        }),
      ];
    if (moves < a.neededM3h * 0.7)
      return [
        partsFinding("air-enough", {
          severity: "warn",
          message: `${numbers}; ${Math.round(a.neededM3h)} m³/h would carry ${Math.round(a.heatW)} W away at 10 K. Fans will run faster than planned.`,
          parts: fans,
          ifIgnored: "Louder than sold, or hotter.",
          tries: oneMore(graph),
        }),
      ];
    if (a.sign === "under" && a.fans.some((f) => f.blows === "in"))
      return [
        partsFinding("air-enough", {
          severity: "note",
          message: `${numbers}. ${a.why}`,
          parts: fans,
          tries: [
            // The last one that blows out stays.
            ...a.fans
              .filter((f) => f.blows === "out" && !f.through.includes("radiator") && a.fans.filter((o) => o.blows === "out").length > 1)
              .map((f) => ({
                what: `Without ${f.part.part.label ?? f.part.type.name}`,
                change: (build: Build) => changed(build, f.part.id, () => undefined),
                leadsTo: inAndOut,
              })),
            ...oneMore(graph, "in"),
          ],
        }),
      ];
    return [];
  },
};

import { type Graph, type PartNode, partsOfKind } from "../../assembly";
import { changed, freeMounts, PARTS_ONLY, partsFinding, type Rule, type Try } from "../rule";

/** Free places of the case that take the part, each tried. */
function others(graph: Graph, part: PartNode): Try[] {
  return [
    ...freeMounts(graph, part)
      .slice(0, 4)
      .map((m) => ({
        what: `At the ${m.label}`,
        change: (build: Graph["build"]) => changed(build, part.id, (p) => ({ ...p, mount: m.id })),
        leadsTo: () => "a place that this case has",
      })),
    {
      what: "Nowhere in particular",
      change: (build: Graph["build"]) => changed(build, part.id, ({ mount: _, ...p }) => p),
      leadsTo: () => "its place is chosen, or asked for, again",
    },
  ];
}

/** A part that hangs where another case had a place: what a job writes as a file is read back, and said here. */
export const placeMissing: Rule = {
  id: "place-missing",
  title: "Every place is one that the case has",
  protects: "a part that is planned for nowhere",
  on: PARTS_ONLY,
  rests: { case: ["front", "top", "disks"] },
  run: ({ graph }) => {
    const shell = partsOfKind(graph, "case")[0];
    if (!shell) return [];
    const has = new Set([...shell.type.body.mounts, ...shell.type.body.radiatorPlaces].map((m) => m.id));
    if (has.size === 0) return [];
    return [...graph.parts.values()].flatMap((p) =>
      p.cable || p.part.mount === undefined || has.has(p.part.mount)
        ? []
        : [
            partsFinding("place-missing", {
              severity: "stop",
              message: `${p.part.label ?? p.type.name} hangs at “${p.part.mount}”, a place that ${shell.type.name} has not.`,
              parts: [p.id, shell.id],
              ifIgnored: "Nobody knows where it goes, and nothing that depends on it is judged.",
              tries: others(graph, p),
            }),
          ],
    );
  },
};

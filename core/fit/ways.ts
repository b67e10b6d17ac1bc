import { type Build, buildGraph, type Graph, type Part } from "../assembly";
import { type Clearance, clearances } from "./clearances";
import { fanSeats } from "./fans";
import { radiatorSeats } from "./radiators";

/** A change of the build that mends a clearance, after it was tried on a copy. */
export interface TriedWay {
  what: string;
  build: Build;
  /** What the clearance is then; undefined: it is not asked any more. */
  left?: number;
  unit: Clearance["unit"];
  /** Things that do not fit: before, and after. */
  before: number;
  after: number;
}

interface Attempt {
  what: string;
  build: Build;
}

const changed = (build: Build, change: (p: Part) => Part | undefined): Build => ({ ...build, parts: build.parts.flatMap((p) => change(p) ?? []) });

/** Changes of the build that hands think of first when something does not fit: none of them needs another part. */
function attempts(graph: Graph): Attempt[] {
  const { build } = graph;
  const out: Attempt[] = [];
  const movable = new Set(fanSeats(graph).flatMap((f) => (f.mayMoveOut && f.mount.region === "front" ? [f.part.id] : [])));
  if (movable.size > 0)
    out.push({ what: "Front fans outside the frame", build: changed(build, (p) => (movable.has(p.id) ? { ...p, frame: "outside" } : p)) });
  for (const s of radiatorSeats(graph)) {
    const second = new Set(s.fans.slice(s.radiator.fans).map((f) => f.id));
    if (s.pushPull)
      out.push({ what: "The radiator's second row of fans left out", build: changed(build, (p) => (second.has(p.id) ? undefined : p)) });
    for (const place of graph.parts.get(build.parts.find((p) => graph.parts.get(p.id)?.type.kind === "case")?.id ?? "")?.type.body.radiatorPlaces ??
      []) {
      if (place.id === s.place?.id) continue;
      const fans = new Map(s.fans.map((f, i) => [f.id, place.mounts[i % place.mounts.length]]));
      out.push({
        what: `The radiator at ${place.label}`,
        build: changed(build, (p) => (p.id === s.cooler.id ? { ...p, mount: place.id } : fans.has(p.id) ? { ...p, mount: fans.get(p.id) } : p)),
      });
    }
  }
  if (build.parts.some((p) => p.vertical))
    out.push({ what: "The card flat in its slot", build: changed(build, (p) => (p.vertical ? { ...p, vertical: false } : p)) });
  return out;
}

/** Ways out of a clearance that does not hold: each was applied to a copy and judged, and is offered only where that is better. */
export function triedWays(graph: Graph, c: Clearance): TriedWay[] {
  if (c.verdict === "fits") return [];
  const types = new Map([...graph.parts.values()].map((p) => [p.type.id, p.type]));
  const nots = (g: Graph) => clearances(g).filter((x) => x.verdict === "not").length;
  const before = nots(graph);
  return attempts(graph).flatMap(({ what, build }): TriedWay[] => {
    const other = buildGraph(build, (id) => types.get(id));
    const same = clearances(other).find((x) => x.id === c.id);
    const after = nots(other);
    const mends = same === undefined || same.verdict === "fits" || (c.verdict === "not" && same.verdict === "tight");
    if (!mends || after > before || (c.verdict === "not" && after >= before)) return [];
    return [{ what, build, ...(same ? { left: same.left } : {}), unit: c.unit, before, after }];
  });
}

/** A way out in words, with the numbers that it leads to. */
export const wayOutWords = (w: TriedWay): string =>
  `${w.what}: ${w.left === undefined ? "then it is not asked" : `${w.left} ${w.unit} left`}${w.before > 1 ? `; ${w.after} of ${w.before} things that do not fit remain` : ""}.`;

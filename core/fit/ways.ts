import { type Build, buildGraph, type Graph, type Part, partsOfKind, type TypeLookup } from "../assembly";
import { drivesWithoutCage } from "./cage";
import type { Clearance } from "./clearance";
import { clearances } from "./clearances";
import { fanSeats } from "./fans";
import { radiatorSeats } from "./radiators";
import { sides } from "./tubes";

/** A change of the build that mends a clearance, after it was tried on a copy. */
export interface TriedWay {
  what: string;
  build: Build;
  /** What the clearance is then; undefined: there is nothing any more that has to go in there. */
  left?: number;
  unit: Clearance["unit"];
  /** Things that do not fit: before, and after. */
  before: number;
  after: number;
}

const typesOf = (graph: Graph): TypeLookup => {
  const types = new Map([...graph.parts.values()].map((p) => [p.type.id, p.type]));
  return (id) => types.get(id);
};

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
    for (const place of partsOfKind(graph, "case")[0]?.type.body.radiatorPlaces ?? []) {
      if (place.id === s.place?.id) continue;
      const fans = new Map(s.fans.map((f, i) => [f.id, place.mounts[i % place.mounts.length]]));
      out.push({
        what: `The radiator at ${place.label}`,
        build: changed(build, (p) => (p.id === s.cooler.id ? { ...p, mount: place.id } : fans.has(p.id) ? { ...p, mount: fans.get(p.id) } : p)),
      });
    }
  }
  for (const s of radiatorSeats(graph)) {
    const other = sides(graph, s)[1];
    if (other)
      out.push({
        what: `The radiator turned round, its tubes at the ${other.end} end`,
        build: changed(build, (p) => (p.id === s.cooler.id ? { ...p, tubes: other.end } : p)),
      });
  }
  const outer = new Set(fanSeats(graph).flatMap((f) => (!f.inside && f.mount.frame === "either" && f.mount.region === "front" ? [f.part.id] : [])));
  if (outer.size > 0)
    out.push({ what: "Front fans inside the frame", build: changed(build, (p) => (outer.has(p.id) ? { ...p, frame: "inside" } : p)) });
  out.push(...cageElsewhere(graph), ...fanClippedHigher(graph));
  if (build.parts.some((p) => p.vertical))
    out.push({ what: "The card flat in its slot", build: changed(build, (p) => (p.vertical ? { ...p, vertical: false } : p)) });
  return out;
}

/** The drive cage at its other places, or out. Drives that lose their mounts by it go to free ones, where there are enough. */
function cageElsewhere(graph: Graph): Attempt[] {
  const shell = partsOfKind(graph, "case")[0];
  if (!shell) return [];
  const { build } = graph;
  const { cagePlaces, maxSupplyMm, maxSupplyWithCageMm } = shell.type.body;
  const now = shell.part.cage ?? cagePlaces[0]?.id;
  const places = cagePlaces.filter((p) => p.id !== now).map((p) => ({ cage: p.id, what: `The drive cage at the ${p.label}` }));
  const comesOut = now !== "out" && (maxSupplyMm ?? 0) > (maxSupplyWithCageMm ?? maxSupplyMm ?? 0);
  return [...places, ...(comesOut ? [{ cage: "out", what: "The drive cage out" }] : [])].flatMap(({ cage, what }): Attempt[] => {
    const moved = changed(build, (p) => (p.id === shell.id ? { ...p, cage } : p));
    const without = drivesWithoutCage(buildGraph(moved, typesOf(graph)));
    if (without.length === 0) return [{ what, build: moved }];
    const free = freeDriveMounts(graph, cage);
    if (free.length < without.length) return [];
    const to = new Map(without.map((d, i) => [d.id, free[i]]));
    const names = free.slice(0, without.length).map((m) => m.label);
    return [
      {
        what: `${what}, its ${without.length === 1 ? "drive" : "drives"} at ${names.join(" and ")}`,
        build: changed(moved, (p) => (to.has(p.id) ? { ...p, mount: to.get(p.id)?.id } : p)),
      },
    ];
  });
}

/** Drive mounts that nothing is on and that are there wherever the cage is. */
function freeDriveMounts(graph: Graph, cage: string) {
  const body = partsOfKind(graph, "case")[0]?.type.body;
  const caged = new Set((body?.cagePlaces ?? []).filter((p) => p.id !== cage).flatMap((p) => p.mounts));
  const inOldCage = (m: { region: string }) => (body?.cagePlaces.length ?? 0) === 0 && m.region === "bottom";
  const taken = new Set(graph.build.parts.map((p) => p.mount));
  // Those made for drives before those that take a fan as well.
  return (body?.mounts ?? [])
    .filter((m) => m.takes.includes("drive") && !taken.has(m.id) && !caged.has(m.id) && !inOldCage(m))
    .sort((a, b) => a.takes.length - b.takes.length);
}

/** Memory that is too tall by so many millimetres goes under a fan that is clipped as much higher. */
function fanClippedHigher(graph: Graph): Attempt[] {
  return clearances(graph, ["memory"])
    .filter((c) => c.left < 0 && c.id.startsWith("memory-under-cooler:"))
    .flatMap((c) => {
      const cooler = graph.parts.get(c.id.slice("memory-under-cooler:".length));
      if (!cooler) return [];
      const mm = Math.ceil((cooler.part.fanUpMm ?? 0) - c.left);
      return [
        {
          what: `The cooler's front fan clipped ${mm} mm higher`,
          build: changed(graph.build, (p) => (p.id === cooler.id ? { ...p, fanUpMm: mm } : p)),
        },
      ];
    });
}

/** Ways out of a clearance that does not hold: each was applied to a copy and judged, and is offered only where that is better. */
export function triedWays(graph: Graph, c: Clearance): TriedWay[] {
  if (c.verdict === "fits") return [];
  const nots = (g: Graph) => clearances(g).filter((x) => x.verdict === "not").length;
  const before = nots(graph);
  return attempts(graph).flatMap(({ what, build }): TriedWay[] => {
    const other = buildGraph(build, typesOf(graph));
    const same = clearances(other).find((x) => x.id === c.id);
    const after = nots(other);
    const mends = same === undefined || same.verdict === "fits" || (c.verdict === "not" && same.verdict === "tight");
    if (!mends || after > before || (c.verdict === "not" && after >= before)) return [];
    return [{ what, build, ...(same ? { left: same.left } : {}), unit: c.unit, before, after }];
  });
}

/** A way out in words, with the numbers that it leads to. */
export const wayOutWords = (w: TriedWay): string =>
  `${w.what}: ${w.left === undefined ? "then nothing has to go in there" : `${w.left} ${w.unit} left`}${w.before < 2 ? "" : w.after === 0 ? "; then everything fits" : `; ${w.after} of ${w.before} things do not fit then`}.`;

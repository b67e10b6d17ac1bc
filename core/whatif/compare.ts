import { airOf } from "../air";
import { type Build, buildGraph, type Graph, type TypeLookup } from "../assembly";
import type { PartType } from "../catalogue";
import { checkParts, type Finding } from "../checks";
import { worstClearance } from "../fit";
import { orderList } from "../intake";
import { powerBudget } from "../power";

/** What a parts list comes to, before anything is opened. */
export interface Judged {
  findings: Finding[];
  tightest?: { what: string; left: number; unit: string };
  peakW: number;
  loadShare: number;
  headroomW: number;
  noiseDb: number;
  flowM3h: number;
  missing: string[];
  graph: Graph;
}

/** The whole parts list judged. On a graph made from another one, only what a changed part touches is worked out again. */
export function judge(graph: Graph): Judged {
  const budget = powerBudget(graph);
  const peak = budget.moments.find((m) => m.name === "peak");
  const air = airOf(graph);
  const worst = worstClearance(graph);
  return {
    findings: checkParts(graph),
    graph,
    ...(worst ? { tightest: { what: worst.what, left: worst.left, unit: worst.unit } } : {}),
    peakW: peak?.dcW ?? 0,
    loadShare: peak?.share ?? 0,
    headroomW: budget.headroomW,
    noiseDb: air.noiseDb,
    flowM3h: Math.max(air.inM3h, air.outM3h),
    missing: orderList(graph).map((i) => `${i.count} × ${i.what}`),
  };
}

export interface Difference {
  what: string;
  before: string;
  after: string;
  way: "better" | "worse" | "other";
}

export interface Comparison {
  gone: Finding[];
  come: Finding[];
  rows: Difference[];
}

/** What becomes better and what worse, from one parts list to another. Only what differs. */
export function compare(before: Judged, after: Judged): Comparison {
  const key = (f: Finding) => `${f.rule}:${f.message}`;
  const had = new Set(before.findings.map(key));
  const has = new Set(after.findings.map(key));
  const rows: Difference[] = [];
  const number = (what: string, a: number, b: number, unit: string, less: boolean, digits = 0) => {
    if (a.toFixed(digits) === b.toFixed(digits)) return;
    rows.push({ what, before: `${a.toFixed(digits)} ${unit}`, after: `${b.toFixed(digits)} ${unit}`, way: b < a === less ? "better" : "worse" });
  };
  number("Draw at peak", before.peakW, after.peakW, "W", true);
  number("Load of the supply", before.loadShare * 100, after.loadShare * 100, "%", true);
  number("Headroom", before.headroomW, after.headroomW, "W", false);
  number("Noise at planned speed", before.noiseDb, after.noiseDb, "dB(A)", true, 1);
  number("Air", before.flowM3h, after.flowM3h, "m³/h", false);
  const tight = (j: Judged) => (j.tightest ? `${j.tightest.what}: ${j.tightest.left} ${j.tightest.unit}` : "nothing known");
  if (tight(before) !== tight(after))
    rows.push({
      what: "Tightest clearance",
      before: tight(before),
      after: tight(after),
      way: (after.tightest?.left ?? 0) >= (before.tightest?.left ?? 0) ? "better" : "worse",
    });
  const lost = before.missing.filter((m) => !after.missing.includes(m));
  const more = after.missing.filter((m) => !before.missing.includes(m));
  if (lost.length + more.length > 0)
    rows.push({
      what: "Order list",
      before: lost.join(", ") || "nothing more",
      after: more.join(", ") || "nothing more",
      way: more.length < lost.length ? "better" : more.length > lost.length ? "worse" : "other",
    });
  return { gone: before.findings.filter((f) => !has.has(key(f))), come: after.findings.filter((f) => !had.has(key(f))), rows };
}

/** A part and the type that stands in its place. */
export interface Change {
  part: string;
  type: PartType;
}

/** The same build with other types in place of some parts. Connections are left out: they are planned anew. */
export function withTypes(build: Build, types: TypeLookup, changes: readonly Change[]): { build: Build; types: TypeLookup } {
  const to = new Map(changes.map((c) => [c.part, c.type.id]));
  const own = new Map(changes.map((c) => [c.type.id, c.type]));
  return {
    build: { ...build, parts: build.parts.map((p) => (to.has(p.id) ? { ...p, type: to.get(p.id) as string } : p)), connections: [] },
    types: (id) => own.get(id) ?? types(id),
  };
}

export const withType = (build: Build, types: TypeLookup, part: string, type: PartType) => withTypes(build, types, [{ part, type }]);

export interface Alternative {
  type: PartType;
  comparison: Comparison;
  /** Fewer stops than now, and none that is new. */
  helps: boolean;
  stops: number;
}

/**
 * Every type of the same kind in place of one part: those that help first, then by the fewest findings and the nearest
 * draw. `others` are changed in the copy already; the comparison is with the build as it is.
 */
export function alternatives(
  build: Build,
  types: TypeLookup,
  part: string,
  shelf: readonly PartType[],
  others: readonly Change[] = [],
): Alternative[] {
  const was = types(build.parts.find((p) => p.id === part)?.type ?? "");
  if (!was) return [];
  const bare = { ...build, connections: [] };
  const now = judge(buildGraph(bare, types));
  const stops = (j: Judged) => j.findings.filter((f) => f.severity === "stop").length;
  return shelf
    .filter((t) => t.kind === was.kind && (t.id !== was.id || others.length > 0))
    .map((type): Alternative => {
      const other = withTypes(bare, types, [...others.filter((o) => o.part !== part), { part, type }]);
      const then = judge(buildGraph(other.build, other.types, now.graph));
      const comparison = compare(now, then);
      const newStop = comparison.come.some((f) => f.severity === "stop");
      return { type, comparison, stops: stops(then), helps: !newStop && weight(comparison.gone) > weight(comparison.come) };
    })
    .sort(
      (a, b) =>
        Number(b.helps) - Number(a.helps) ||
        a.stops - b.stops ||
        a.comparison.come.length - b.comparison.come.length ||
        distance(a.type, was) - distance(b.type, was) ||
        (a.type.id < b.type.id ? -1 : 1),
    );
}

/** A stop outweighs any number of warnings that a build can have. */
const weight = (list: readonly Finding[]) => list.reduce((s, f) => s + { stop: 1000, warn: 10, note: 1 }[f.severity], 0);
const distance = (a: PartType, b: PartType) => Math.abs((a.ratings.peakW ?? a.ratings.powerW ?? 0) - (b.ratings.peakW ?? b.ratings.powerW ?? 0));

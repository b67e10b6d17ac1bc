import { airOf } from "../air";
import { type Build, buildGraph, type Graph, partsOfKind, type TypeLookup } from "../assembly";
import { family, mate, type PartType, usable } from "../catalogue";
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
  /** Undefined where not all of it is known. */
  noiseDb?: number;
  flowM3h?: number;
  memoryGb: number;
  storageGb: number;
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
    ...(air.silent.length > 0 ? {} : { noiseDb: air.noiseDb }),
    ...(air.unknown.length > 0 ? {} : { flowM3h: Math.max(air.inM3h, air.outM3h) }),
    memoryGb: gigabytes(graph, "memory"),
    storageGb: gigabytes(graph, "drive"),
    missing: orderList(graph).map((i) => `${i.count} × ${i.what}`),
  };
}

const gigabytes = (graph: Graph, kind: "memory" | "drive") => partsOfKind(graph, kind).reduce((s, p) => s + (p.type.ratings.sizeGb ?? 0), 0);

export interface Difference {
  what: string;
  before: string;
  after: string;
  way: "better" | "worse" | "other";
}

export interface Comparison {
  gone: Finding[];
  come: Finding[];
  /** Those that stay and weigh otherwise: as they were, as they are then. */
  turned: [Finding, Finding][];
  rows: Difference[];
}

/** What becomes better and what worse, from one parts list to another. Only what differs. */
export function compare(before: Judged, after: Judged): Comparison {
  const rows: Difference[] = [];
  const number = (what: string, a: number | undefined, b: number | undefined, unit: string, less: boolean, digits = 0) => {
    // What is not known of one of them is neither better nor worse.
    if (a === undefined || b === undefined || a.toFixed(digits) === b.toFixed(digits)) return;
    rows.push({ what, before: `${a.toFixed(digits)} ${unit}`, after: `${b.toFixed(digits)} ${unit}`, way: b < a === less ? "better" : "worse" });
  };
  number("Memory", before.memoryGb, after.memoryGb, "GB", false);
  number("Storage", before.storageGb, after.storageGb, "GB", false);
  number("Draw at peak", before.peakW, after.peakW, "W", true);
  number("Load of the supply", before.loadShare * 100, after.loadShare * 100, "%", true);
  number("Headroom", before.headroomW, after.headroomW, "W", false);
  number("Noise at planned speed", before.noiseDb, after.noiseDb, "dB(A)", true, 1);
  number("Air", before.flowM3h, after.flowM3h, "m³/h", false);
  const tight = (j: Judged) => (j.tightest ? `${j.tightest.what}: ${j.tightest.left} ${j.tightest.unit}` : "nothing known");
  const [was, is] = [before.tightest, after.tightest];
  if (tight(before) !== tight(after))
    rows.push({
      what: "Tightest clearance",
      before: tight(before),
      after: tight(after),
      // Millimetres and slots are no more or less than each other.
      way: was && is && was.unit === is.unit && was.left !== is.left ? (is.left > was.left ? "better" : "worse") : "other",
    });
  const { pairs, gone, come } = paired(before.findings, after.findings);
  const turned = pairs.filter(([f, now]) => now.severity !== f.severity);
  for (const [f, now] of turned)
    rows.push({ what: f.message, before: f.severity, after: now.severity, way: RANK[now.severity] < RANK[f.severity] ? "better" : "worse" });
  const lost = before.missing.filter((m) => !after.missing.includes(m));
  const more = after.missing.filter((m) => !before.missing.includes(m));
  if (lost.length + more.length > 0)
    rows.push({
      what: "Order list",
      before: lost.join(", ") || "nothing more",
      after: more.join(", ") || "nothing more",
      way: more.length < lost.length ? "better" : more.length > lost.length ? "worse" : "other",
    });
  return { gone, come, turned, rows };
}

const RANK = { note: 0, warn: 1, stop: 2 } as const;

/** Findings of the same cause, whatever their numbers are now: by id, then of the same rule about the same part first. Each has one other at most. */
function paired(before: readonly Finding[], after: readonly Finding[]): { pairs: [Finding, Finding][]; gone: Finding[]; come: Finding[] } {
  const pairs: [Finding, Finding][] = [];
  let [gone, come] = [[...before], [...after]];
  for (const same of [
    (a: Finding, b: Finding) => a.id === b.id,
    (a: Finding, b: Finding) => a.rule === b.rule && a.ends[0] !== undefined && a.ends[0] === b.ends[0],
  ])
    gone = gone.filter((f) => {
      const now = come.find((x) => same(f, x));
      if (!now) return true;
      come = come.filter((x) => x !== now);
      pairs.push([f, now]);
      return false;
    });
  return { pairs, gone, come };
}

/** A part and the type that stands in its place; or one more part of that type. */
export interface Change {
  part: string;
  type: PartType;
  adds?: boolean | undefined;
}

/** The same build with other types in place of some parts, and some more. Connections are left out: they are planned anew. */
export function withTypes(build: Build, types: TypeLookup, changes: readonly Change[]): { build: Build; types: TypeLookup } {
  const to = new Map(changes.filter((c) => !c.adds).map((c) => [c.part, c.type.id]));
  const own = new Map(changes.map((c) => [c.type.id, c.type]));
  const more = changes.filter((c) => c.adds).map((c) => ({ id: c.part, type: c.type.id, from: "client" as const }));
  return {
    build: { ...build, parts: [...build.parts.map((p) => (to.has(p.id) ? { ...p, type: to.get(p.id) as string } : p)), ...more], connections: [] },
    types: (id) => own.get(id) ?? types(id),
  };
}

export const withType = (build: Build, types: TypeLookup, part: string, type: PartType) => withTypes(build, types, [{ part, type }]);

export interface Alternative {
  type: PartType;
  /** All that is changed for it: matched parts together; or one part more, beside what is there. */
  changes: Change[];
  comparison: Comparison;
  /** Fewer stops than now, and none that is new. */
  helps: boolean;
  stops: number;
}

/** Kinds that bring ports which others lack. */
const BRINGS_PORTS: readonly PartType["kind"][] = ["card", "adapter", "hub", "usb-hub"];

/** Parts that are one choice: modules are matched, and the fans of a radiator are alike. */
export function together(build: Build, types: TypeLookup, part: string): string[] {
  const it = build.parts.find((p) => p.id === part);
  const kind = types(it?.type ?? "")?.kind;
  if (!it || (kind !== "memory" && !(kind === "fan" && it.zone === "radiator"))) return [part];
  return build.parts.filter((p) => types(p.type)?.kind === kind && p.zone === it.zone).map((p) => p.id);
}

/**
 * What of the shelf can stand in for one part, with those that belong to it; and what can be added beside it where its plugs
 * lack ports. Each was tried on a copy, with `others` changed in it already, and compared with the build as it is. Those that
 * help first, of them the fewest stops, then the nearest in class, then the fewest findings.
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
  const all = together(build, types, part);
  const rest = others.filter((o) => !all.includes(o.part));
  const lacking = plugsOf(was);
  const tried = shelf.flatMap((type): { type: PartType; changes: Change[] }[] => [
    ...(type.kind === was.kind && (type.id !== was.id || others.length > 0) ? [{ type, changes: all.map((p) => ({ part: p, type })) }] : []),
    ...(BRINGS_PORTS.includes(type.kind) && type.ports.some((p) => p.flow === "out" && lacking.some((f) => usable(mate(f, p.family))))
      ? [{ type, changes: [{ part: newId(build, type), type, adds: true }] }]
      : []),
  ]);
  return tried
    .flatMap(({ type, changes }): Alternative[] => {
      const other = withTypes(bare, types, [...rest, ...changes]);
      const then = judge(buildGraph(other.build, other.types, now.graph));
      const comparison = compare(now, then);
      const { gone, come, turned } = comparison;
      const newStop = [...come, ...turned.map(([, f]) => f)].some((f) => f.severity === "stop");
      const helps = !newStop && weight(gone) + weight(turned.map(([f]) => f)) > weight(come) + weight(turned.map(([, f]) => f));
      // One part more is worth a word only where it helps.
      return helps || !changes[0]?.adds ? [{ type, changes, comparison, stops: stops(then), helps }] : [];
    })
    .sort(
      (a, b) =>
        Number(b.helps) - Number(a.helps) ||
        a.stops - b.stops ||
        classesApart(a.type, was) - classesApart(b.type, was) ||
        a.comparison.come.length - b.comparison.come.length ||
        distance(a.type, was) - distance(b.type, was) ||
        (a.type.id < b.type.id ? -1 : 1),
    );
}

/** Families of what a part wants to be plugged into, by plugs of its own or by loose cables. */
const plugsOf = (type: PartType): string[] => [
  ...type.leads.filter((l) => l.flow === "in").map((l) => l.family),
  ...type.ports.filter((p) => p.flow === "in" && family(p.family).planned === "cable").map((p) => p.family),
];

function newId(build: Build, type: PartType): string {
  let n = 1;
  while (build.parts.some((p) => p.id === `${type.kind}-${n}`)) n++;
  return `${type.kind}-${n}`;
}

/** A stop outweighs any number of warnings that a build can have. */
const weight = (list: readonly Finding[]) => list.reduce((s, f) => s + { stop: 1000, warn: 10, note: 1 }[f.severity], 0);

/** What a part of its kind is bought for: a number that says its class. */
const classOf = ({ ratings: r, body: b }: PartType): number =>
  r.sizeGb ?? r.cooledW ?? r.powerW ?? r.peakW ?? r.flowM3h ?? b.maxCardMm ?? (b.widthMm ?? 0) * (b.heightMm ?? 0);
/** Classes from half of one step of 1.5 times up or down. */
const STEP = Math.log(1.5);
const classesApart = (a: PartType, b: PartType): number => {
  const [x, y] = [classOf(a), classOf(b)];
  if (a.kind !== b.kind || x <= 0 || y <= 0) return 0;
  return Math.round(Math.abs(Math.log(x / y)) / STEP);
};
const distance = (a: PartType, b: PartType) => Math.abs((a.ratings.peakW ?? a.ratings.powerW ?? 0) - (b.ratings.peakW ?? b.ratings.powerW ?? 0));

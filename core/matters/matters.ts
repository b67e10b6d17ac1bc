import { type Build, buildGraph, type Graph, type TypeLookup } from "../assembly";
import { assumed, type Figure, type FigureValue, figureWords, isProvisional, type PartType, rangeOf, withFigure } from "../catalogue";
import type { Finding } from "../checks";
import { isSeated, proposeMounts } from "../intake";
import { type Cost, LEVEL_WORDS, LEVELS, type Plan, plan, SolvedPieces } from "../plan";
import { compare, type Judged, judge } from "../whatif";

/** Something that is only assumed, and what turns on it. */
export interface Matter {
  /** The first part of its type. */
  part: string;
  /** How many parts of the build are of it. */
  parts: number;
  type: string;
  figure: string;
  question: string;
  /** What is assumed, and by which rule. */
  value: FigureValue;
  words: string;
  because: string;
  /** What else it may plausibly be, each with what follows then. */
  range: { value: FigureValue; words: string; decides: string[] }[];
  /** How it is found out. */
  by: Figure["by"];
  /** The more the worse it could turn out. */
  weight: number;
}

export interface Matters {
  /** What turns on something, the most consequential first. */
  matters: Matter[];
  /** Assumed, tried, and nothing turns on it. */
  settled: { type: string; figure: string; word: string; words: string }[];
  /** Not tried: time was up. Nothing is said of it. */
  untried: { type: string; figure: string }[];
  /** How many values are assumed. */
  assumed: number;
}

/** Levels of a plan that count here; what is below shifts with every millimetre. */
export const TURNS_ON = LEVELS.slice(0, LEVELS.indexOf("toOrder") + 1);

/** What the wiring is worked out from, by kind: of the rest no plan has to be made. */
const WIRES: Readonly<Record<string, readonly string[]>> = {
  board: [
    "caseFans",
    "cpuOpt",
    "pump",
    "usb2",
    "usb3",
    "usbc",
    "sata",
    "m2",
    "m2Two",
    "m2Sata",
    "slots",
    "led5",
    "led12",
    "cpuPlugs",
    "dimms",
    "socket",
    "memory",
    "form",
  ],
  case: ["frontC", "front3", "form"],
  card: ["plugs", "watts"],
  cooler: ["fans", "radiatorMm"],
  cpu: ["watts", "socket"],
  drive: ["form", "protocol"],
  fan: ["pins", "currentA", "lit", "leadMm"],
  hub: ["ways", "limitA"],
  lighting: ["leds", "volts", "through"],
  memory: ["memory"],
  splitter: ["ways"],
  supply: ["modular", "cpu", "gfx", "g16", "sata", "cpuMm"],
};

/** Figures that a board and what goes into it have in common. */
const SHARED: ReadonlySet<string> = new Set(["socket", "memory"]);

interface Variant {
  type: PartType;
  figure: Figure;
  value: FigureValue;
}

const withTypeOf = (types: TypeLookup, changes: readonly Variant[]): TypeLookup => {
  const own = new Map<string, PartType>();
  for (const c of changes) own.set(c.type.id, withFigure(own.get(c.type.id) ?? c.type, c.figure.id, c.value));
  return (id) => own.get(id) ?? types(id);
};
/** The parts list with these types. Whoever hangs at a place that the case has not then hangs at another that is free. */
function withTypes(build: Build, lookup: TypeLookup): Build {
  const parts = build.parts.filter((p) => p.from === "client");
  const shell = parts.map((p) => lookup(p.type)).find((t) => t?.kind === "case");
  const has = new Set(shell?.body.mounts.map((m) => m.id));
  const gone = (p: Build["parts"][number]) =>
    shell !== undefined && p.mount !== undefined && !has.has(p.mount) && !shell.body.radiatorPlaces.some((r) => r.id === p.mount);
  const again = parts.some(gone)
    ? proposeMounts(
        shell,
        parts.map((p) => {
          const t = lookup(p.type);
          return {
            id: p.id,
            kind: t?.kind ?? "cable",
            seated: t !== undefined && isSeated(t),
            ...(t?.body.widthMm === undefined ? {} : { sizeMm: t.body.widthMm }),
            ...(gone(p) || p.mount === undefined ? {} : { mount: p.mount }),
          };
        }),
      )
    : undefined;
  return {
    ...build,
    connections: [],
    partTypes: build.partTypes.map((t) => lookup(t.id) ?? t),
    parts: again
      ? parts.map((p) => {
          if (!gone(p)) return p;
          const { mount: _, ...rest } = p;
          const mount = again.get(p.id);
          return mount === undefined ? rest : { ...rest, mount };
        })
      : parts,
  };
}

const WEIGHT = { stop: 100, warn: 20, note: 1 } as const;
const isThere = (f: Finding) => f.severity !== "note";

/** What follows of a parts list that is otherwise: findings that come, turn or go, and the order list; never millimetres. */
function follows(before: Judged, after: Judged): { decides: string[]; weight: number } {
  const c = compare(before, after);
  const decides: string[] = [];
  let weight = 0;
  for (const f of c.come.filter(isThere)) {
    decides.push(`${f.severity === "stop" ? "Stop" : "Warning"}: ${f.message}`);
    weight += WEIGHT[f.severity];
  }
  for (const [was, now] of c.turned) {
    decides.push(`${now.severity === "stop" ? "Stop" : now.severity === "warn" ? "Warning" : "Only a note"}: ${now.message}`);
    weight += Math.abs(WEIGHT[now.severity] - WEIGHT[was.severity]);
  }
  for (const f of c.gone.filter(isThere)) {
    decides.push(`Then this is settled: ${f.message}`);
    weight += WEIGHT[f.severity] / 2;
  }
  const list = c.rows.find((r) => r.what === "Order list");
  if (list) {
    if (list.after !== "nothing more") decides.push(`To order then: ${list.after}.`);
    else decides.push(`Not to be ordered then: ${list.before}.`);
    weight += 5;
  }
  return { decides, weight };
}

interface Wired {
  plan: Plan;
  graph: Graph;
}

const freeWords = (w: Wired): Map<string, string> =>
  new Map(
    w.plan.free.map((f) => {
      const lead = w.graph.leads.get(f.end);
      return [f.end, lead ? `${lead.tag} (${lead.name})` : (w.graph.ports.get(f.end)?.name ?? f.end)] as const;
    }),
  );

/** What follows for the wiring: by level down to what has to be ordered. */
function wiringFollows(before: Wired, after: Wired): { decides: string[]; weight: number } {
  const [a, b] = [before.plan.cost, after.plan.cost];
  const turned = TURNS_ON.filter((l) => a[l] !== b[l]);
  if (turned.length === 0) return { decides: [], weight: 0 };
  const [was, now] = [freeWords(before), freeWords(after)];
  const dead = [...now].filter(([e]) => !was.has(e) && (before.graph.leads.has(e) || before.graph.ports.has(e))).map(([, w]) => w);
  const lives = [...was].filter(([e]) => !now.has(e) && (after.graph.leads.has(e) || after.graph.ports.has(e))).map(([, w]) => w);
  const decides: string[] = [];
  if (dead.length > 0) decides.push(`Without a place then: ${some(dead)}.`);
  if (lives.length > 0) decides.push(`Gets its place then: ${some(lives)}.`);
  if (dead.length + lives.length === 0) for (const l of turned) decides.push(levelWords(l, a, b));
  const weight = turned.reduce(
    (n, l) => n + Math.abs(b[l] - a[l]) * (l === "mandatoryFree" ? 100 : l === "coolingFree" || l === "fansFree" ? 40 : l === "toOrder" ? 5 : 15),
    0,
  );
  return { decides, weight };
}
const some = (list: readonly string[]) => (list.length > 4 ? `${list.slice(0, 4).join(", ")} and ${list.length - 4} more` : list.join(", "));
const levelWords = (l: (typeof TURNS_ON)[number], a: Cost, b: Cost) => `${LEVEL_WORDS[l]}: ${b[l]}, now ${a[l]}.`;

interface Follows {
  decides: string[];
  weight: number;
}

/** A build by its values, whatever their standing: what the wiring says of it is the same once they are confirmed. */
const valuesOf = (build: Build, types: TypeLookup): string =>
  JSON.stringify([
    build.parts,
    build.policy,
    build.settings,
    build.wishes,
    build.accessories,
    [...new Set(build.parts.map((p) => p.type))].map((id) => {
      const t = types(id);
      return t?.figures ? [id, Object.entries(t.figures).map(([f, x]) => [f, x.value]), t.placed] : [id, t?.revision];
    }),
  ]);

/** What the wiring said of builds that were tried before: whoever confirms one value need not wait for all the others again (memoized). */
export class TriedBefore {
  private readonly builds = new Map<string, Map<string, Follows>>();
  /** Of so many builds. */
  private static readonly MOST = 6;
  of(values: string): Map<string, Follows> {
    const had = this.builds.get(values) ?? new Map<string, Follows>();
    this.builds.delete(values);
    this.builds.set(values, had);
    const [oldest] = this.builds.keys();
    if (this.builds.size > TriedBefore.MOST && oldest !== undefined) this.builds.delete(oldest);
    return had;
  }
}

const HOW = { seen: 0, label: 1, measured: 2, manual: 3 } as const;

export interface MattersOptions {
  /** Milliseconds for all of it; what is not tried by then is said to be untried. */
  withinMs?: number;
  /** Only what the parts list says: no plan is made, and what only a plan could tell is left untried. */
  listOnly?: boolean;
  /** What was tried before, for whoever asks again. */
  memory?: TriedBefore;
  /** Seconds for one plan. */
  planS?: number;
  now?: () => number;
}

/**
 * Which assumed values decide anything: a finding or its severity, the levels of the plan down to what is ordered, the order list. Each value
 * is tried at the ends of its range, and what lies between where an answer may turn; the parts list each for itself, the wiring all at once
 * first, and one by one only where that turned anything.
 */
export async function mattersOf(build: Build, types: TypeLookup, options: MattersOptions = {}): Promise<Matters> {
  const clock = options.now ?? (() => performance.now());
  const until = clock() + (options.withinMs ?? 30_000);
  const planS = options.planS ?? 6;
  const solved = new SolvedPieces();
  const uses = new Map<string, string[]>();
  for (const p of build.parts) uses.set(p.type, [...(uses.get(p.type) ?? []), p.id]);
  const open = [...uses.keys()].flatMap((id) => {
    const t = types(id);
    return t && isProvisional(t) ? assumed(t).map((figure) => ({ type: t, figure, range: rangeOf(t, figure) })) : [];
  });
  // Processor and board share a socket, memory and board a type: it is one question, and the board's is the one that somebody can look at.
  const onBoard = (o: (typeof open)[number]) =>
    SHARED.has(o.figure.id) &&
    o.type.kind !== "board" &&
    [...uses.keys()].some((id) => {
      const t = types(id);
      return t?.kind === "board" && t.figures?.[o.figure.id]?.value === o.type.figures?.[o.figure.id]?.value;
    });
  const out: Matters = { matters: [], settled: [], untried: [], assumed: open.length };
  const asked = open.filter((o) => o.range.length > 0 && !onBoard(o));
  if (asked.length === 0) return out;
  const graphWith = (changes: readonly Variant[]) => {
    const lookup = withTypeOf(types, changes);
    return { build: withTypes(build, lookup), types: lookup };
  };
  const start = graphWith([]);
  const plain = judge(buildGraph(start.build, start.types));
  const wire = async (changes: readonly Variant[]): Promise<Wired> => {
    const at = graphWith(changes);
    const made = await plan(at.build, at.types, { deadlineS: planS, solved });
    return { plan: made, graph: buildGraph(made.build, at.types) };
  };
  const found = new Map<string, { o: (typeof asked)[number]; by: Map<FigureValue, { decides: string[]; weight: number }> }>();
  const key = (o: (typeof asked)[number]) => `${o.type.id} ${o.figure.id}`;
  for (const o of asked) {
    const by = new Map<FigureValue, { decides: string[]; weight: number }>();
    for (const value of o.range) {
      const at = graphWith([{ type: o.type, figure: o.figure, value }]);
      by.set(value, follows(plain, judge(buildGraph(at.build, at.types))));
    }
    found.set(key(o), { o, by });
  }
  // The wiring: all at their one end, all at their other; only what differs is looked at one by one.
  const wired = asked.filter((o) => WIRES[o.type.kind]?.includes(o.figure.id));
  const untried = new Set<string>();
  const known = options.memory?.of(valuesOf(build, types));
  const tried = (o: (typeof asked)[number], value: FigureValue) => known?.get(`${key(o)} ${String(value)}`);
  const keep = (o: (typeof asked)[number], value: FigureValue, f: Follows) => {
    known?.set(`${key(o)} ${String(value)}`, f);
    const had = found.get(key(o))?.by.get(value);
    if (had && f.decides.length > 0) {
      had.decides.push(...f.decides);
      had.weight += f.weight;
    }
  };
  const fresh = wired.filter((o) => !o.range.every((v) => tried(o, v)));
  for (const o of wired)
    for (const v of o.range) {
      const f = fresh.includes(o) ? undefined : tried(o, v);
      if (f) keep(o, v, f);
    }
  if (options.listOnly) for (const o of fresh) untried.add(key(o));
  else if (fresh.length > 0) {
    const base = await wire([]);
    const ends = [0, 1].map((i) =>
      fresh.flatMap((o): Variant[] => (o.range[i] === undefined ? [] : [{ type: o.type, figure: o.figure, value: o.range[i] as FigureValue }])),
    );
    const turned: boolean[] = [];
    for (const changes of ends) turned.push(changes.length > 0 && wiringFollows(base, await wire(changes)).decides.length > 0);
    // One at its end may turn what the others at theirs turn back: a worse end of one hides behind that of another.
    const oneByOne = turned.some(Boolean) || fresh.some((o) => o.range.length > 2);
    for (const o of fresh) {
      if (oneByOne && clock() > until) {
        untried.add(key(o));
        continue;
      }
      for (const value of o.range)
        keep(o, value, oneByOne ? wiringFollows(base, await wire([{ type: o.type, figure: o.figure, value }])) : { decides: [], weight: 0 });
    }
  }
  for (const [k, { o, by }] of found) {
    const told = [...by].filter(([, f]) => f.decides.length > 0);
    const value = o.type.figures?.[o.figure.id]?.value ?? 0;
    if (told.length === 0) {
      if (untried.has(k)) out.untried.push({ type: o.type.id, figure: o.figure.id });
      else out.settled.push({ type: o.type.id, figure: o.figure.id, word: o.figure.word, words: figureWords(o.figure, value) });
      continue;
    }
    const parts = uses.get(o.type.id) ?? [];
    const m: Matter = {
      part: parts[0] ?? "",
      parts: parts.length,
      type: o.type.id,
      figure: o.figure.id,
      question: o.figure.ask(o.type.name),
      value,
      words: figureWords(o.figure, value),
      because: o.type.figures?.[o.figure.id]?.from ?? "",
      range: told.map(([v, f]) => ({ value: v, words: figureWords(o.figure, v), decides: f.decides })),
      by: o.figure.by,
      weight: Math.max(...told.map(([, f]) => f.weight)),
    };
    out.matters.push(m);
  }
  out.matters.sort((a, b) => b.weight - a.weight || HOW[a.by] - HOW[b.by] || (a.question < b.question ? -1 : 1));
  return out;
}

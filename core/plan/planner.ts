import { type Build, buildGraph, type Connection, type Graph, naturally, type Part, type TypeLookup } from "../build";
import { type Free, freeEnds, isConstant, looseCables, whyHere } from "../wiring";
import { assemble } from "./assemble";
import { servedBy, unitParts, withoutUnusedAccessories } from "./candidates";
import { highsEngine } from "./engine";
import { type Laid, layOut, ownLevels } from "./lay-out";
import { addCost, type Cost, compareCost, LEVELS, type Level, type PartCost, zeroCost } from "./levels";
import { type PieceMemory, remembering } from "./memory";
import { type Engine, type Model, OutOfTime, type Piece } from "./model";
import { isSmall, smallEngine, totalCost } from "./small";
import { verify } from "./verify";

/** A finished plan: every connection with its reason, everything that stays free with its reason, and the proof. */
export interface Plan {
  /** The build as planned: accessories added, every connection in it. */
  build: Build;
  connections: (Connection & { why: string })[];
  free: Free[];
  /** Accessories taken from the shelf and those to order. */
  accessories: { id: string; type: string; from: "shelf" | "order" }[];
  cables: { used: string[]; inBag: string[] };
  cost: Cost;
  status: "proved" | "not yet proved";
  /** The last level proved everywhere, when not all were. */
  provedTo?: Level;
  /** Hard rules that the plan breaks: always empty unless something plugged or fixed breaks them. */
  broken: string[];
  leads: number;
}

export interface PlanOptions {
  /** Seconds for the whole plan. */
  deadlineS?: number;
  engine?: Engine;
  /** Pieces solved before, by this plan or another: the same piece is not solved again. */
  memory?: PieceMemory;
  onProgress?: (now: PlanProgress) => void;
}

/** Pieces settled of all, and the level that is being looked at. */
export interface PlanProgress {
  done: number;
  of: number;
  level?: Level;
}

interface Attempt {
  parts: Part[];
  connections: Connection[];
  cost: Cost;
  proved: boolean;
  provedTo?: Level;
  broken: string[];
  graph: Graph;
}

/** The levels above and with the accessories. */
const ACCESSORY_LEVELS = LEVELS.slice(0, LEVELS.indexOf("fromShelf") + 1);

const lessCost = (a: Cost, b: Cost): Cost => addCost(a, Object.fromEntries(LEVELS.map((l) => [l, -b[l]])));

/**
 * Plans where every lead goes. Deterministic: neither the order of parts nor of connections in the file matters.
 * Connections that are fixed, plugged or checked are constants.
 * @throws when a solver fails; the message is one line.
 */
export async function plan(build: Build, types: TypeLookup, options: PlanOptions = {}): Promise<Plan> {
  const start = withoutUnusedAccessories(build);
  const before = buildGraph(build, types);
  // A proved plan that only has more of it held now is still the best: it is one of fewer answers.
  if (options.memory?.stillBest(build)) {
    const verdict = verify(before, before);
    const ids = new Set(start.parts.map((p) => p.id));
    const parts = build.parts.filter((p) => !ids.has(p.id));
    return finish(start, { parts, connections: [...build.connections], cost: verdict.cost, proved: true, broken: verdict.broken, graph: before });
  }
  const made = await search(start, before, types, options);
  if (made.status === "proved") options.memory?.keepPlan(made.build);
  return made;
}

async function search(start: Build, before: Graph, types: TypeLookup, options: PlanOptions): Promise<Plan> {
  const run: Run = { start, before, types, options, until: performance.now() + (options.deadlineS ?? 60) * 1000 };
  const plain = layOut(start, before, types, []);
  // Hubs and adapters cost an accessory each, so they cannot improve what is perfect down to that level: only families
  // in pieces that cost something there may want one.
  const asIs = (await probe(run, plain, plain.model.pieces(), ACCESSORY_LEVELS, true)) ?? [];
  const units = unitParts(start, types, new Set(asIs.flatMap((p) => (p.first || !p.sure ? [...p.families] : []))));
  const offer = layOut(start, before, types, units);
  if (offer.offered.length === 0) return finish(start, await whole(run, plain, asIs));
  const which = await worth(run, plain, asIs, offer, units);
  if (which === "without") return finish(start, await whole(run, plain, asIs));
  if (which !== "both") return finish(start, await whole(run, offer, which));
  const best = await whole(run, plain, asIs);
  const fresh = layOut(start, before, types, units);
  takeOne(fresh);
  const other = await solve(run, fresh, best.cost).catch((e: unknown) => {
    if (e instanceof OutOfTime) return e;
    throw e;
  });
  if (!other) return finish(start, best);
  if (other instanceof OutOfTime) return finish(start, { ...best, proved: false });
  return finish(start, { ...(compareCost(other.cost, best.cost) < 0 ? other : best), proved: best.proved && other.proved });
}

interface Run {
  start: Build;
  before: Graph;
  types: TypeLookup;
  options: PlanOptions;
  until: number;
}

/** Once the time is up each piece still gets a moment for a fair answer. */
const left = (run: Run) => Math.max(0.3, (run.until - performance.now()) / 1000);

const engineFor = (run: Run, piece: Piece): Engine =>
  run.options.engine ?? (isSmall(piece) ? smallEngine : run.options.memory ? remembering(highsEngine, run.options.memory) : highsEngine);

const takeOne = (laid: Laid) =>
  laid.model.atLeast(
    laid.offered.map((v): [number, number] => [v, 1]),
    1,
  );

function zeroAt(model: Model, level: Level): void {
  for (const [v, c] of model.costs.entries()) if ((c[level] ?? 0) > 0) model.upper[v] = 0;
}

/** One piece solved for some levels. */
interface Probed {
  /** The piece's first variable, and what it found for all. */
  of: number;
  values: readonly number[];
  families: Set<string>;
  cost: PartCost;
  /** The first level that costs anything. */
  first: Level | undefined;
  sure: boolean;
}

/** Solves each piece for these levels, or no further than to the first that costs anything; undefined where nothing holds at all. */
async function probe(run: Run, laid: Laid, pieces: readonly Piece[], levels: readonly Level[], toFirstCost: boolean): Promise<Probed[] | undefined> {
  const out: Probed[] = [];
  for (const piece of pieces) {
    const solution = await engineFor(run, piece)
      .solve(piece, ownLevels(piece, levels), { deadlineS: left(run), toFirstCost })
      .catch((e: unknown) => {
        if (e instanceof OutOfTime) return e;
        throw e;
      });
    if (!solution) return undefined;
    if (solution instanceof OutOfTime) {
      out.push({ of: -1, values: [], families: new Set(), cost: {}, first: undefined, sure: false });
      continue;
    }
    const all = totalCost(piece, solution.values);
    const cost = Object.fromEntries(levels.map((l) => [l, all[l] ?? 0]));
    const families = new Set(piece.vars.flatMap((v) => laid.familyOf.get(v) ?? []));
    out.push({
      of: piece.vars[0] ?? 0,
      values: solution.values,
      families,
      cost,
      first: levels.find((l) => (all[l] ?? 0) > 0),
      sure: solution.proved,
    });
  }
  return out;
}

const sumOf = (list: readonly Probed[], level: Level) => list.reduce((s, p) => s + (p.cost[level] ?? 0), 0);

/**
 * Is the build worth another solve with units (then with what was found so far), without them, or with both? Looks only at the levels down to the first
 * at which a piece costs something that a unit could serve; whatever differs there, nothing further down makes up for.
 */
async function worth(run: Run, plain: Laid, asIs: readonly Probed[], offer: Laid, units: readonly Part[]): Promise<"without" | "both" | Probed[]> {
  const served = servedBy(units, run.types);
  const touched = asIs.map((p) => [...p.families].some((f) => served.has(f)));
  const deciding = ACCESSORY_LEVELS.find((l) => asIs.some((p, i) => touched[i] && p.first === l));
  if (!deciding || asIs.some((p) => !p.sure)) return "both";
  const levels = LEVELS.slice(0, LEVELS.indexOf(deciding) + 1);
  const pieces = plain.model.pieces();
  // Pieces that no unit can serve cost what they cost; those that one can cost nothing before the deciding level.
  const others = await probe(
    run,
    plain,
    pieces.filter((_, i) => !touched[i]),
    levels,
    false,
  );
  if (!others) return "both";
  const without = [...others, ...asIs.filter((_, i) => touched[i])];
  takeOne(offer);
  for (const l of levels) if (sumOf(without, l) === 0) zeroAt(offer.model, l);
  const withUnit = await probe(run, offer, offer.model.pieces(), levels, false);
  if (!withUnit) return "without";
  if ([...others, ...withUnit].some((p) => !p.sure)) return "both";
  const first = levels.find((l) => sumOf(withUnit, l) !== sumOf(without, l));
  if (!first) return "both";
  return sumOf(withUnit, first) < sumOf(without, first) ? withUnit : "without";
}

async function whole(run: Run, laid: Laid, starts: readonly Probed[]): Promise<Attempt> {
  const made = await solve(run, laid, undefined, starts);
  if (!made) throw new Error("The planner found no assignment at all, which cannot be: every lead may stay free.");
  return made;
}

/** Solves a layout to the last level. With `beat`, only answers that could be better count. */
async function solve(run: Run, laid: Laid, beat?: Cost, starts: readonly Probed[] = []): Promise<Attempt | undefined> {
  const { start, before, types, options } = run;
  const { graph, model, supply, nets, direct, units, used, offered } = laid;
  const ceiling = beat && mustBeat(model, beat);
  const values = new Array<number>(model.names.length).fill(0);
  const pieces = model.pieces();
  const levels = model.levels();
  let proved = supply.complete;
  let provedTo: Level | undefined;
  const hasUnit = (piece: { vars: number[] }) => offered.some((v) => piece.vars.includes(v));
  // Pieces that no unit touches come first: what they cost is off the budget of the last.
  pieces.sort((a, b) => Number(hasUnit(a)) - Number(hasUnit(b)));
  let spent = zeroCost();
  for (const [n, piece] of pieces.entries()) {
    const last = beat !== undefined && hasUnit(piece);
    if (ceiling && last) {
      const terms = piece.costs.flatMap((c, i): [number, number][] => (c[ceiling.level] ? [[i, c[ceiling.level] ?? 0]] : []));
      if (terms.length > 0) piece.rows.push({ lower: Number.NEGATIVE_INFINITY, upper: ceiling.most, terms });
    }
    const solution = await engineFor(run, piece).solve(piece, ownLevels(piece, levels), {
      deadlineS: left(run),
      start: starts.find((s) => s.of === piece.vars[0])?.values,
      beat: last ? lessCost(beat, spent) : undefined,
      onLevel: (level) => options.onProgress?.({ done: n, of: pieces.length, level }),
    });
    if (!solution) return undefined;
    for (const [i, v] of piece.vars.entries()) values[v] = solution.values[i] ?? 0;
    spent = addCost(spent, totalCost(piece, solution.values));
    if (!solution.proved) {
      proved = false;
      provedTo = solution.provedTo;
    }
  }
  options.onProgress?.({ done: pieces.length, of: pieces.length });
  const chosen = (v: number) => values[v] ?? 0;
  const adaptersUsed = supply.adapters.filter((a) => chosen(a.variable) > 0).map((a) => a.adapter.id);
  const usedUnits = new Set([...[...used].filter(([, v]) => chosen(v) > 0).map(([id]) => id), ...adaptersUsed]);
  const made = assemble(graph, units, nets, supply, direct, usedUnits, chosen);
  const connections = [...start.connections.filter(isConstant), ...made.connections];
  const finished: Build = { ...start, parts: [...start.parts, ...made.parts], connections };
  const after = buildGraph(finished, types);
  const verdict = verify(after, before);
  return { parts: made.parts, connections, cost: verdict.cost, proved, ...(provedTo ? { provedTo } : {}), broken: verdict.broken, graph: after };
}

/**
 * Levels at which the plan to beat is at zero must stay at zero, and the first level that is not may not grow:
 * anything else is worse. Returns that first level.
 */
function mustBeat(model: Model, beat: Cost): { level: Level; most: number } | undefined {
  for (const level of LEVELS) {
    if (level === "canonical") return undefined;
    if (beat[level] > 0) return { level, most: beat[level] };
    zeroAt(model, level);
  }
  return undefined;
}

function finish(start: Build, best: Attempt): Plan {
  const graph = best.graph;
  const connections = [...best.connections].sort((a, b) => naturally(a.lead, b.lead));
  const cables = looseCables(graph);
  const stock = new Map<string, number>();
  for (const p of best.parts) if (p.from === "shelf") stock.set(p.type, (stock.get(p.type) ?? 0) + 1);
  const accessories = start.accessories.map((a) => {
    const taken = Math.min(a.count, stock.get(a.type) ?? 0);
    stock.set(a.type, (stock.get(a.type) ?? 0) - taken);
    return { ...a, count: a.count - taken };
  });
  return {
    build: { ...start, parts: [...start.parts, ...best.parts], accessories, connections },
    connections: connections.map((c) => ({ ...c, why: whyHere(graph, c) })),
    free: freeEnds(graph),
    accessories: best.parts.flatMap((p) => (p.from === "client" ? [] : [{ id: p.id, type: p.type, from: p.from }])),
    cables: {
      used: cables.used.map((p) => p.id),
      inBag: cables.inBag.map((p) => p.id),
    },
    cost: best.cost,
    status: best.proved && best.broken.length === 0 ? "proved" : "not yet proved",
    ...(best.provedTo ? { provedTo: best.provedTo } : {}),
    broken: best.broken,
    leads: [...graph.leads.values()].filter((l) => !l.lead.role.startsWith("cable-root")).length,
  };
}

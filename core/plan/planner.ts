import { type Build, buildGraph, type Connection, type Graph, isConstant, naturally, type Part, type TypeLookup } from "../assembly";
import { type Free, freeEnds, whyHere } from "../claims";
import { looseCables } from "../wiring";
import { assemble, withoutOrder } from "./answer/assemble";
import { verify } from "./answer/verify";
import { type Cost, compareCost, FREE_LEVELS, LEVEL_WORDS, LEVELS, type Level } from "./cost/cost";
import { addArcs } from "./model/chain-arcs";
import { forbid } from "./model/fans-lights-usb";
import { limitHubLoads } from "./model/hub-loads";
import { type Laid, layOut } from "./model/lay-out";
import { type Engine, type Gap, OutOfTime, type Piece, type Solution } from "./model/model";
import { unitParts, withoutUnusedAccessories } from "./model/offer";
import { hubsOnSharedHeaders } from "./model/shared-control";
import { bySets, lowest, ownLevels } from "./solve/by-hub-set";
import { remembering, type SolvedPieces } from "./solve/cache";
import { isSmall, smallEngine } from "./solve/enumerate";
import { firstFeed } from "./solve/first-feed";
import { firstFit } from "./solve/first-fit";
import { highsEngine } from "./solve/highs";

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
  /** The first level not proved, where it is known how much better a plan could be there. */
  gap?: Gap;
  /** Hard rules that the plan breaks: always empty unless something plugged or fixed breaks them. */
  broken: string[];
  leads: number;
  /** A plan that was found too, not proved, which leaves fewer free and orders more: what it costs. */
  other?: Cost;
}

export interface PlanOptions {
  /** Seconds for the whole plan. */
  deadlineS?: number;
  engine?: Engine;
  /** Pieces solved before, by this plan or another: the same piece is not solved again. */
  solved?: SolvedPieces;
  /** The build is a plan that was proved, and only more of it is held than was then. */
  stillBest?: boolean | undefined;
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
  gap?: Gap;
  broken: string[];
  graph: Graph;
}

/** The levels above and with the accessories. */
const ACCESSORY_LEVELS = LEVELS.slice(0, LEVELS.indexOf("fromShelf") + 1);

/**
 * Plans where every lead goes. Deterministic: neither the order of parts nor of connections in the file matters.
 * Connections that are fixed, plugged or checked are constants.
 * @throws when a solver fails; the message is one line.
 */
export async function plan(build: Build, types: TypeLookup, options: PlanOptions = {}): Promise<Plan> {
  const asking = begin(build, types, options);
  const { start } = asking;
  // A proved plan that only has more of it held now is still the best: it is one of fewer answers.
  if (options.stillBest || options.solved?.stillBest(build)) return finish(start, asItStands(build, asking, true));
  const made = await acceptable(asking, await search(asking));
  const proved = made.status === "proved";
  // What stands already is given up only for something better, out of time or not: among equals no plug moves.
  const stands = asItStands(build, asking, proved);
  const stays = stands.broken.length === 0 && compareCost(stands.cost, made.cost) <= 0;
  if (proved) {
    const best = stays ? finish(start, stands) : made;
    options.solved?.keepPlan(best.build);
    return best;
  }
  if (!stays) return made;
  const gap = made.gap && { ...made.gap, by: Math.max(0, made.gap.by - (made.cost[made.gap.level] - stands.cost[made.gap.level])) };
  // No plan is better down to where the search settled, so this one is as good there.
  return finish(start, { ...stands, ...(made.provedTo ? { provedTo: made.provedTo } : {}), ...(gap ? { gap } : {}) });
}

/** Seconds for what hands would do, beside a plan that was not proved. */
const BY_HAND_S = 2;

/**
 * A plan that is not proved and orders accessories stands only where it is what a hand would accept: where nothing is left free less
 * for it than without ordering, what does without stands. Where something is, that one stands too, and the other is told beside it.
 */
async function acceptable(asking: Asking, made: Plan): Promise<Plan> {
  if (made.status === "proved" || made.cost.toOrder === 0) return made;
  const start = { ...asking.start, policy: { ...asking.start.policy, mayOrder: false } };
  const plain = layOut(start, asking.before, asking.types, []);
  const byHand = finish(asking.start, await solve({ ...asking, start, until: performance.now() + BY_HAND_S * 1000 }, plain, new Map()));
  if (byHand.broken.length > 0) return made;
  const better = FREE_LEVELS.some((l) => made.cost[l] < byHand.cost[l]);
  return { ...byHand, status: "not yet proved", ...(better ? { other: made.cost } : {}) };
}

/** The plan that a build comes with, with what it costs. */
function asItStands(build: Build, { start, before }: Asking, proved: boolean): Attempt {
  const { cost, broken } = verify(before, before, start);
  const ids = new Set(start.parts.map((p) => p.id));
  return { parts: build.parts.filter((p) => !ids.has(p.id)), connections: [...build.connections], cost, proved, broken, graph: before };
}

/** How a build is begun: what an earlier plan took and nobody plugged is back on the shelf. */
export const begin = (build: Build, types: TypeLookup, options: PlanOptions): Asking => ({
  start: withoutUnusedAccessories(build),
  before: buildGraph(build, types),
  types,
  options,
  until: performance.now() + (options.deadlineS ?? 60) * 1000,
});

async function search(asking: Asking): Promise<Plan> {
  const { start, before, types } = asking;
  const plain = layOut(start, before, types, []);
  // Hubs and adapters cost an accessory each, so they cannot improve what is perfect down to that level: only families
  // in pieces that cost something there may want one.
  const asIs = await look(asking, plain);
  const units = unitParts(start, types, asIs.troubled);
  const laid = units.length === 0 ? plain : layOut(start, before, types, units);
  return finish(start, await solve(asking, laid, asIs.values));
}

/** Solves again for chains at most as often. */
const MOST_AGAIN = 40;
/** And once the time is up. */
const MOST_LATE = 2;

export interface Asking {
  start: Build;
  before: Graph;
  types: TypeLookup;
  options: PlanOptions;
  until: number;
}

/** Once the time is up each piece still gets a moment for a fair answer. */
const LEAST_S = 0.3;
const LEAST_AGAIN_S = 1;
const left = (asking: Asking) => Math.max(LEAST_S, (asking.until - performance.now()) / 1000);

function engineFor(asking: Asking, piece: Piece): Engine {
  const { engine, solved } = asking.options;
  const one = (p: Piece) => (isSmall(p) ? smallEngine : solved ? remembering(highsEngine, solved) : highsEngine);
  return engine ?? (piece.links.length > 0 ? bySets(one) : one(piece));
}

/** A first look at a build without anything on offer. */
interface FirstLook {
  /** Families in pieces that cost something down to the accessories, or may. */
  troubled: Set<string>;
  /** What was found, by the names of the variables. */
  values: Map<string, number>;
}

/** Can each piece be had without any cost down to the accessories? */
async function look(asking: Asking, laid: Laid): Promise<FirstLook> {
  const out: FirstLook = { troubled: new Set(), values: new Map() };
  for (const piece of laid.model.pieces()) {
    const perfect = { ...piece, upper: piece.upper.map((u, i) => (ACCESSORY_LEVELS.some((l) => (piece.costs[i]?.[l] ?? 0) > 0) ? 0 : u)) };
    const solution = await engineFor(asking, perfect)
      .solve(perfect, [], { deadlineS: left(asking) / 5 })
      .catch((e: unknown) => {
        if (e instanceof OutOfTime) return undefined;
        throw e;
      });
    for (const [i, v] of piece.vars.entries()) {
      const family = laid.familyOf.get(v);
      if (solution) out.values.set(laid.model.names[v] ?? "", solution.values[i] ?? 0);
      else if (family !== undefined) out.troubled.add(family);
    }
  }
  return out;
}

/** Values for a whole layout. */
export interface Settled {
  chosen: (v: number) => number;
  /** For each piece that was not proved (by its first variable), the level down to which it was, and what is open below. */
  unproved: Map<number, Pick<Solution, "provedTo" | "gap">>;
}

/**
 * Solves a layout level by level; `first` gives values by name to begin with. `again`: what was settled before, and the
 * variables of the rows that came since; pieces without one of them stay as they are.
 */
export async function settle(
  asking: Asking,
  laid: Laid,
  levels: readonly Level[],
  first: ReadonlyMap<string, number>,
  again?: { before: Settled; changed: ReadonlySet<number> },
): Promise<Settled> {
  const { model, supply } = laid;
  const { options } = asking;
  const values = model.names.map((_, v) => again?.before.chosen(v) ?? 0);
  const starts = startsOf(laid, first).map((s) => model.withHelpers(model.names.map((n) => s.get(n) ?? 0)));
  // What was settled before may still hold, with what the new rows ask for.
  if (again) starts.push(model.withHelpers(values), model.withHelpers(unloaded(laid, values)));
  const pieces = model.pieces().filter((p) => !again || p.vars.some((v) => again.changed.has(v)));
  const unproved: Settled["unproved"] = new Map(again?.before.unproved);
  if (!supply.complete) unproved.set(-1, {});
  // Small pieces first: each gets the share of the time that is its share of what is left to do.
  pieces.sort((a, b) => a.vars.length - b.vars.length);
  let todo = pieces.reduce((s, p) => s + p.vars.length, 0);
  for (const [n, piece] of pieces.entries()) {
    const deadlineS = Math.max(again ? LEAST_AGAIN_S : LEAST_S, left(asking) * (piece.vars.length / todo));
    todo -= piece.vars.length;
    const solution = await engineFor(asking, piece).solve(piece, ownLevels(piece, levels), {
      deadlineS,
      starts: starts.map((s) => piece.vars.map((v) => s[v] ?? 0)),
      onLevel: (level) => options.onProgress?.({ done: n, of: pieces.length, level }),
    });
    if (!solution) throw new Error("The planner found no assignment at all, which cannot be: every lead may stay free.");
    for (const [i, v] of piece.vars.entries()) values[v] = solution.values[i] ?? 0;
    if (solution.proved) unproved.delete(piece.vars[0] ?? -1);
    else
      unproved.set(piece.vars[0] ?? -1, {
        ...(solution.provedTo ? { provedTo: solution.provedTo } : {}),
        ...(solution.gap ? { gap: solution.gap } : {}),
      });
  }
  options.onProgress?.({ done: pieces.length, of: pieces.length });
  // Where the time ended before a level was looked at, what follows from the choice is still what it is.
  const tight = unproved.size > 0 ? model.withHelpers(values) : values;
  return { chosen: (v) => tight[v] ?? 0, unproved };
}

/** What a layout is begun with: the first look's answer, a first fit, and one without what is on offer, beside what feeds the rest. */
function startsOf(laid: Laid, first: ReadonlyMap<string, number>): ReadonlyMap<string, number>[] {
  const fit = firstFit(laid, laid.before);
  if (laid.units.length === 0) return [first, fit];
  return [first, fit, new Map([...firstFit(laid, laid.before, false), ...firstFeed(laid, first)])];
}

/** The same answer without the cables that new rows find loaded too much: what they fed stays free, where it may. */
function unloaded({ model, supply }: Laid, values: readonly number[]): number[] {
  const out = [...values];
  const broken = new Set(
    model.rows
      .filter((r) => r.terms.reduce((s, [v, c]) => s + c * (out[v] ?? 0), 0) > r.upper + 1e-6)
      .flatMap((r) => r.terms.flatMap(([v]) => ((out[v] ?? 0) > 0 ? [v] : []))),
  );
  for (const x of supply.columns) {
    if (!broken.has(x.variable)) continue;
    out[x.variable] = 0;
    for (const e of x.ends) {
      const free = supply.free.get(e.consumer.address);
      if (free !== undefined) out[free] = 1;
    }
  }
  return out;
}

/** Solves a layout to the last level and puts the answer together. */
async function solve(asking: Asking, laid: Laid, first: ReadonlyMap<string, number>): Promise<Attempt> {
  const { start, before, types } = asking;
  const { graph, model, supply, nets, direct, units, used } = laid;
  let settled = await settle(asking, laid, model.levels(), first);
  // Chains that cannot be plugged in any order, and hubs that load their cable too much, are ruled out as they turn up.
  let lateAgain = 0;
  for (let again = 0; ; again++) {
    // Once the time is up, only what must not be is mended: what costs more than was counted, or has no order, waits for the proof.
    const late = performance.now() > asking.until;
    const wrong = late ? [] : withoutOrder(graph, nets, settled.chosen);
    const loaded = limitHubLoads(model, nets, supply, settled.chosen);
    const sharing = late ? [] : hubsOnSharedHeaders(model, nets, settled.chosen);
    if (late) settled.unproved.set(-2, {});
    if (wrong.length + loaded.length + sharing.length === 0) break;
    if (again >= MOST_AGAIN || (late && lateAgain++ >= MOST_LATE)) {
      const values = unloaded(
        laid,
        model.names.map((_, v) => settled.chosen(v)),
      );
      const tight = model.withHelpers(values);
      settled = { chosen: (v) => tight[v] ?? 0, unproved: settled.unproved.set(-2, {}) };
      break;
    }
    const families = new Set(wrong.filter((w) => !nets.arced.has(w.root.id)).map((w) => w.root.sample.port.family));
    const said = wrong.filter((w) => nets.arced.has(w.root.id));
    const arcs = families.size > 0 ? addArcs(model, graph, nets, families) : [];
    const changed = new Set([...arcs, ...said.flatMap((w) => forbid(model, graph, nets, w, settled.chosen)), ...loaded, ...sharing]);
    settled = await settle(asking, laid, model.levels(), first, { before: settled, changed });
  }
  const { chosen } = settled;
  const adaptersUsed = supply.adapters.filter((a) => chosen(a.variable) > 0).map((a) => a.adapter.id);
  const usedUnits = new Set([...[...used].filter(([, v]) => chosen(v) > 0).map(([id]) => id), ...adaptersUsed]);
  const made = assemble(graph, units, nets, supply, direct, usedUnits, chosen);
  const connections = [...start.connections.filter(isConstant), ...made.connections];
  const finished: Build = { ...start, parts: [...start.parts, ...made.parts], connections };
  const after = buildGraph(finished, types);
  const verdict = verify(after, before, start);
  // What was put together must cost what was solved: where names and places cannot be given out so, it is no proof.
  // (Round what hands have plugged there are costs that no choice changes.)
  if (!start.connections.some(isConstant) && compareCost(verdict.cost, model.costOf(chosen)) !== 0) settled.unproved.set(-3, {});
  const unproved = [...settled.unproved.values()];
  const provedTo = lowest(unproved.map((u) => u.provedTo));
  const gap = gapOf(unproved);
  return {
    parts: made.parts,
    connections,
    cost: verdict.cost,
    proved: unproved.length === 0,
    ...(provedTo ? { provedTo } : {}),
    ...(gap ? { gap } : {}),
    broken: verdict.broken,
    graph: after,
  };
}

/** In words, how far a plan is proved that is not proved to its end: what is settled, and what no plan goes below. */
export function proofWords({ status, cost, provedTo, gap, other }: Pick<Plan, "status" | "cost" | "provedTo" | "gap" | "other">): string {
  if (status === "proved") return "";
  if (other) {
    const fewer = FREE_LEVELS.reduce((s, l) => s + cost[l] - other[l], 0);
    const more = other.toOrder + other.fromShelf - cost.toOrder - cost.fromShelf;
    return `${fewer === 1 ? "One lead more would find its place" : `${fewer} leads more would find their place`} with ${more} ${more === 1 ? "accessory" : "accessories"} more, ${other.toOrder} to order. Put them on the order list to have it so.`;
  }
  const settled = provedTo ? `Best down to ${LEVEL_WORDS[provedTo]}` : "Nothing of it is proved yet";
  return gap ? `${settled}; ${LEVEL_WORDS[gap.level]}: ${cost[gap.level]}, no plan below ${cost[gap.level] - gap.by}.` : `${settled}.`;
}

/** What is open at the first level that some piece did not prove. Costs add over pieces, and so do gaps. */
function gapOf(unproved: readonly Pick<Solution, "provedTo" | "gap">[]): Gap | undefined {
  const gaps = unproved.map((u) => u.gap);
  const level = LEVELS.find((l) => gaps.some((g) => g?.level === l));
  // A piece of which nothing is known above or at that level leaves it open by how much.
  const known = unproved.every((u) => u.gap || (level && u.provedTo && LEVELS.indexOf(u.provedTo) >= LEVELS.indexOf(level)));
  return level && known ? { level, by: gaps.reduce((s, g) => s + (g?.level === level ? g.by : 0), 0) } : undefined;
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
    ...(best.gap ? { gap: best.gap } : {}),
    broken: best.broken,
    leads: [...graph.leads.values()].filter((l) => !l.lead.role.startsWith("cable-root")).length,
  };
}

import { type Build, buildGraph, type Connection, type Graph, naturally, type Part, type TypeLookup } from "../build";
import { type Free, freeEnds, isConstant, looseCables, netsOf, sourceOf, whyHere } from "../wiring";
import { assemble } from "./assemble";
import { alike, splittersOf, unitParts, withoutUnusedAccessories } from "./candidates";
import { addDirect } from "./direct";
import { highsEngine } from "./engine";
import { addCost, type Cost, compareCost, LEVELS, type Level, zeroCost } from "./levels";
import { type PieceMemory, remembering } from "./memory";
import { type Engine, Model } from "./model";
import { addNets } from "./nets";
import { isSmall, smallEngine, totalCost } from "./small";
import { accessoryCost, addSupply } from "./supply";
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
  onProgress?: (done: number, of: number, what: string) => void;
}

interface Attempt {
  parts: Part[];
  connections: Connection[];
  cost: Cost;
  proved: boolean;
  provedTo?: Level;
  broken: string[];
  graph: Graph;
  /** Families whose plugs cost something down to the accessories: only they may want a hub or an adapter. */
  troubled: Set<string>;
}

/**
 * Plans where every lead goes. Deterministic: neither the order of parts nor of connections in the file matters.
 * Connections that are fixed, plugged or checked are constants.
 * @throws when a solver fails; the message is one line.
 */
export async function plan(build: Build, types: TypeLookup, options: PlanOptions = {}): Promise<Plan> {
  const start = withoutUnusedAccessories(build);
  const before = buildGraph(build, types);
  const until = performance.now() + (options.deadlineS ?? 60) * 1000;
  let best = await attempt(start, before, types, [], options, until);
  if (!best) throw new Error("The planner found no assignment at all, which cannot be: every lead may stay free.");
  // Hubs and adapters cost an accessory each, so they cannot improve what is perfect down to that level.
  const units = unitParts(start, types, best.troubled);
  if (units.length > 0) {
    const other = await attempt(start, before, types, units, options, until, best.cost);
    if (other) best = { ...(compareCost(other.cost, best.cost) < 0 ? other : best), proved: best.proved && other.proved };
  }
  return finish(start, best);
}

/** The levels above and with the accessories. */
const ACCESSORY_LEVELS = LEVELS.slice(0, LEVELS.indexOf("fromShelf") + 1);

const lessCost = (a: Cost, b: Cost): Cost => addCost(a, Object.fromEntries(LEVELS.map((l) => [l, -b[l]])));

/** One solve with these units on offer. With `beat`, only answers that use a unit and could be better count. */
async function attempt(
  start: Build,
  before: Graph,
  types: TypeLookup,
  units: Part[],
  options: PlanOptions,
  until: number,
  beat?: Cost,
): Promise<Attempt | undefined> {
  const keep = start.connections;
  const open: Build = { ...start, parts: [...start.parts, ...units] };
  const graph = buildGraph(open, types);
  const model = new Model();
  const used = new Map(
    units
      .map((u) => {
        const node = graph.parts.get(u.id);
        // Adapters are priced where they are used; a hub is priced here.
        return [u.id, node?.type.kind === "adapter" ? -1 : model.variable(`use ${u.id}`, node ? accessoryCost(node) : {})] as const;
      })
      .filter(([, v]) => v >= 0),
  );
  for (const group of alike(
    graph,
    units.filter((u) => used.has(u.id)),
  )) {
    for (let i = 1; i < group.length; i++) {
      const a = used.get(group[i - 1] ?? "");
      const b = used.get(group[i] ?? "");
      if (a !== undefined && b !== undefined)
        model.atMost(
          [
            [b, 1],
            [a, -1],
          ],
          0,
        );
    }
  }
  const groupBefore = new Map<string, string>();
  for (const c of before.connections) {
    if (isConstant(c)) continue;
    const p = before.ports.get(c.port);
    const source = p && sourceOf(before, p, (a) => before.ofLead.get(a));
    if (source && source.kind !== "dangling") groupBefore.set(c.lead, source.kind === "hub" ? source.part.id : source.port.address);
  }
  const cableBefore = new Map<string, string>();
  for (const c of before.connections) {
    const cable = before.parts.get(c.lead.split(":")[0] ?? "")?.cable;
    if (!isConstant(c) && cable) cableBefore.set(c.port, `${cable.owner}/${cable.cable.id}`);
  }
  const constants = keep.filter(isConstant);
  const nets = addNets(
    model,
    graph,
    netsOf(graph, (id) => used.has(id)),
    splittersOf(start, types),
    used,
    (l) => groupBefore.get(l),
  );
  const supply = addSupply(model, graph, used, (p) => cableBefore.get(p));
  const direct = addDirect(model, graph);

  const offered = [...used.values(), ...supply.adapters.filter((a) => units.some((u) => u.id === a.adapter.id)).map((a) => a.variable)];
  const ceiling = beat && mustBeat(model, beat);
  if (beat && offered.length === 0) return undefined;
  if (beat)
    model.atLeast(
      offered.map((v): [number, number] => [v, 1]),
      1,
    );

  const values = new Array<number>(model.names.length).fill(0);
  const pieces = model.pieces();
  const levels = model.levels();
  let proved = supply.complete;
  let provedTo: Level | undefined;
  const familyOf = new Map<number, string>([
    ...nets.choices.map((c): [number, string] => [c.variable, c.consumer.node.lead.family]),
    ...[...nets.free].map(([lead, v]): [number, string] => [v, graph.leads.get(lead)?.lead.family ?? ""]),
    ...[...supply.free].map(([port, v]): [number, string] => [v, graph.ports.get(port)?.port.family ?? ""]),
  ]);
  const troubled = new Set<string>();
  const hasUnit = (piece: { vars: number[] }) => offered.some((v) => piece.vars.includes(v));
  // Pieces that no unit touches come first: what they cost is off the budget of the last.
  pieces.sort((a, b) => Number(hasUnit(a)) - Number(hasUnit(b)));
  let spent = zeroCost();
  for (const [n, piece] of pieces.entries()) {
    options.onProgress?.(n, pieces.length, model.names[piece.vars[0] ?? 0] ?? "");
    const last = beat !== undefined && hasUnit(piece);
    if (ceiling && last) {
      const terms = piece.costs.flatMap((c, i): [number, number][] => (c[ceiling.level] ? [[i, c[ceiling.level] ?? 0]] : []));
      if (terms.length > 0) piece.rows.push({ lower: Number.NEGATIVE_INFINITY, upper: ceiling.most, terms });
    }
    const engine = options.engine ?? (isSmall(piece) ? smallEngine : options.memory ? remembering(highsEngine, options.memory) : highsEngine);
    const mine = levels.filter((l) => piece.costs.some((c) => (c[l] ?? 0) !== 0));
    const solution = await engine.solve(piece, mine, Math.max(1, (until - performance.now()) / 1000), last ? lessCost(beat, spent) : undefined);
    if (!solution) return undefined;
    for (const [i, v] of piece.vars.entries()) values[v] = solution.values[i] ?? 0;
    const cost = totalCost(piece, solution.values);
    spent = addCost(spent, cost);
    if (ACCESSORY_LEVELS.some((l) => (cost[l] ?? 0) > 0)) for (const v of piece.vars) troubled.add(familyOf.get(v) ?? "");
    if (!solution.proved) {
      proved = false;
      provedTo = solution.provedTo;
    }
  }
  options.onProgress?.(pieces.length, pieces.length, "");
  const chosen = (v: number) => values[v] ?? 0;
  const adaptersUsed = supply.adapters.filter((a) => chosen(a.variable) > 0).map((a) => a.adapter.id);
  const usedUnits = new Set([...[...used].filter(([, v]) => chosen(v) > 0).map(([id]) => id), ...adaptersUsed]);
  const made = assemble(graph, units, nets, supply, direct, usedUnits, chosen);
  const connections = [...constants, ...made.connections];
  const finished: Build = { ...start, parts: [...start.parts, ...made.parts], connections };
  const after = buildGraph(finished, types);
  const verdict = verify(after, before);
  return {
    parts: made.parts,
    connections,
    cost: verdict.cost,
    proved,
    ...(provedTo ? { provedTo } : {}),
    broken: verdict.broken,
    graph: after,
    troubled,
  };
}

/**
 * Levels at which the plan to beat is at zero must stay at zero, and the first level that is not may not grow:
 * anything else is worse. Returns that first level.
 */
function mustBeat(model: Model, beat: Cost): { level: Level; most: number } | undefined {
  for (const level of LEVELS) {
    if (level === "canonical") return undefined;
    if (beat[level] > 0) return { level, most: beat[level] };
    for (const [v, c] of model.costs.entries()) if ((c[level] ?? 0) > 0) model.upper[v] = 0;
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

import {
  type Address,
  type Graph,
  isConstant,
  manhattanMm,
  naturally,
  outletOf,
  outletWanted,
  type PartNode,
  type PortNode,
  withConnections,
} from "../../assembly";
import { type Cable, family, type Limit, mate, passesPower, usable } from "../../catalogue";
import {
  adapterIns,
  cableLimitW,
  feedsPorts,
  outletLimitW,
  outletLoads,
  plugLimitW,
  portDrawW,
  railLimitW,
  throughCablesW,
  wantedDrawW,
} from "../../power";
import { partToPortMm, plugToPlugMm } from "../../routes";
import { passedOver } from "../../wiring";
import type { PartCost } from "../cost/cost";
import type { Model } from "./model";
import { powerFreePrice } from "./prices";
import type { Relaxed } from "./relaxed";
import { type Term, term, terms } from "./terms";

/** A power socket of a part that wants a plug. */
export interface PowerConsumer {
  address: Address;
  node: PortNode;
  /** Hubs: by themselves, without what will hang on them. */
  drawW: number;
  /** Hubs: with as much on them as they pass on. */
  mostW: number;
  free: PartCost;
  unit?: string;
  /** A socket of an adapter: what the adapter feeds, near which it hangs. */
  feeds?: PowerConsumer;
}

/** Where a plug for it goes: an adapter hangs at what it feeds. */
const whereOf = (k: PowerConsumer): PortNode => (k.feeds ?? k).node;

/** Cables that are alike: nothing plugged yet, so any of them will do; or one that is partly plugged. */
interface CableClass {
  id: string;
  owner: PartNode;
  cable: Cable;
  instances: PartNode[];
  ends: Cable["ends"];
  limitW: number;
  /** Outlets that its roots still want, by pin-out and kind: those of any supply whose pin-out it has. */
  outlets: string[];
  /** 12 V rails that it hangs on already, for good. */
  rails: string[];
  bagCost: 0 | 1;
  /** Sockets that it feeds for good. */
  held: PortNode[];
}

/** Outlets of a supply that are alike: the same kind, limit and rail. */
interface OutletGroup {
  id: string;
  /** Its pin-out and its kind. */
  outlet: string;
  limitW: number;
  rail: string | undefined;
  open: number;
}

export interface Column {
  class: CableClass;
  ends: { end: string; consumer: PowerConsumer }[];
  /** Groups of outlets that its roots go into. */
  outlets: string[];
  rails: string[];
  drawW: number;
  mostW: number;
  /** What its outlets give together in W, each its share. */
  outletW: number;
  variable: number;
  lengthCm: number;
}
export interface AdapterChoice {
  adapter: PartNode;
  lead: string;
  consumer: PowerConsumer;
  variable: number;
}
export interface SupplyVariables {
  columns: Column[];
  adapters: AdapterChoice[];
  free: Map<Address, number>;
  /** By group of outlets: how many of them nothing is in for good. */
  openOutlets: ReadonlyMap<string, number>;
  consumers: PowerConsumer[];
  /** Every way of plugging was looked at. */
  complete: boolean;
}

/** Beyond so many ways of plugging one kind of cable the search stops, and the plan says that it is not proved. */
const MOST_STEPS = 60_000;

const isPower = (p: PortNode) => p.port.flow === "in" && family(p.port.family).loom === "power";

function classesOf(graph: Graph): { classes: CableClass[]; outlets: OutletGroup[] } {
  const constants = graph.connections.filter(isConstant);
  const constantLeads = new Set(constants.map((c) => c.lead));
  const takenPorts = new Set(constants.map((c) => c.port));
  const groups = new Map<string, OutletGroup>();
  for (const p of graph.ports.values()) {
    if (p.port.family !== "supply-outlet" || p.port.flow !== "out" || takenPorts.has(p.address)) continue;
    const id = outletGroup(p);
    const known = groups.get(id) ?? { id, outlet: outletOf(p), limitW: outletLimitW(p), rail: railOf(p.part, p.port.rail), open: 0 };
    groups.set(id, { ...known, open: known.open + 1 });
  }
  const outlets = [...groups.values()].sort((a, b) => naturally(a.id, b.id));
  const classes = new Map<string, CableClass>();
  for (const node of graph.parts.values()) {
    const at = node.cable;
    const owner = at && graph.parts.get(at.owner);
    if (!at || !owner || family(at.cable.ends[0]?.family ?? "sata-data").loom !== "power") continue;
    const usedEnds = at.cable.ends.filter((e) => constantLeads.has(`${node.id}:${e.id}`));
    const rootsDone = at.cable.outlets.filter((_, n) => constantLeads.has(`${node.id}:root-${n + 1}`)).length;
    const fresh = usedEnds.length === 0 && rootsDone === 0;
    const held = usedEnds.flatMap((e) => graph.ports.get(constants.find((x) => x.lead === `${node.id}:${e.id}`)?.port ?? "") ?? []);
    const usedW = held.reduce((s, p) => s + (feedsPorts(p) ? wantedDrawW(graph, p) : portDrawW(graph, p)), 0);
    // A cable whose plugs are in but whose root is not needs an outlet whatever else happens.
    const wants = at.cable.outlets.map((kind) => outletWanted(node, kind));
    const owes = wants.slice(rootsDone);
    if (!fresh && usedEnds.length > 0) {
      for (const o of owes) {
        const roomy = outlets.filter((g) => g.outlet === o).sort((a, b) => b.open - a.open)[0];
        if (roomy) roomy.open -= 1;
      }
    }
    const roots = at.cable.outlets.flatMap((_, n) => {
      const c = graph.ofLead.get(`${node.id}:root-${n + 1}`);
      return c && isConstant(c) ? (graph.ports.get(c.port) ?? []) : [];
    });
    const outletW = Math.min(...roots.map(outletLimitW)) * Math.max(1, at.cable.outlets.length);
    const id = fresh ? `${owner.id}/${at.cable.id}` : node.id;
    const known = classes.get(id);
    if (known) known.instances.push(node);
    else {
      classes.set(id, {
        id,
        owner,
        cable: at.cable,
        instances: [node],
        ends: at.cable.ends.filter((e) => !usedEnds.includes(e)),
        limitW: Math.min(cableLimitW(at.cable.ends, at.cable.limit), roots.length > 0 ? outletW : Number.POSITIVE_INFINITY) - usedW,
        rails: [...roots.map((r) => railOf(r.part, r.port.rail)), at.captive ? railOf(owner, at.cable.rail) : undefined].filter(
          (r) => r !== undefined,
        ),
        outlets: fresh ? wants : usedEnds.length > 0 ? [] : owes,
        bagCost: at.captive || !fresh ? 0 : 1,
        held,
      });
    }
  }
  return { classes: [...classes.values()].sort((a, b) => naturally(a.id, b.id)), outlets };
}

export const outletGroup = (p: PortNode) => `${p.part.id}|${outletOf(p)}|${p.port.rail ?? ""}|${outletLimitW(p)}`;
const railOf = (supply: PartNode, rail: string | undefined) => (rail === undefined ? undefined : `${supply.id}|${rail}`);

/** Which groups of outlets a cable of this class may use for so many watts: each root carries its share. */
function rootsFor(c: CableClass, outlets: readonly OutletGroup[], drawW: number): OutletGroup[][] {
  let ways: OutletGroup[][] = [[]];
  for (const [n, wanted] of c.outlets.entries()) {
    const fit = outlets.filter((g) => g.outlet === wanted && drawW / c.outlets.length <= g.limitW + 1e-9);
    // Roots of one system may change places: in order only.
    ways = ways.flatMap((w) => fit.filter((g) => c.outlets[n - 1] !== wanted || naturally(w.at(-1)?.id ?? "", g.id) <= 0).map((g) => [...w, g]));
  }
  return ways;
}

/** Sets that one cable of a class can feed, each with the way of plugging that spans least; exhaustive up to a bound. */
function columnsOf(
  graph: Graph,
  c: CableClass,
  consumers: readonly PowerConsumer[],
  outlets: readonly OutletGroup[],
): { columns: Omit<Column, "variable">[]; complete: boolean } {
  const best = new Map<string, { spanMm: number; ends: Column["ends"] }>();
  const fits = c.ends.map((e) => consumers.filter((k) => feeds(e, k) && partToPortMm(graph, c.owner, whereOf(k)) <= e.atMm + k.node.port.tailMm));
  const apart = new Map<PortNode, Map<PortNode, number>>();
  const apartMm = (a: PortNode, b: PortNode): number => {
    const from = apart.get(a) ?? new Map<PortNode, number>();
    apart.set(a, from);
    const mm = from.get(b) ?? plugToPlugMm(graph, a, b);
    from.set(b, mm);
    return mm;
  };
  /** Sockets are further apart than the cable between two plugs for them. */
  const tooFar = (a: PowerConsumer, b: PowerConsumer, hasMm: number) =>
    apartMm(whereOf(a), whereOf(b)) > hasMm + a.node.port.tailMm + b.node.port.tailMm;
  const walk = (n: number, chosen: Column["ends"], watts: number, spanMm: number, plugged: readonly { atMm: number; k: PowerConsumer }[]): void => {
    if (++steps > MOST_STEPS) return;
    if (n === c.ends.length) {
      if (chosen.length === 0) return;
      const key = chosen
        .map((e) => e.consumer.address)
        .sort()
        .join(" ");
      const known = best.get(key);
      if (!known || spanMm < known.spanMm) best.set(key, { spanMm, ends: chosen });
      return;
    }
    const end = c.ends[n];
    if (!end) return;
    for (const k of fits[n] ?? []) {
      if (watts + k.drawW > c.limitW + 1e-9 || chosen.some((x) => x.consumer === k)) continue;
      // Two plugs are never further apart than the cable between them, whatever is plugged in between.
      if (plugged.some((o) => tooFar(o.k, k, end.atMm - o.atMm))) continue;
      const last = plugged.at(-1)?.k;
      const stepMm = manhattanMm(last ? whereOf(last).at : c.owner.origin, whereOf(k).at);
      walk(n + 1, [...chosen, { end: end.id, consumer: k }], watts + k.drawW, spanMm + stepMm, [...plugged, { atMm: end.atMm, k }]);
    }
    walk(n + 1, chosen, watts, spanMm, plugged);
  };
  /** Cut short, the search must still reach everybody: from each socket on, as many neighbours as the cable feeds. */
  const greedy = (from: number): void => {
    const ends: Column["ends"] = [];
    let watts = 0;
    let next = from;
    for (const [n, end] of c.ends.entries()) {
      const k = consumers.slice(next).find((x) => fits[n]?.includes(x) && watts + x.drawW <= c.limitW + 1e-9);
      const last = ends.at(-1)?.consumer;
      if (!k || (last && tooFar(last, k, end.atMm - (c.ends[n - 1]?.atMm ?? 0)))) continue;
      ends.push({ end: end.id, consumer: k });
      watts += k.drawW;
      next = consumers.indexOf(k) + 1;
    }
    const key = ends
      .map((e) => e.consumer.address)
      .sort()
      .join(" ");
    if (ends.length > 0 && !best.has(key)) best.set(key, { spanMm: 0, ends });
  };
  let steps = 0;
  walk(0, [], 0, 0, []);
  if (steps > MOST_STEPS) for (const [i] of consumers.entries()) greedy(i);
  const lengthCm = c.bagCost === 0 ? 0 : Math.round(Math.max(...c.cable.ends.map((e) => e.atMm)) / 10);
  const columns = [...best.values()].flatMap((b) => {
    const drawW = b.ends.reduce((s, e) => s + e.consumer.drawW, 0);
    const mostW = b.ends.reduce((s, e) => s + e.consumer.mostW, 0);
    return rootsFor(c, outlets, drawW).map((roots) => ({
      class: c,
      ends: b.ends,
      outlets: roots.map((g) => g.id),
      rails: [...c.rails, ...roots.flatMap((g) => g.rail ?? [])],
      drawW,
      mostW,
      outletW: roots.length > 0 ? Math.min(...roots.map((g) => g.limitW)) * roots.length : Number.POSITIVE_INFINITY,
      lengthCm,
    }));
  });
  return { columns, complete: steps <= MOST_STEPS };
}

/** The cable type that fed a socket in the last plan, for "smallest change". */
export type PreviousCable = (port: Address) => string | undefined;

/** Adds the supply's side: which cables leave the bag and which sockets each feeds. */
export function addSupply(model: Model, graph: Graph, used: ReadonlyMap<string, number>, previous: PreviousCable, loose?: Relaxed): SupplyVariables {
  const taken = new Set(graph.connections.filter(isConstant).map((c) => c.port));
  const { classes, outlets } = classesOf(graph);
  const adapters = [...graph.parts.values()]
    .filter((p) => passesPower(p.type) && p.type.leads.some((l) => l.flow === "out" && family(l.family).loom === "power"))
    .sort((a, b) => naturally(a.id, b.id));
  const consumers: PowerConsumer[] = [...graph.ports.values()]
    .filter((p) => isPower(p) && !taken.has(p.address) && !passesPower(p.part.type))
    .sort((a, b) => naturally(a.address, b.address))
    .map((node) => ({
      address: node.address,
      node,
      drawW: wantedDrawW(graph, node),
      mostW: mostDrawW(graph, node),
      free: powerFreePrice(graph, node),
      ...(used.has(node.part.id) ? { unit: node.part.id } : {}),
    }));

  const out: SupplyVariables = {
    columns: [],
    adapters: [],
    free: new Map(),
    openOutlets: new Map(outlets.map((g) => [g.id, Math.max(0, g.open)])),
    consumers,
    complete: true,
  };
  const reached = (k: PowerConsumer) =>
    classes.some((c) => c.ends.some((e) => feeds(e, k) && partToPortMm(graph, c.owner, k.node) <= e.atMm + k.node.port.tailMm));
  const adapterPorts: (PowerConsumer & { feeds: PowerConsumer })[] = [];
  for (const a of adapters) {
    const lead = a.type.leads.find((l) => l.flow === "out");
    if (!lead || graph.ofLead.get(`${a.id}:${lead.id}`)) continue;
    const ins = adapterIns(a);
    // An extension is for what no cable reaches by itself.
    const extend = ins.every((p) => usable(mate(lead.family, p.family)));
    const targets = consumers.filter((k) => feeds({ family: lead.family, limit: lead.limit ?? {} }, k) && !(extend && reached(k)));
    for (const k of targets) {
      out.adapters.push({
        adapter: a,
        lead: lead.id,
        consumer: k,
        variable: model.variable(`${a.id}=>${k.address}`, { ...accessoryCost(a), functionsReduced: isHalf(lead.family, k) ? 1 : 0 }),
      });
      // Its sockets carry what its plug feeds, and hang there.
      for (const p of ins) {
        const node = graph.ports.get(`${a.id}:${p.id}`);
        const drawW = k.mostW / ins.length;
        if (node && !taken.has(node.address))
          adapterPorts.push({ address: `${node.address}@${k.address}`, node, drawW, mostW: drawW, feeds: k, free: {} });
      }
    }
  }

  for (const c of classes) {
    const made = columnsOf(graph, c, [...consumers, ...adapterPorts], outlets);
    out.complete &&= made.complete;
    for (const [n, column] of made.columns.entries()) {
      const changes = column.ends.filter((e) => {
        const before = previous(e.consumer.address);
        return before !== undefined && before !== `${c.owner.id}/${c.cable.id}`;
      }).length;
      const cost: PartCost = {
        fromBag: c.bagCost,
        lengthCm: column.lengthCm,
        changes,
        outOfOrder: passedOver(
          graph,
          [...c.held, ...column.ends.map((e) => e.consumer.node)].map((p) => p.part),
        ),
        functionsReduced: column.ends.filter((e) => isHalf(c.cable.ends.find((x) => x.id === e.end)?.family, e.consumer)).length,
        canonical: n,
        cardCables: cardCables(
          graph,
          c,
          column.ends.map((e) => e.consumer.node),
        ),
      };
      out.columns.push({
        ...column,
        variable: model.variable(`${c.id}#${column.ends.map((e) => `${e.end}>${e.consumer.address}`).join()}@${column.outlets.join()}`, cost),
      });
    }
    const mine = out.columns.filter((x) => x.class === c);
    if (mine.length === 0) continue;
    const more = loose && c.bagCost === 1 ? [moreOf(c, loose, model)] : [];
    model.atMost([...terms(mine.map((x) => x.variable)), ...terms(more, -1)], c.instances.length);
  }
  const feeding = new Map<Address, Term[]>();
  for (const x of out.columns) for (const e of x.ends) push(feeding, e.consumer.address, x.variable);
  for (const k of consumers) {
    const fed: Term[] = [...(feeding.get(k.address) ?? []), ...terms(out.adapters.filter((a) => a.consumer === k).map((a) => a.variable))];
    const unit = k.unit === undefined ? undefined : used.get(k.unit);
    if (unit !== undefined) {
      if (fed.length === 0) model.exactly([term(unit)], 0);
      else model.exactly([...fed, term(unit, -1)], 0);
      continue;
    }
    const longer = loose && fed.length === 0 ? lengthen(k, classes, graph, loose, model) : undefined;
    if (longer !== undefined) fed.push(term(longer));
    const free = model.variable(`${k.address}<free`, { ...k.free, changes: previous(k.address) === undefined ? 0 : 1 }, 1, true);
    out.free.set(k.address, free);
    model.exactly([...fed, term(free)], 1);
  }
  for (const p of adapterPorts) {
    const on = out.adapters.filter((a) => a.adapter.id === p.node.part.id && a.consumer === p.feeds).map((a) => a.variable);
    const fed = feeding.get(p.address) ?? [];
    if (fed.length > 0) model.exactly([...fed, ...terms(on, -1)], 0);
    else for (const v of on) model.exactly([term(v)], 0);
  }
  for (const a of adapters) {
    const on = out.adapters.filter((x) => x.adapter === a).map((x) => x.variable);
    if (on.length > 1) model.atMost(terms(on), 1);
  }
  for (const g of outlets) {
    const roots = out.columns.flatMap((x): Term[] => {
      const n = x.outlets.filter((o) => o === g.id).length;
      return n > 0 ? [term(x.variable, n)] : [];
    });
    if (roots.length > 0) model.atMost(roots, Math.max(0, g.open));
  }
  limitRails(model, graph, out);
  return out;
}

/** What each 12 V rail gives, less what hangs on it for good. Whole tenths of a watt. */
function limitRails(model: Model, graph: Graph, out: SupplyVariables): void {
  const rails = new Set(out.columns.flatMap((x) => x.rails));
  if (rails.size === 0) return;
  const held = withConnections(graph, graph.connections.filter(isConstant));
  const kept = new Map(outletLoads(held).rails.map((r) => [`${r.supply.id}|${r.rail}`, r.watts]));
  for (const rail of rails) {
    const [supply, name] = rail.split("|");
    const node = graph.parts.get(supply ?? "");
    const limitW = node ? railLimitW(node, name ?? "") - (kept.get(rail) ?? 0) : 0;
    if (!Number.isFinite(limitW)) continue;
    // Hubs count with as much on them as they pass on: which rail they hang on and what hangs on them is not known together.
    const loads = out.columns.flatMap((x): Term[] => {
      const on = x.rails.filter((r) => r === rail).length;
      return on > 0 ? [term(x.variable, Math.ceil((x.mostW * 10 * on) / x.rails.length))] : [];
    });
    model.atMost(loads, Math.max(0, Math.floor(limitW * 10)));
  }
}

/** Does a plug fill a part of the contacts only, so that it carries less than the socket is made for? */
const isHalf = (plug: string | undefined, k: PowerConsumer): boolean => plug !== undefined && mate(plug, k.node.port.family).outcome === "loss";

/** Does a plug go into a socket and carry enough for it? */
const feeds = (plug: { family: string; limit: Limit }, k: PowerConsumer): boolean =>
  usable(mate(plug.family, k.node.port.family)) && strongEnough(plug.family, plug.limit, k);

/** May a plug feed a socket? The CPU's draw is shared over its plugs: none of them is too weak, together they may be, and a check says so. */
const strongEnough = (familyId: string, limit: Limit, k: PowerConsumer) =>
  k.node.port.role === "cpu-power" || plugLimitW(familyId, limit) >= k.drawW - 1e-9;

/** Another cable of the same kind, of the same supply. */
const moreOf = (c: CableClass, loose: Relaxed, model: Model) =>
  loose.add(model, `more ${c.id}`, "cable", (n) => ({ kind: "cable", owner: c.owner.id, cable: c.cable.id, count: n }), 4);

/** A socket that no plug reaches, though one fits and carries enough: what is missing. */
function lengthen(k: PowerConsumer, classes: readonly CableClass[], graph: Graph, loose: Relaxed, model: Model): number | undefined {
  const missing = classes.flatMap((c) =>
    c.ends.filter((e) => feeds(e, k) && c.limitW >= k.drawW).map((e) => partToPortMm(graph, c.owner, k.node) - e.atMm - k.node.port.tailMm),
  );
  const mm = Math.ceil(Math.min(...missing));
  if (missing.length === 0 || mm <= 0) return undefined;
  return loose.add(model, `${k.address}<long`, "longer", () => ({ kind: "longer", end: k.address, mm }));
}

function push(map: Map<Address, Term[]>, key: Address, variable: number): void {
  const list = map.get(key);
  if (list) list.push(term(variable));
  else map.set(key, [term(variable)]);
}

/** What a socket draws in W at most: a hub with its limit's worth on it. */
function mostDrawW(graph: Graph, node: PortNode): number {
  const own = wantedDrawW(graph, node);
  if (!feedsPorts(node)) return own;
  const outs = node.part.type.ports.filter((p) => p.flow === "out" && p.fedBy === node.port.id);
  const volts = outs.some((p) => family(p.family).loom === "fans" || p.family === "light-12v") ? 12 : 5;
  const limit = node.port.limit.currentA;
  return limit === undefined ? Math.max(own, plugLimitW(node.port.family, {})) : own + limit * volts;
}

/**
 * Graphics plugs that a technician would not put on this cable: two of one card beyond what the whole card may draw from one
 * cable (any two, where the shop wants one each), and, twice as bad, a second card.
 */
function cardCables(graph: Graph, c: CableClass, sockets: readonly PortNode[]): number {
  const all = [...c.held, ...sockets].filter((p) => p.port.role === "graphics-power" && !passesPower(p.part.type));
  const cards = new Set(all.map((p) => p.part));
  if (cards.size === 0) return 0;
  const limitW = cableLimitW(c.cable.ends, c.cable.limit);
  const one = graph.build.policy.graphicsCables === "one-each";
  const doubled = [...cards].map((card) => (one || throughCablesW(card) > limitW + 1e-9 ? all.filter((p) => p.part === card).length - 1 : 0));
  return doubled.reduce((s, n) => s + n, 0) + 2 * (cards.size - 1);
}

export function accessoryCost(p: PartNode): PartCost {
  if (p.part.from === "client") return {};
  const hub = p.type.kind === "hub" || p.type.kind === "usb-hub" ? { hubsTaken: 1 } : {};
  return { [p.part.from === "shelf" ? "fromShelf" : "toOrder"]: 1, ...hub };
}

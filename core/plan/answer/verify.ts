import {
  type Address,
  type Build,
  buildGraph,
  type Connection,
  type Graph,
  manhattanMm,
  type PartNode,
  type PortNode,
  runCostCm,
  runLengthMm,
  type TypeLookup,
} from "../../assembly";
import { family, headerLimit, mate, usable } from "../../catalogue";
import { cableLimitW, outletLimitW, outletLoads, plugLimitW, portDrawW, railLimitW } from "../../power";
import { boardEnd, type Consumer, consumerOf, isConstant, milli, type Root, type Source, sourceOf } from "../../wiring";
import { addCost, type Cost, zeroCost } from "../cost";
import { directCost } from "../model/direct";
import { freeCost, netCost, rootReports } from "../model/fans-lights-usb";
import { powerFreeCost } from "../model/supply";
import { isThrough } from "../model/through";

/**
 * Judges a finished plan from its connections alone: which hard rules it breaks and what it costs.
 * It shares no code with the model's rows, so that it can hold the solver to account.
 */
export interface Verdict {
  broken: string[];
  cost: Cost;
}

interface Hung {
  consumer: Consumer;
  connection: Connection;
  source: Exclude<Source, { kind: "dangling" }>;
  group: string;
}

/**
 * `before`: the build as it was before planning, whose planned connections count as the last plan. `given`: what it is planned
 * with; every other part of the plan is an accessory that it takes, also where the last plan took the same.
 */
export function verify(graph: Graph, before: Graph, given: Build = before.build): Verdict {
  const broken: string[] = [];
  let cost = zeroCost();
  const hung = hangings(graph, broken);
  const ids = new Set(given.parts.map((p) => p.id));
  const isNew = (id: string) => !ids.has(id);
  placesAndMating(graph, broken);
  netLimits(graph, hung, broken);
  cost = addCost(cost, netCosts(graph, before, hung, isNew, broken));
  cost = addCost(cost, supplySide(graph, before, isNew, broken));
  cost = addCost(cost, directSide(graph, before, broken));
  for (const p of graph.build.parts) {
    if (!isNew(p.id)) continue;
    cost = addCost(cost, p.from === "shelf" ? { fromShelf: 1 } : p.from === "order" ? { toOrder: 1 } : {});
  }
  return { broken, cost };
}

/**
 * What a wiring costs with everything in it counted: to the planner, what is held and the accessories under it cost nothing,
 * for nothing else is left there. Two plans are compared by this, whatever was held when each was made.
 */
export function wholeCost(made: Build, types: TypeLookup): Cost {
  const graph = buildGraph({ ...made, connections: made.connections.map((c) => ({ ...c, state: "planned" })) }, types);
  return verify(graph, graph, { ...made, parts: made.parts.filter((p) => p.from === "client") }).cost;
}

const isNet = (f: string) => ["fan-4", "fan-3", "light-5v", "light-12v", "light-maker", "usb2"].includes(f);

function hangings(graph: Graph, broken: string[]): Hung[] {
  return graph.connections.flatMap((connection): Hung[] => {
    const l = graph.leads.get(connection.lead);
    const p = graph.ports.get(connection.port);
    if (!l || !p || !isNet(l.lead.family) || l.lead.flow !== "in") return [];
    const source = sourceOf(graph, p, (a) => graph.ofLead.get(a));
    if (source.kind === "dangling") {
      if (!isConstant(connection)) broken.push(`${l.address} hangs on ${source.lead}, which is plugged into nothing`);
      return [];
    }
    return [{ consumer: consumerOf(graph, l), connection, source, group: source.kind === "hub" ? source.part.id : source.port.address }];
  });
}

function placesAndMating(graph: Graph, broken: string[]): void {
  const taken = new Set<string>();
  for (const c of graph.connections) {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p) {
      broken.push(`${c.lead} to ${c.port}: no such end`);
      continue;
    }
    if (!isConstant(c) && !usable(mate(l.lead.family, p.port.family, l.lead.key, p.port.key))) broken.push(`${c.lead} does not mate with ${c.port}`);
    const spots = l.lead.family === "panel-block" ? Array.from({ length: 10 }, (_, i) => i + 1) : (c.place ?? [0]);
    for (const s of spots) {
      const key = `${c.port}#${s}`;
      if (taken.has(key)) broken.push(`${key} holds two plugs`);
      taken.add(key);
    }
  }
  for (const p of graph.ports.values()) {
    if (!graph.atPort.get(p.address)?.length) continue;
    for (const d of p.port.displaces) {
      if (graph.atPort.get(`${p.part.id}:${d}`)?.some((c) => !isConstant(c))) broken.push(`${p.address} switches ${d} off, which is in use`);
    }
  }
}

function netLimits(graph: Graph, hung: readonly Hung[], broken: string[]): void {
  const groups = new Map<string, Hung[]>();
  for (const h of hung) groups.set(h.group, [...(groups.get(h.group) ?? []), h]);
  const total = (list: readonly Hung[], of: (c: Consumer) => number) => list.reduce((s, h) => s + of(h.consumer), 0);
  const onlyConstants = (list: readonly Hung[]) => list.every((h) => isConstant(h.connection));
  for (const [id, list] of groups) {
    const source = list[0]?.source;
    if (!source || onlyConstants(list)) continue;
    const feed = source.kind === "hub" ? source.part.type.ports.find((q) => q.id === source.port.port.fedBy)?.limit : headerLimit(source.port.port);
    if (total(list, (c) => c.mA) > milli(feed?.currentA)) broken.push(`${id} carries more than its current`);
    if (total(list, (c) => c.startMA) > milli(feed?.startCurrentA)) broken.push(`${id} carries more than its starting current`);
    if (source.kind === "header" && total(list, (c) => c.leds) > (feed?.leds ?? Number.POSITIVE_INFINITY)) broken.push(`${id} carries too many LEDs`);
    if (source.kind !== "hub") continue;
    const byPort = new Map<string, Hung[]>();
    for (const h of list) byPort.set(h.source.port.address, [...(byPort.get(h.source.port.address) ?? []), h]);
    for (const [port, on] of byPort) {
      const own = on[0]?.source.port.port.limit;
      if (total(on, (c) => c.mA) > milli(own?.currentA)) broken.push(`${port} carries more than its current`);
      if (total(on, (c) => c.leds) > (own?.leds ?? Number.POSITIVE_INFINITY)) broken.push(`${port} carries too many LEDs`);
    }
    if (
      feed !== undefined &&
      !graph.atPort.get(`${source.part.id}:${source.port.port.fedBy}`)?.length &&
      list.some((h) => !isConstant(h.connection)) &&
      source.part.part.from !== "client"
    ) {
      broken.push(`${id} has no power`);
    }
  }
}

function netCosts(graph: Graph, before: Graph, hung: readonly Hung[], isNew: (id: string) => boolean, broken: string[]): Cost {
  let cost = zeroCost();
  const of = new Map(hung.map((h) => [h.connection.lead, h]));
  const wasOn = new Map<Address, string>();
  for (const h of hangings(before, [])) if (!isConstant(h.connection)) wasOn.set(h.connection.lead, h.group);
  const zones = new Map<string, { groups: Set<string>; open: boolean; reporters: number; seen: boolean }>();
  const caseFans = new Map<string, { all: number; open: boolean }>();
  for (const node of graph.leads.values()) {
    if (!isNet(node.lead.family) || node.lead.flow !== "in") continue;
    const consumer = consumerOf(graph, node);
    const h = of.get(node.address);
    const constant = h !== undefined && isConstant(h.connection);
    const zone =
      consumer.zone === undefined ? undefined : (zones.get(consumer.zone) ?? { groups: new Set<string>(), open: false, reporters: 0, seen: false });
    if (zone && consumer.zone !== undefined) {
      zones.set(consumer.zone, zone);
      if (!constant) zone.open = true;
      if (!constant && consumer.reports) zone.reporters++;
      if (h) zone.groups.add(h.group);
      if (h && consumer.reports && (constant || reports(graph, h))) zone.seen = true;
    }
    if (!h) {
      const splitter = node.lead.role === "splitter-in";
      if (graph.ofLead.has(node.address)) {
        // Plugged for good into a splitter that itself hangs on nothing.
        cost = addCost(cost, freeCost(node, consumer.spare));
        continue;
      }
      if (isNew(node.part.id) && !splitter && !node.lead.ownControl) broken.push(`${node.address} is an accessory that hangs on nothing`);
      else cost = addCost(addCost(cost, freeCost(node, consumer.spare)), { changes: wasOn.has(node.address) ? 1 : 0 });
      continue;
    }
    if (h.source.kind === "hub" && h.source.part.id === node.part.id && node.lead.role !== "radiator-fan")
      broken.push(`${node.address} hangs on its own part, ${h.group}`);
    if (node.lead.role === "case-fan") {
      const c = caseFans.get(h.group) ?? { all: 0, open: false };
      caseFans.set(h.group, { all: c.all + 1, open: c.open || !constant });
    }
    if (constant || (isNew(node.part.id) && node.lead.role === "splitter-in")) continue;
    const root = rootLike(h);
    cost = addCost(cost, netCost(graph, node, root));
    const was = wasOn.get(node.address);
    if (was !== undefined && was !== h.group) cost = addCost(cost, { changes: 1 });
    if (node.lead.role === "splitter-in") continue;
    let reachMm = node.lead.lengthMm;
    for (let at = graph.ports.get(h.connection.port); at?.part.type.kind === "extension"; ) {
      const up = at.part.type.leads[0];
      reachMm += up?.lengthMm ?? 0;
      at = up && graph.ports.get(graph.ofLead.get(`${at.part.id}:${up.id}`)?.port ?? "");
    }
    const host = graph.ports.get(h.connection.port);
    const end = throughAbove(graph, host);
    if (runLengthMm(node.origin, end?.at ?? root.sample.at, graph.cutouts, graph.boardRect) > reachMm + (end?.port.tailMm ?? 0))
      broken.push(`${node.address} does not reach ${end?.address ?? h.group}`);
    const most = node.lead.mostInChain;
    if (most !== undefined && chainAbove(graph, host) >= most) broken.push(`${node.address} hangs behind more than ${most - 1}`);
  }
  for (const z of zones.values()) {
    if (!z.open) continue;
    cost = addCost(cost, { extraRoots: Math.max(0, z.groups.size - 1), functionsReduced: z.reporters > 0 && !z.seen ? 1 : 0 });
  }
  for (const header of graph.ports.values()) {
    if (header.port.role === "cpu-fan" && header.port.flow === "out" && !hung.some((h) => h.group === header.address && h.consumer.reports))
      cost = addCost(cost, { mandatoryFree: 1 });
  }
  if (graph.build.policy.caseFans === "own-header") {
    for (const c of caseFans.values()) if (c.open) cost = addCost(cost, { schoolDepartures: Math.max(0, c.all - 1) });
  }
  return cost;
}

/** The port that a port hangs on, by its own lead. */
function above(graph: Graph, p: PortNode | undefined): PortNode | undefined {
  const up = p?.part.type.leads.find((l) => l.id === p.port.fedBy);
  return p && up && graph.ports.get(graph.ofLead.get(`${p.part.id}:${up.id}`)?.port ?? "");
}

/** The nearest through-plug on the way up: what a lead has to reach. */
function throughAbove(graph: Graph, p: PortNode | undefined, depth = 0): PortNode | undefined {
  if (!p || depth > 20) return undefined;
  return isThrough(p) ? p : throughAbove(graph, above(graph, p), depth + 1);
}

/** Through-plugs on the way up. */
function chainAbove(graph: Graph, p: PortNode | undefined, depth = 0): number {
  if (!p || depth > 60) return 0;
  return (isThrough(p) ? 1 : 0) + chainAbove(graph, above(graph, p), depth + 1);
}

/** A hung lead's root in the shape that the cost function wants. */
function rootLike(h: Hung): Root {
  const n = Number.POSITIVE_INFINITY;
  return { id: h.group, group: h.group, ports: [], sample: h.source.port, places: 1, mA: n, startMA: n, leds: n };
}

const reports = (graph: Graph, h: Hung) => rootReports(graph, rootLike(h));

function supplySide(graph: Graph, before: Graph, isNew: (id: string) => boolean, broken: string[]): Cost {
  let cost = zeroCost();
  const feederBefore = new Map(before.connections.filter((c) => !isConstant(c)).map((c) => [c.port, c.lead]));
  const typeOf = (lead: Address | undefined) => {
    const p = lead === undefined ? undefined : (graph.parts.get(lead.split(":")[0] ?? "") ?? before.parts.get(lead.split(":")[0] ?? ""));
    return p?.cable ? `${p.cable.owner}/${p.cable.cable.id}` : undefined;
  };
  for (const p of graph.ports.values()) {
    if (p.port.flow !== "in" || family(p.port.family).loom !== "power") continue;
    const fed = graph.atPort.get(p.address)?.[0];
    const isAdapter = p.part.type.kind === "adapter";
    if (!fed) {
      const inUse = isAdapter && p.part.type.leads.some((l) => graph.ofLead.get(`${p.part.id}:${l.id}`)?.state === "planned");
      if (inUse || (!isAdapter && isNew(p.part.id))) broken.push(`${p.address} has no power`);
      else
        cost = addCost(addCost(cost, powerFreeCost(graph, p)), { changes: !isAdapter && typeOf(feederBefore.get(p.address)) !== undefined ? 1 : 0 });
      continue;
    }
    if (isConstant(fed)) continue;
    const was = typeOf(feederBefore.get(p.address));
    if (was !== undefined && was !== typeOf(fed.lead)) cost = addCost(cost, { changes: 1 });
  }
  const fresh = new Set<PartNode>();
  for (const node of graph.parts.values()) {
    if (!node.cable || family(node.cable.cable.ends[0]?.family ?? "sata-data").loom !== "power") continue;
    const all = node.type.leads.flatMap((l) => graph.ofLead.get(`${node.id}:${l.id}`) ?? []);
    const ends = all.filter((c) => !c.lead.includes(":root-"));
    if (ends.length === 0) continue;
    const newly = ends.filter((c) => !isConstant(c));
    if (newly.length === 0) continue;
    const roots = node.cable.cable.outlets.length;
    if (all.filter((c) => c.lead.includes(":root-")).length < roots) broken.push(`${node.id} is not plugged into the supply`);
    const watts = ends.reduce((s, c) => s + drawOf(graph, c), 0);
    if (watts > cableLimitW(node.cable.cable.ends, node.cable.cable.limit) + 1e-6) broken.push(`${node.id} carries more than its watts`);
    for (const c of newly) {
      const l = graph.leads.get(c.lead);
      if (l && drawOf(graph, c) > plugLimitW(l.lead.family, l.lead.limit ?? {}) + 1e-6) broken.push(`${c.lead} carries more than its plug may`);
    }
    reaches(graph, node, newly, ends, broken);
    fresh.add(node);
    if (!node.cable.captive && all.every((c) => !isConstant(c))) {
      cost = addCost(cost, { fromBag: 1, lengthCm: Math.round(Math.max(...node.cable.cable.ends.map((e) => e.atMm)) / 10) });
    }
    if (graph.build.policy.graphicsCables === "one-each") {
      const cards = new Map<string, number>();
      for (const c of newly) {
        const p = graph.ports.get(c.port);
        if (p?.port.role === "graphics-power") cards.set(p.part.id, (cards.get(p.part.id) ?? 0) + 1);
      }
      for (const k of cards.values()) cost = addCost(cost, { schoolDepartures: k - 1 });
    }
  }
  const loads = outletLoads(graph);
  for (const [port, { watts, cables }] of loads.outlets)
    if (watts > outletLimitW(port) + 1e-6 && cables.some((c) => fresh.has(c))) broken.push(`${port.address} gives less than hangs on it`);
  for (const r of loads.rails)
    if (r.watts > railLimitW(r.supply, r.rail) + 1e-6 && r.cables.some((c) => fresh.has(c)))
      broken.push(`rail ${r.rail} gives less than hangs on it`);
  return cost;
}

/** Every new plug within reach of the supply, and of the plug before it on the same cable. */
function reaches(graph: Graph, node: PartNode, newly: readonly Connection[], ends: readonly Connection[], broken: string[]): void {
  const owner = graph.parts.get(node.cable?.owner ?? "");
  const plugs = (node.cable?.cable.ends ?? []).flatMap((e) => {
    const c = ends.find((x) => x.lead === `${node.id}:${e.id}`);
    const p = c && graph.ports.get(c.port);
    return c && p ? [{ c, p, atMm: e.atMm }] : [];
  });
  for (const [i, plug] of plugs.entries()) {
    if (!newly.includes(plug.c) || !owner) continue;
    if (runLengthMm(owner.origin, plug.p.at, graph.cutouts, graph.boardRect) > plug.atMm + plug.p.port.tailMm)
      broken.push(`${plug.c.lead} does not reach ${plug.c.port}`);
    const before = plugs[i - 1];
    if (
      before &&
      newly.includes(before.c) &&
      manhattanMm(before.p.at, plug.p.at) > plug.atMm - before.atMm + plug.p.port.tailMm + before.p.port.tailMm
    )
      broken.push(`${plug.c.lead} is too near ${before.c.lead} on the cable for where they go`);
  }
}

const drawOf = (graph: Graph, c: Connection) => {
  const p: PortNode | undefined = graph.ports.get(c.port);
  if (!p) return 0;
  if (p.part.type.kind !== "adapter") return portDrawW(graph, p);
  const out = p.part.type.leads.find((l) => l.flow === "out");
  const to = out && graph.ports.get(graph.ofLead.get(`${p.part.id}:${out.id}`)?.port ?? "");
  return to ? portDrawW(graph, to) / p.part.type.ports.filter((q) => q.flow === "in").length : 0;
};

function directSide(graph: Graph, before: Graph, broken: string[]): Cost {
  let cost = zeroCost();
  const wasAt = new Map(before.connections.filter((c) => !isConstant(c)).map((c) => [c.lead, c.port]));
  for (const node of graph.leads.values()) {
    if (isNet(node.lead.family) || node.lead.flow !== "in" || node.lead.role === "cable-root") continue;
    const c = graph.ofLead.get(node.address);
    if (!c) {
      cost = addCost(addCost(cost, freeCost(node, false)), { changes: wasAt.has(node.address) ? 1 : 0 });
      continue;
    }
    const p = graph.ports.get(c.port);
    if (isConstant(c) || !p) continue;
    cost = addCost(cost, directCost(graph, node, p));
    const was = wasAt.get(node.address);
    if (was !== undefined && was !== c.port) cost = addCost(cost, { changes: 1 });
  }
  for (const drive of graph.ports.values()) {
    if (drive.port.family !== "sata-data" || drive.port.flow !== "in") continue;
    const c = graph.atPort.get(drive.address)?.[0];
    if (!c) {
      cost = addCost(cost, {
        [drive.port.need === "optional" ? "optionalFree" : drive.port.need === "mandatory" ? "mandatoryFree" : "wantedFree"]: 1,
      });
      if (boardEnd(before, before.atPort.get(drive.address)?.[0])) cost = addCost(cost, { changes: 1 });
      continue;
    }
    if (isConstant(c)) continue;
    const other = boardEnd(graph, c);
    if (!other) {
      broken.push(`${drive.address} has a cable with a loose end`);
      continue;
    }
    cost = addCost(cost, { lengthCm: runCostCm(drive.at, other.at, graph.cutouts, graph.boardRect) });
    const was = boardEnd(before, before.atPort.get(drive.address)?.[0]);
    if (was && was.address !== other.address) cost = addCost(cost, { changes: 1 });
  }
  return cost;
}

import {
  type Build,
  buildGraph,
  type Connection,
  type Graph,
  isConstant,
  mateOf,
  type PartNode,
  type PortNode,
  type TypeLookup,
  withConnections,
} from "../../assembly";
import { displacedBy, hungByRoot, type Root, rightPins, rootOf, TRAVELS, wayOfLead } from "../../brings";
import { family, headerLimit, loadCurrentA, passesPower, startingCurrentA, usable } from "../../catalogue";
import { cableLimitW, outletLimitW, outletLoads, plugLimitW, portDrawW, railLimitW } from "../../power";
import { leadToPortMm, partToPortMm, plugToPlugMm } from "../../routes";
import { lanesAt, speaks, tooFewLanes } from "../../wiring";
import type { Cost } from "../cost/cost";
import { costOf } from "./cost-of";

/**
 * Judges a finished plan from its connections alone: which hard rules it breaks and what it costs. It shares no row, no price
 * and no path with the planner: what reaches what it asks of `core/brings`, prices are written down again in `cost-of`.
 */
export interface Verdict {
  broken: string[];
  cost: Cost;
}

/**
 * `before`: the build as it was before planning, whose planned connections count as the last plan. `given`: what it is planned
 * with; every other part of the plan is an accessory that it takes, also where the last plan took the same.
 */
export function verify(graph: Graph, before: Graph, given: Build = before.build): Verdict {
  const ids = new Set(given.parts.map((p) => p.id));
  const isNew = (id: string) => !ids.has(id);
  const broken = [
    ...matingAndPlaces(graph),
    ...switchedOffInUse(graph),
    ...rings(graph),
    ...hangsOnNothing(graph),
    ...rootLimits(graph),
    ...pumpsShared(graph),
    ...outletsMeantForOthers(graph),
    ...outOfReach(graph, isNew),
    ...looseAccessories(graph, isNew),
    ...cables(graph),
    ...dataCables(graph),
  ];
  return { broken, cost: costOf(graph, before, isNew) };
}

/**
 * What a wiring costs with everything in it counted: to the planner, what is held and the accessories under it cost nothing,
 * for nothing else is left there. Two plans are compared by this, whatever was held when each was made.
 */
export function wholeCost(made: Build, types: TypeLookup): Cost {
  const graph = buildGraph({ ...made, connections: made.connections.map((c) => ({ ...c, state: "planned" })) }, types);
  return verify(graph, graph, { ...made, parts: made.parts.filter((p) => p.from === "client") }).cost;
}

/** Every connection with both ends; those with an end that does not exist are named by `matingAndPlaces`. */
const ends = (graph: Graph) =>
  graph.connections.flatMap((c) => {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    return l && p ? [{ c, l, p }] : [];
  });

function matingAndPlaces(graph: Graph): string[] {
  const broken: string[] = [];
  const taken = new Set<string>();
  for (const c of graph.connections) {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p) {
      broken.push(`${c.lead} to ${c.port}: no such end`);
      continue;
    }
    const spots = l.lead.family === "panel-block" ? Array.from({ length: 10 }, (_, i) => i + 1) : (c.place ?? [0]);
    for (const s of spots) {
      const key = `${c.port}#${s}`;
      if (taken.has(key)) broken.push(`${key} holds two plugs`);
      taken.add(key);
    }
    if (isConstant(c)) continue;
    if (!usable(mateOf(l, p))) broken.push(`${c.lead} does not mate with ${c.port}`);
    if (!rightPins(l.lead, p.port, c.place)) broken.push(`${c.lead} is on the wrong pins of ${c.port}`);
    if (!speaks(l.lead, p.port)) broken.push(`${c.lead} speaks another protocol than ${c.port}`);
    if (tooFewLanes(l.lead, lanesAt(graph, p)?.lanes)) broken.push(`${c.lead} has too few lanes in ${c.port}`);
  }
  return broken;
}

function switchedOffInUse(graph: Graph): string[] {
  return ends(graph).flatMap(({ l, p, c }) =>
    displacedBy(p.port, l.lead)
      .filter((off) => graph.atPort.get(`${p.part.id}:${off}`)?.some((other) => !isConstant(other) || !isConstant(c)))
      .map((off) => `${p.address} switches ${off} off, which is in use`),
  );
}

function rings(graph: Graph): string[] {
  return ends(graph)
    .filter(({ c, l }) => !isConstant(c) && l.lead.flow === "in")
    .flatMap(({ l }) =>
      TRAVELS.filter((t) => wayOfLead(graph, l.address, t).nowhere?.kind === "ring").map((t) => `${l.address} gets its ${t} from itself`),
    );
}

function hangsOnNothing(graph: Graph): string[] {
  return ends(graph).flatMap(({ c, l, p }) => {
    if (isConstant(c) || l.lead.flow !== "in" || family(l.lead.family).planned !== "net") return [];
    const root = rootOf(graph, p);
    return root.kind === "nothing" && !root.ring ? [`${l.address} hangs on ${root.lead}, which is plugged into nothing`] : [];
  });
}

const milli = (a: number | undefined) => (a === undefined ? Number.POSITIVE_INFINITY : Math.round(a * 1000));

function rootLimits(graph: Graph): string[] {
  const broken: string[] = [];
  const open = (address: string) => {
    const c = graph.ofLead.get(address);
    return c !== undefined && !isConstant(c);
  };
  for (const [id, { root, leads }] of hungByRoot(graph)) {
    const loads = leads.filter((l) => l.lead.family !== "usb2");
    // A splitter that is new puts what hangs on it for good on this root.
    if (!leads.some((l) => open(l.address)) && !graph.connections.some((c) => !isConstant(c) && rootIdAt(graph, c) === id)) continue;
    const feed = root.kind === "hub" ? root.part.type.ports.find((q) => q.id === root.port.port.fedBy)?.limit : headerLimit(root.port.port);
    const sum = (list: readonly (typeof loads)[number][]) => list.reduce((s, l) => s + Math.round(loadCurrentA(l.lead) * 1000), 0);
    const leds = (list: readonly (typeof loads)[number][]) => list.reduce((s, l) => s + (l.lead.load.leds ?? 0), 0);
    const start = loads.reduce((s, l) => s + (l.loom === "fans" ? Math.round(startingCurrentA(l.lead.load) * 1000) : 0), 0);
    if (sum(loads) > milli(feed?.currentA)) broken.push(`${id} carries more than its current`);
    if (start > milli(feed?.startCurrentA)) broken.push(`${id} carries more than its starting current`);
    if (root.kind === "header" && leds(loads) > (feed?.leds ?? Number.POSITIVE_INFINITY)) broken.push(`${id} carries too many LEDs`);
    if (root.kind !== "hub") continue;
    const byPort = new Map<PortNode, typeof loads>();
    for (const l of loads) {
      const at = graph.ports.get(graph.ofLead.get(l.address)?.port ?? "");
      const own = at && rootOf(graph, at);
      if (own?.kind === "hub") byPort.set(own.port, [...(byPort.get(own.port) ?? []), l]);
    }
    for (const [port, list] of byPort) {
      if (sum(list) > milli(port.port.limit.currentA)) broken.push(`${port.address} carries more than its current`);
      if (leds(list) > (port.port.limit.leds ?? Number.POSITIVE_INFINITY)) broken.push(`${port.address} carries too many LEDs`);
    }
  }
  return broken;
}

function rootIdAt(graph: Graph, c: Connection): string | undefined {
  const p = graph.ports.get(c.port);
  const root: Root | undefined = p && rootOf(graph, p);
  return !root || root.kind === "nothing" ? undefined : root.kind === "hub" ? root.part.id : root.port.address;
}

/** A pump shares its header with nothing but the signal of its own cooler, and hangs on no hub but in a place for pumps. */
function pumpsShared(graph: Graph): string[] {
  return ends(graph).flatMap(({ c, l, p }) => {
    if (l.lead.role !== "pump") return [];
    const root = rootOf(graph, p);
    if (root.kind === "nothing") return [];
    if (root.kind === "hub") return isConstant(c) || root.port.port.role === "pump" ? [] : [`${l.address}, a pump, hangs on a hub`];
    const others = (hungByRoot(graph).get(root.port.address)?.leads ?? []).filter(
      (x) => x.address !== l.address && !(x.part.id === l.part.id && x.lead.role === "cooler-speed"),
    );
    const open = others.filter((x) => !isConstant(c) || !isConstant(graph.ofLead.get(x.address) as Connection));
    return open.map((x) => `${l.address}, a pump, shares ${root.port.address} with ${x.address}`);
  });
}

/** Through-plugs for their own kind, and a cooler's outlets for its radiator's fans. */
function outletsMeantForOthers(graph: Graph): string[] {
  return ends(graph).flatMap(({ c, l, p }) => {
    if (isConstant(c) || l.lead.flow !== "in") return [];
    const out: string[] = [];
    if (p.port.ownKindOnly && p.part.type.id !== l.part.type.id) out.push(`${l.address} hangs behind ${p.address}, which takes its own kind only`);
    const root = family(l.lead.family).planned === "net" ? rootOf(graph, p) : undefined;
    if (root?.kind === "hub" && root.part.type.kind === "cooler" && l.lead.role !== "radiator-fan" && l.lead.role !== "splitter-in")
      out.push(`${l.address} hangs on the outlets of a cooler, ${root.part.id}`);
    if (root?.kind === "hub" && root.part.id === l.part.id && l.lead.role !== "radiator-fan") out.push(`${l.address} hangs on its own part`);
    return out;
  });
}

/** The port that the part of a port hangs on by its own lead. */
function above(graph: Graph, p: PortNode): PortNode | undefined {
  const up = p.part.type.leads.find((l) => l.id === p.port.fedBy);
  return up && graph.ports.get(graph.ofLead.get(`${p.part.id}:${up.id}`)?.port ?? "");
}

const isChain = (p: PortNode) => p.part.type.leads.some((l) => l.id === p.port.fedBy && l.role !== "splitter-in");

/** Leads that do not reach: through extensions, to the nearest through-plug above, else to the root. Chains that are too long. */
function outOfReach(graph: Graph, isNew: (id: string) => boolean): string[] {
  return ends(graph).flatMap(({ c, l, p }) => {
    if (isConstant(c) || l.lead.flow !== "in") return [];
    if (family(l.lead.family).planned === "direct") {
      if (l.loom === "seat" || l.lead.family === "m2") return [];
      return leadToPortMm(graph, l, p) > l.lead.lengthMm ? [`${l.address} does not reach ${p.address}`] : [];
    }
    if (family(l.lead.family).planned !== "net" || l.lead.role === "splitter-in" || isNew(l.part.id)) {
      if (family(l.lead.family).planned !== "net" || l.lead.role === "splitter-in") return [];
    }
    let reachMm = l.lead.lengthMm;
    let end: PortNode = p;
    let depth = 0;
    for (let at: PortNode | undefined = p, extending = true; at && depth < 60; depth++) {
      if (isChain(at)) break;
      const up: PortNode | undefined = above(graph, at);
      extending &&= at.part.type.kind === "extension";
      if (extending) reachMm += at.part.type.leads[0]?.lengthMm ?? 0;
      if (!up) break;
      at = up;
      end = up;
    }
    const out: string[] = [];
    const moreMm = isChain(end) ? end.port.tailMm : 0;
    if (leadToPortMm(graph, l, end) > reachMm + moreMm) out.push(`${l.address} does not reach ${end.address}`);
    let links = 0;
    for (let at: PortNode | undefined = p, n = 0; at && n < 60; at = above(graph, at), n++) if (isChain(at)) links++;
    if (l.lead.mostInChain !== undefined && links >= l.lead.mostInChain) out.push(`${l.address} hangs behind more than ${l.lead.mostInChain - 1}`);
    return out;
  });
}

/** Accessories that the plan takes: every lead of them plugged, power where they want it. */
function looseAccessories(graph: Graph, isNew: (id: string) => boolean): string[] {
  const broken: string[] = [];
  for (const l of graph.leads.values())
    if (isNew(l.part.id) && !l.part.cable && l.lead.flow === "in" && !graph.ofLead.has(l.address) && !l.lead.ownControl)
      broken.push(`${l.address} is an accessory that hangs on nothing`);
  for (const p of graph.ports.values()) {
    if (p.port.flow !== "in" || family(p.port.family).loom !== "power" || graph.atPort.get(p.address)?.length) continue;
    const feeding = passesPower(p.part.type) && p.part.type.leads.some((l) => graph.ofLead.get(`${p.part.id}:${l.id}`)?.state === "planned");
    if (feeding || (!passesPower(p.part.type) && isNew(p.part.id))) broken.push(`${p.address} has no power`);
  }
  return broken;
}

/** Cables of the supply: rooted in an outlet of their system, within watts of cable, plug, outlet and rail, and long enough. */
function cables(graph: Graph): string[] {
  const broken: string[] = [];
  const fresh = new Set<PartNode>();
  // What is held is judged by the checks; the planner answers for what it adds.
  const held = withConnections(graph, graph.connections.filter(isConstant));
  const wattsOf = (g: Graph, list: readonly Connection[]) =>
    list.reduce((s, c) => s + (g.ports.has(c.port) ? portDrawW(g, g.ports.get(c.port) as PortNode) : 0), 0);
  for (const node of graph.parts.values()) {
    const bag = node.cable;
    if (!bag || family(bag.cable.ends[0]?.family ?? "sata-data").loom !== "power") continue;
    const all = node.type.leads.flatMap((l) => graph.ofLead.get(`${node.id}:${l.id}`) ?? []);
    const isRoot = (c: Connection) => graph.leads.get(c.lead)?.lead.role === "cable-root";
    const fed = all.filter((c) => !isRoot(c));
    const newly = fed.filter((c) => !isConstant(c));
    if (newly.length === 0) continue;
    fresh.add(node);
    if (all.filter(isRoot).length < bag.cable.outlets.length) broken.push(`${node.id} is not plugged into the supply`);
    const limitW = cableLimitW(bag.cable.ends, bag.cable.limit);
    if (wattsOf(graph, fed) > Math.max(limitW, wattsOf(held, fed.filter(isConstant))) + 1e-6) broken.push(`${node.id} carries more than its watts`);
    for (const c of newly) {
      const l = graph.leads.get(c.lead);
      if (l && wattsOf(graph, [c]) > plugLimitW(l.lead.family, l.lead.limit ?? {}) + 1e-6 && !forcedByCpu(graph, c))
        broken.push(`${c.lead} carries more than its plug may`);
    }
    broken.push(...plugsOutOfReach(graph, node, newly, fed));
  }
  const loads = outletLoads(graph);
  for (const [port, { watts, cables: list }] of loads.outlets)
    if (watts > outletLimitW(port) + 1e-6 && list.some((c) => fresh.has(c))) broken.push(`${port.address} gives less than hangs on it`);
  for (const r of loads.rails)
    if (r.watts > railLimitW(r.supply, r.rail) + 1e-6 && r.cables.some((c) => fresh.has(c)))
      broken.push(`rail ${r.rail} gives less than hangs on it`);
  return broken;
}

/** The CPU draws what it draws through the plugs that there are; too few of them is a finding about the sockets, not about a plug. */
const forcedByCpu = (graph: Graph, c: Connection): boolean => graph.ports.get(c.port)?.port.role === "cpu-power";

/** Every new plug within reach of the supply, and of the plug before it on the same cable. */
function plugsOutOfReach(graph: Graph, node: PartNode, newly: readonly Connection[], fed: readonly Connection[]): string[] {
  const broken: string[] = [];
  const owner = graph.parts.get(node.cable?.owner ?? "");
  const plugs = (node.cable?.cable.ends ?? []).flatMap((e) => {
    const c = fed.find((x) => x.lead === `${node.id}:${e.id}`);
    const p = c && graph.ports.get(c.port);
    return c && p ? [{ c, p, atMm: e.atMm }] : [];
  });
  for (const [i, plug] of plugs.entries()) {
    if (!newly.includes(plug.c) || !owner) continue;
    if (partToPortMm(graph, owner, plug.p) > plug.atMm + plug.p.port.tailMm) broken.push(`${plug.c.lead} does not reach ${plug.c.port}`);
    for (const other of plugs.slice(0, i)) {
      if (!newly.includes(other.c)) continue;
      if (plugToPlugMm(graph, other.p, plug.p) > plug.atMm - other.atMm + plug.p.port.tailMm + other.p.port.tailMm)
        broken.push(`${plug.c.lead} is too near ${other.c.lead} on the cable for where they go`);
    }
  }
  return broken;
}

function dataCables(graph: Graph): string[] {
  return [...graph.ports.values()].flatMap((drive) => {
    if (family(drive.port.family).planned !== "cable" || drive.port.flow !== "in") return [];
    const c = graph.atPort.get(drive.address)?.[0];
    if (!c || isConstant(c)) return [];
    const nowhere = wayOfLead(graph, c.lead, "data").nowhere;
    return nowhere ? [`${drive.address} has a cable that leads nowhere (${nowhere.kind})`] : [];
  });
}

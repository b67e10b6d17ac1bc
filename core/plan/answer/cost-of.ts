import {
  type Address,
  type Connection,
  type Graph,
  isConstant,
  type LeadNode,
  mateOf,
  type PortNode,
  partIdOf,
  withConnections,
  zoneOf,
} from "../../assembly";
import { commander, hungByRoot, rootId, rootOf, wayOfLead } from "../../brings";
import { controlLost, family, passesPower } from "../../catalogue";
import { cableLimitW, throughCablesW } from "../../power";
import { leadToPortCm, portToPortCm } from "../../routes";
import { departs } from "../../schools";
import { boardEnd, bootSlower, lanesAt, lanesLost, needOf, needOfSocket, passedOver, socketOrder, wantsBothCpuPlugs } from "../../wiring";
import { type Cost, departureKey, type Level, zeroCost } from "../cost/cost";

/** What a plan costs, read off its connections. Prices are those of docs/architecture.md, written down apart from the planner's. */
export function costOf(graph: Graph, before: Graph, isNew: (part: string) => boolean): Cost {
  const bill = new Bill();
  const held = withConnections(graph, graph.connections.filter(isConstant));
  fansLightsUsb(bill, graph, held, before, isNew);
  zones(bill, graph, held);
  // What was shared before anything was planned is nobody's choice now.
  const [now, given] = [shared(graph), shared(held)];
  for (const level of ["coolingShared", "splittersBehind", "placesShared"] as const) bill.add(level, now[level] - given[level]);
  sockets(bill, graph, before, isNew);
  straight(bill, graph, before);
  drives(bill, graph, before);
  for (const p of graph.build.parts) {
    if (!isNew(p.id) || p.from === "client") continue;
    bill.add(p.from === "shelf" ? "fromShelf" : "toOrder");
    const kind = graph.parts.get(p.id)?.type.kind;
    bill.add("hubsTaken", kind === "hub" || kind === "usb-hub");
  }
  return bill.cost;
}

class Bill {
  readonly cost = zeroCost();
  add(level: Level, count: number | boolean = 1): void {
    this.cost[level] += Number(count);
  }
}

const isNet = (l: LeadNode) => family(l.lead.family).planned === "net" && l.lead.flow === "in";
const isSplitter = (l: LeadNode) => l.lead.role === "splitter-in";
/** Accessories of the client's that nothing is lost without. */
const isSpare = (l: LeadNode) => isSplitter(l) || (l.part.type.kind === "usb-hub" && l.part.part.from === "client");

/** The level at which a lead that stays free counts: by its need and its purpose. */
function missedLevel(graph: Graph, l: LeadNode): Level {
  if (l.lead.ownControl) return "functionsReduced";
  const need = needOf(graph, l);
  if (need === "mandatory") return "mandatoryFree";
  if (l.part.type.ports.some((p) => p.controlledBy === l.lead.id && family(p.family).loom === "fans")) return "optionalFree";
  if (need === "optional") return "optionalFree";
  if (["cpu-fan", "radiator-fan", "cooler-speed"].includes(l.lead.role)) return "coolingFree";
  return l.loom === "fans" ? "fansFree" : l.loom === "lighting" ? "lightsFree" : "wantedFree";
}

const rootAt = (graph: Graph, lead: Address) => {
  const p = graph.ports.get(graph.ofLead.get(lead)?.port ?? "");
  const root = p && rootOf(graph, p);
  return root && root.kind !== "nothing" ? root : undefined;
};

function fansLightsUsb(bill: Bill, graph: Graph, held: Graph, before: Graph, isNew: (part: string) => boolean): void {
  const departing = new Set<string>();
  for (const l of graph.leads.values()) {
    if (!isNet(l)) continue;
    const c = graph.ofLead.get(l.address);
    const root = rootAt(graph, l.address);
    const was = before.ofLead.get(l.address);
    const wasRoot = was && !isConstant(was) ? rootAt(before, l.address) : undefined;
    if (!root) {
      // Plugged for good into a splitter that itself hangs on nothing counts like a lead that is free.
      if (!isSpare(l)) bill.add(missedLevel(graph, l));
      if (!c && wasRoot) bill.add("changes");
      continue;
    }
    if (!c || isConstant(c) || (isNew(l.part.id) && isSplitter(l))) continue;
    bill.add("functionsReduced", controlLost(l.lead, root.port.port));
    bill.add("functionsReduced", mateOf(l, root.port).outcome === "loss");
    const by = commander(graph, root.port);
    const hub = root.kind === "hub" ? { id: root.part.id, kind: root.part.type.kind } : undefined;
    if (
      by.kind === "nothing" &&
      root.port.port.controlledBy !== undefined &&
      (l.lead.control ?? "none") !== "none" &&
      !controlLost(l.lead, root.port.port)
    )
      bill.add("functionsReduced");
    bill.add("hubsBehind", hub !== undefined && l.part.type.kind === "hub");
    if (departs(graph, l, { header: by.kind === "header" ? by.port : undefined, hub })) departing.add(departureKey(zoneOf(graph, l), l.lead.role));
    if (!isSplitter(l)) bill.add("lengthCm", leadToPortCm(graph, l, root.port));
    if (wasRoot && rootId(wasRoot) !== rootId(root)) bill.add("changes");
  }
  if (graph.build.policy.caseFans === "own-header")
    for (const { root, leads } of hungByRoot(graph).values()) {
      const mine = leads.filter((l) => l.lead.role === "case-fan");
      if (root.kind !== "header" || mine.length < 2) continue;
      for (const l of mine) if (!held.ofLead.has(l.address)) departing.add(departureKey(zoneOf(graph, l), l.lead.role));
    }
  bill.add("schoolDepartures", departing.size);
  lights(bill, graph, held);
}

/** Headers or hubs beyond one for the lights of a place. */
function lights(bill: Bill, graph: Graph, held: Graph): void {
  const places = new Map<string, { roots: Set<string>; open: boolean }>();
  for (const l of graph.leads.values()) {
    if (l.lead.role !== "light" || !isNet(l)) continue;
    const place = places.get(zoneOf(graph, l)) ?? { roots: new Set<string>(), open: false };
    places.set(zoneOf(graph, l), place);
    place.open ||= !rootAt(held, l.address);
    const root = rootAt(graph, l.address);
    if (root) place.roots.add(rootId(root));
  }
  for (const p of places.values()) if (p.open) bill.add("lightsDivided", Math.max(0, p.roots.size - 1));
}

/** Roots beyond one for each zone, zones without a speed signal, and CPU fan headers without one. */
function zones(bill: Bill, graph: Graph, held: Graph): void {
  const zone = new Map<string, { roots: Set<string>; open: LeadNode[]; heard: boolean; radiator: boolean }>();
  const read = new Set<PortNode>();
  for (const l of graph.leads.values()) {
    if (l.lead.reportsSpeed) {
      const way = wayOfLead(graph, l.address, "speed");
      if (way.end?.kind === "header") read.add(way.end.port);
    }
    if (!isNet(l) || l.loom !== "fans" || isSplitter(l) || l.lead.role === "hub-control") continue;
    const z = zone.get(zoneOf(graph, l)) ?? { roots: new Set<string>(), open: [], heard: false, radiator: true };
    zone.set(zoneOf(graph, l), z);
    if (!rootAt(held, l.address)) z.open.push(l);
    z.radiator &&= l.lead.role === "radiator-fan";
    const root = rootAt(graph, l.address);
    if (root) z.roots.add(rootId(root));
    // A cooler watches what hangs on its own outlets.
    if (l.lead.reportsSpeed && root?.kind === "hub" && root.part.type.kind === "cooler") z.heard = true;
    if (l.lead.reportsSpeed && wayOfLead(graph, l.address, "speed").end?.kind === "header") z.heard = true;
  }
  for (const z of zone.values()) {
    if (z.open.length === 0) continue;
    bill.add(z.radiator ? "radiatorDivided" : "extraRoots", Math.max(0, z.roots.size - 1));
    if (z.heard || !z.open.some((l) => l.lead.reportsSpeed)) continue;
    if (!z.open.every((l) => l.lead.role === "case-fan")) bill.add("functionsReduced");
    // With the school "case fans on the hub" the one signal of the hub is what was wanted.
    else if (graph.build.policy.caseFans !== "hub") bill.add("signalsLost");
  }
  for (const p of graph.ports.values()) if (p.port.role === "cpu-fan" && p.port.flow === "out" && !read.has(p)) bill.add("mandatoryFree");
}

/** Places of the case that share their control with what cools the CPU, places that share one, splitters behind splitters. */
function shared(graph: Graph): Record<"coolingShared" | "splittersBehind" | "placesShared", number> {
  const controls = new Map<string, { cools: boolean; places: Set<string> }>();
  let splittersBehind = 0;
  for (const c of graph.connections) {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p || !isNet(l)) continue;
    if (l.part.type.kind === "splitter" && behindSplitter(graph, p)) splittersBehind++;
    const cools = l.lead.role === "cpu-fan" || l.lead.role === "radiator-fan";
    if (!cools && l.lead.role !== "case-fan") continue;
    const by = commander(graph, p);
    if (by.kind === "nothing") continue;
    const id = by.kind === "header" ? by.port.address : by.part.id;
    const known = controls.get(id) ?? { cools: false, places: new Set<string>() };
    controls.set(id, known);
    known.cools ||= cools;
    if (cools) continue;
    known.places.add(zoneOf(graph, l));
  }
  const all = [...controls.values()];
  return {
    coolingShared: all.reduce((s, k) => s + (k.cools ? k.places.size : 0), 0),
    splittersBehind,
    placesShared: all.reduce((s, k) => s + Math.max(0, k.places.size - 1), 0),
  };
}

function behindSplitter(graph: Graph, port: PortNode): boolean {
  let at: PortNode | undefined = port;
  for (let depth = 0; at && depth < 20; depth++) {
    if (at.part.type.kind === "splitter") return true;
    if (at.part.type.kind !== "extension") return false;
    at = graph.ports.get(graph.ofLead.get(`${at.part.id}:${at.port.fedBy ?? ""}`)?.port ?? "");
  }
  return false;
}

/** Power sockets, and the cables that leave the bag for them. */
function sockets(bill: Bill, graph: Graph, before: Graph, isNew: (part: string) => boolean): void {
  const kindOf = (lead: Address | undefined): string | undefined => {
    const part = partIdOf(lead ?? "");
    const bag = (graph.parts.get(part) ?? before.parts.get(part))?.cable;
    return bag && `${bag.owner}/${bag.cable.id}`;
  };
  const wasFed = new Map(before.connections.filter((c) => !isConstant(c)).map((c) => [c.port, kindOf(c.lead)]));
  for (const p of graph.ports.values()) {
    if (p.port.flow !== "in" || family(p.port.family).loom !== "power" || passesPower(p.part.type) || isNew(p.part.id)) continue;
    const fed = graph.atPort.get(p.address)?.[0];
    const was = wasFed.get(p.address);
    if (fed) {
      if (!isConstant(fed)) bill.add("changes", was !== undefined && was !== kindOf(fed.lead));
      continue;
    }
    bill.add("changes", was !== undefined);
    const need = needOfSocket(graph, p);
    if (need === "mandatory") bill.add("mandatoryFree");
    else if (need === "wanted") bill.add("wantedFree");
    else if (p.port.role !== "cpu-power" || wantsBothCpuPlugs(graph)) bill.add("optionalFree");
  }
  for (const c of graph.connections) {
    const [l, p] = [graph.leads.get(c.lead), graph.ports.get(c.port)];
    // Contacts that stay empty carry nothing.
    if (l?.lead.flow === "out" && p && !isConstant(c))
      bill.add("functionsReduced", family(p.port.family).loom === "power" && mateOf(l, p).outcome === "loss");
  }
  for (const node of graph.parts.values()) {
    const bag = node.cable;
    if (!bag || family(bag.cable.ends[0]?.family ?? "sata-data").loom !== "power") continue;
    const all = node.type.leads.flatMap((l) => graph.ofLead.get(`${node.id}:${l.id}`) ?? []);
    const fed = all.filter((c) => graph.leads.get(c.lead)?.lead.role !== "cable-root");
    if (!fed.some((c) => !isConstant(c))) continue;
    if (!bag.captive && all.every((c) => !isConstant(c))) {
      bill.add("fromBag");
      bill.add("lengthCm", Math.round(Math.max(...bag.cable.ends.map((e) => e.atMm)) / 10));
    }
    bill.add(
      "outOfOrder",
      passedOver(
        graph,
        fed.flatMap((c) => graph.ports.get(c.port)?.part ?? []),
      ),
    );
    const plugs = new Map<string, { count: number; wholeW: number }>();
    for (const c of fed) {
      const p = graph.ports.get(c.port);
      if (p?.port.role !== "graphics-power" || passesPower(p.part.type)) continue;
      plugs.set(p.part.id, { count: (plugs.get(p.part.id)?.count ?? 0) + 1, wholeW: throughCablesW(p.part) });
    }
    if (plugs.size === 0) continue;
    bill.add("cardCables", 2 * (plugs.size - 1));
    for (const { count, wholeW } of plugs.values())
      if (graph.build.policy.graphicsCables === "one-each" || wholeW > cableLimitW(bag.cable.ends, bag.cable.limit) + 1e-9)
        bill.add("cardCables", count - 1);
  }
}

/** Front panel, audio, USB 3 and USB-C, M.2 drives, cards, memory, CPU. */
function straight(bill: Bill, graph: Graph, before: Graph): void {
  for (const l of graph.leads.values()) {
    if (family(l.lead.family).planned !== "direct" || l.lead.flow !== "in") continue;
    const c: Connection | undefined = graph.ofLead.get(l.address);
    const p = c && graph.ports.get(c.port);
    const was = before.ofLead.get(l.address);
    const planned = was && !isConstant(was) ? was.port : undefined;
    if (!c || !p) {
      bill.add(missedLevel(graph, l));
      bill.add("changes", planned !== undefined);
      continue;
    }
    if (isConstant(c)) continue;
    bill.add("functionsReduced", mateOf(l, p).outcome === "loss");
    bill.add("functionsReduced", lanesLost(l.lead, lanesAt(graph, p)?.lanes) > 0);
    bill.add("functionsReduced", l.lead.family === "m2" && bootSlower(graph, l, p));
    if (l.loom !== "seat" && l.lead.family !== "m2") bill.add("lengthCm", leadToPortCm(graph, l, p));
    bill.add("changes", planned !== undefined && planned !== c.port);
  }
}

/** Drives on loose data cables. */
function drives(bill: Bill, graph: Graph, before: Graph): void {
  for (const d of graph.ports.values()) {
    if (family(d.port.family).planned !== "cable" || d.port.flow !== "in") continue;
    const c = graph.atPort.get(d.address)?.[0];
    const old = before.atPort.get(d.address)?.[0];
    const was = old && !isConstant(old) ? boardEnd(before, old) : undefined;
    if (!c) {
      const need = needOfSocket(graph, d);
      bill.add(need === "mandatory" ? "mandatoryFree" : need === "wanted" ? "wantedFree" : "optionalFree");
      bill.add("outOfOrder", socketOrder(graph, d.part, undefined));
      bill.add("changes", was !== undefined);
      continue;
    }
    const end = isConstant(c) ? undefined : boardEnd(graph, c);
    if (!end) continue;
    bill.add("lengthCm", portToPortCm(graph, d, end));
    bill.add("outOfOrder", socketOrder(graph, d.part, end));
    bill.add("functionsReduced", d.part.part.inArray === true && end.port.arrayCapable === false);
    bill.add("changes", was !== undefined && was.address !== end.address);
  }
}

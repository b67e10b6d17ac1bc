import { type Address, type Connection, type Graph, type LeadNode, naturally, type PartNode, type PortNode, zoneOf } from "../assembly";
import { family, headerLimit, type Lead, mate, type Port, startingCurrentA, usable } from "../catalogue";

/** Nets share their current: fans, each kind of lights, USB 2. Each is a forest of roots, splitters, chains and hubs. */
const NET_FAMILIES = new Set(["fan-4", "fan-3", "light-5v", "light-12v", "light-maker", "usb2"]);

export const isConstant = (c: Connection) => c.state !== "planned";

/** A lead that wants a place on some root. Currents in mA, so that sums are whole. */
export interface Consumer {
  address: Address;
  node: LeadNode;
  mA: number;
  startMA: number;
  leds: number;
  /** Places of a port it takes: 2 for a USB 2 plug with both ports. */
  weight: number;
  /** Places it opens when plugged: a through-plug, or the ports of a splitter that is a part of the build. */
  opens: number;
  zone?: string;
  /** Gives a speed signal, or (a hub's control lead) passes one on. */
  reports: boolean;
  /** Not a need of its own: an accessory that hangs unused costs nothing. */
  spare: boolean;
  /** Leads that already hang on it for good: a splitter that somebody filled before plugging it. */
  carries: LeadNode[];
}

/** What carries one control signal and one current limit. */
export interface Root {
  id: string;
  /** Roots of one group share a limit and count as one root of a zone: the ports of one hub. */
  group: string;
  ports: Address[];
  sample: PortNode;
  places: number;
  mA: number;
  startMA: number;
  leds: number;
  /** Set on a hub whose part is a candidate from the shelf: it counts only when used. */
  unit?: string;
  /** Lead that must be placed for this root to exist: the input of a USB hub. */
  needsLead?: Address;
}

export interface Group {
  id: string;
  mA: number;
  startMA: number;
}

export const milli = (a: number | undefined) => (a === undefined ? Number.POSITIVE_INFINITY : Math.round(a * 1000));

const isNetLead = (l: LeadNode) => NET_FAMILIES.has(l.lead.family) && l.lead.flow === "in";

/** Ports of the same part that open when this lead is plugged. */
export function opened(part: PartNode, lead: Lead): Port[] {
  return part.type.ports.filter((p) => p.flow === "out" && p.fedBy === lead.id);
}

/** Where a port's current comes from, following what is connected for good. */
export type Source = { kind: "header"; port: PortNode } | { kind: "hub"; part: PartNode; port: PortNode } | { kind: "dangling"; lead: Address };

export function sourceOf(graph: Graph, node: PortNode, connectionOf: (lead: Address) => Connection | undefined, depth = 0): Source {
  const from = node.port.fedBy;
  if (from === undefined) return { kind: "header", port: node };
  if (node.part.type.ports.some((p) => p.id === from)) return { kind: "hub", part: node.part, port: node };
  const leadAddress = `${node.part.id}:${from}`;
  // A USB hub's ports have limits of their own: they are roots that exist once its lead is plugged.
  if (node.port.family === "usb2") return { kind: "header", port: node };
  const c = connectionOf(leadAddress);
  const above = c && graph.ports.get(c.port);
  return above && depth < 20 ? sourceOf(graph, above, connectionOf, depth + 1) : { kind: "dangling", lead: leadAddress };
}

export function consumerOf(graph: Graph, node: LeadNode): Consumer {
  const { lead, part } = node;
  const isLoad = lead.family !== "usb2";
  const opens = lead.family === "usb2" ? 0 : opened(part, lead).length;
  // A splitter gives no signal of its own; what hangs on it does. A hub's control lead passes one on.
  const passes = lead.role !== "splitter-in" && part.type.ports.some((p) => p.speedTo === lead.id);
  const fans = family(lead.family).loom === "fans";
  const spare = lead.role === "splitter-in" || (part.type.kind === "usb-hub" && part.part.from === "client");
  return {
    address: node.address,
    node,
    mA: isLoad ? Math.round(lead.load.currentA * 1000) : 0,
    startMA: fans ? Math.round(startingCurrentA(lead.load) * 1000) : 0,
    leds: lead.load.leds ?? 0,
    weight: lead.family === "usb2" ? (lead.usbPorts ?? 1) : 1,
    opens,
    ...(fans && !spare && lead.role !== "hub-control" ? { zone: zoneOf(graph, node) } : {}),
    reports: (lead.reportsSpeed ?? false) || passes,
    spare,
    carries: [],
  };
}

export interface Nets {
  consumers: Consumer[];
  roots: Root[];
  groups: Map<string, Group>;
  /** What constants already put on each group: for zones, speed signals and chains. */
  placed: { consumer: Consumer; group: string; root: PortNode }[];
}

/** Splits the graph into roots with what is still open on them and the leads that still look for a place. */
export function netsOf(graph: Graph, isCandidate: (partId: string) => boolean): Nets {
  const constants = graph.connections.filter(isConstant);
  const constantOf = new Map(constants.map((c) => [c.lead, c]));
  const connectionOf = (l: Address) => constantOf.get(l);
  const takenPlaces = new Map<Address, number>();
  const groups = new Map<string, Group>();
  const roots = new Map<string, Root>();
  const placed: Nets["placed"] = [];

  for (const c of constants) {
    const l = graph.leads.get(c.lead);
    const weight = l && l.lead.family === "usb2" ? (l.lead.usbPorts ?? 1) : 1;
    takenPlaces.set(c.port, (takenPlaces.get(c.port) ?? 0) + weight);
  }

  const ports = [...graph.ports.values()]
    .filter((p) => p.port.flow === "out" && NET_FAMILIES.has(p.port.family))
    .sort((a, b) => naturally(a.address, b.address));
  for (const p of ports) {
    const source = sourceOf(graph, p, connectionOf);
    if (source.kind === "dangling") continue;
    const top = source.kind === "header" ? source.port : p;
    const group = source.kind === "hub" ? source.part.id : top.address;
    const own = headerLimit(top.port);
    if (!groups.has(group)) {
      const feed = source.kind === "hub" ? source.part.type.ports.find((q) => q.id === p.port.fedBy) : undefined;
      groups.set(
        group,
        source.kind === "hub"
          ? { id: group, mA: milli(feed?.limit.currentA), startMA: milli(feed?.limit.startCurrentA) }
          : { id: group, mA: milli(own.currentA), startMA: milli(own.startCurrentA) },
      );
    }
    const perPort = source.kind === "hub" && (p.port.limit.currentA !== undefined || p.port.limit.leds !== undefined);
    const id = perPort ? p.address : source.kind === "hub" ? `${group}*${p.port.family}` : group;
    const all = p.port.places ?? family(p.port.family).places;
    const open = Math.max(0, all - (takenPlaces.get(p.address) ?? 0));
    const root = roots.get(id) ?? {
      id,
      group,
      ports: [],
      sample: top,
      places: 0,
      mA: perPort ? milli(p.port.limit.currentA) : Number.POSITIVE_INFINITY,
      startMA: Number.POSITIVE_INFINITY,
      leds: perPort || source.kind === "header" ? (own.leds ?? Number.POSITIVE_INFINITY) : Number.POSITIVE_INFINITY,
      ...(source.kind === "hub" && isCandidate(group) ? { unit: group } : {}),
      ...usbNeeds(p, isCandidate, constantOf),
    };
    if (open > 0) {
      root.ports.push(p.address);
      root.places += open;
    }
    roots.set(id, root);
  }

  const consumers: Consumer[] = [];
  const waiting: { under: Address; consumer: Consumer }[] = [];
  for (const l of [...graph.leads.values()].filter(isNetLead).sort((a, b) => naturally(a.address, b.address))) {
    const c = constantOf.get(l.address);
    if (!c) {
      consumers.push(consumerOf(graph, l));
      continue;
    }
    const at = graph.ports.get(c.port);
    if (!at) continue;
    const source = sourceOf(graph, at, connectionOf);
    const consumer = consumerOf(graph, l);
    if (source.kind === "dangling") {
      waiting.push({ under: source.lead, consumer });
      continue;
    }
    const group = source.kind === "hub" ? source.part.id : source.port.address;
    placed.push({ consumer, group, root: source.port });
    const g = groups.get(group);
    if (g) {
      g.mA -= consumer.mA;
      g.startMA -= consumer.startMA;
    }
    const root = source.kind === "hub" ? roots.get(at.address) : roots.get(group);
    if (root) {
      root.mA -= root.id === group ? 0 : consumer.mA;
      root.leds -= consumer.leds;
    }
  }
  for (const w of waiting) {
    const top = consumers.find((c) => c.address === w.under);
    if (top) load(top, w.consumer);
  }
  return { consumers, roots: [...roots.values()].filter((r) => r.places > 0), groups, placed };
}

/** What hangs on an unplugged splitter goes where the splitter goes. */
function load(top: Consumer, c: Consumer): void {
  top.mA += c.mA;
  top.startMA += c.startMA;
  top.leds += c.leds;
  top.opens += c.opens - 1;
  top.reports ||= c.reports;
  top.spare = false;
  if (c.zone !== undefined) top.zone ??= c.zone;
  if (!c.spare) top.carries.push(c.node);
}

function usbNeeds(p: PortNode, isCandidate: (id: string) => boolean, constantOf: Map<Address, Connection>): Partial<Root> {
  const from = p.port.fedBy;
  if (p.port.family !== "usb2" || from === undefined || !p.part.type.leads.some((l) => l.id === from)) return {};
  const address = `${p.part.id}:${from}`;
  if (constantOf.has(address)) return {};
  return { needsLead: address, ...(isCandidate(p.part.id) ? { unit: p.part.id } : {}) };
}

/** May this lead go to this root at all, as far as shape, key and voltage go? */
export function fitsRoot(consumer: Consumer, root: Root): boolean {
  const { lead } = consumer.node;
  if (consumer.node.part.id === root.sample.part.id && lead.role !== "radiator-fan") return false;
  if (root.needsLead !== undefined && consumer.node.part.type.kind === "usb-hub") return false;
  if (consumer.weight > root.places) return false;
  return usable(mate(lead.family, root.sample.port.family, lead.key, root.sample.port.key));
}

import {
  type Address,
  type Connection,
  type Graph,
  isConstant,
  type LeadNode,
  naturally,
  type PartNode,
  type PortNode,
  zoneOf,
} from "../../assembly";
import { type Root, rootId, rootOf } from "../../brings";
import { family, headerLimit, type Lead, loadCurrentA, mate, type Port, startingCurrentA, usable } from "../../catalogue";
import { caseFan, coolsTheCpu } from "../../wiring";

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
  /** What it opens is for parts of its own type only: that type. */
  ownKind?: string;
  zone?: string;
  /** A light's place in the case. */
  lights?: string;
  /** Gives a speed signal of its own, or carries leads that do. */
  reports: boolean;
  /** Not a need of its own: an accessory that hangs unused costs nothing. */
  spare: boolean;
  /** Leads that already hang on it for good: a splitter that somebody filled before plugging it. */
  carries: LeadNode[];
}

/** Places that are open on one root: a header, a hub, or one port of a hub that has a limit of its own. */
export interface OpenRoot {
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
  /** Open through-plugs that take parts of this type only. */
  forKind?: string;
}

/** What shares one limit of current, and where its command and its speed signal go. */
export interface Group {
  id: string;
  /** The port that gives the current: the header, or the hub's own supply. */
  gives: Address;
  mA: number;
  startMA: number;
  /** A hub's leads from which speed and colour commands come; none: a header, or a part that commands by itself. */
  controlLeads: readonly Address[];
  /** The one from which its fans are commanded. */
  fanLead?: Address;
  /** Commands its fans by itself: by a knob while its lead hangs nowhere, or always. */
  itself: boolean;
  /** The lead that carries the speed signal of one of its ports on. */
  speedLead?: Address;
  /** A header that reads a speed signal. */
  reads: boolean;
  part: PartNode;
  header?: PortNode;
}

/** A lead that hangs somewhere for good. */
export interface Placed {
  consumer: Consumer;
  group: string;
  root: PortNode;
}

const milli = (a: number | undefined) => (a === undefined ? Number.POSITIVE_INFINITY : Math.round(a * 1000));

const isNetLead = (l: LeadNode) => family(l.lead.family).planned === "net" && l.lead.flow === "in";

/** Ports of the same part that open when this lead is plugged. */
export function opened(part: PartNode, lead: Lead): Port[] {
  return part.type.ports.filter((p) => p.flow === "out" && p.fedBy === lead.id);
}

export function consumerOf(graph: Graph, node: LeadNode): Consumer {
  const { lead, part } = node;
  const isLoad = lead.family !== "usb2";
  const opens = lead.family === "usb2" ? [] : opened(part, lead);
  const fans = family(lead.family).loom === "fans";
  const spare = lead.role === "splitter-in" || (part.type.kind === "usb-hub" && part.part.from === "client");
  return {
    address: node.address,
    node,
    mA: isLoad ? Math.round(loadCurrentA(lead) * 1000) : 0,
    startMA: fans ? Math.round(startingCurrentA(lead.load) * 1000) : 0,
    leds: lead.load.leds ?? 0,
    weight: lead.family === "usb2" ? (lead.usbPorts ?? 1) : 1,
    opens: opens.length,
    ...(opens.length > 0 && opens.every((p) => p.ownKindOnly) ? { ownKind: part.type.id } : {}),
    ...(fans && !spare && lead.role !== "hub-control" ? { zone: zoneOf(graph, node) } : {}),
    ...(lead.role === "light" ? { lights: zoneOf(graph, node) } : {}),
    reports: lead.reportsSpeed ?? false,
    spare,
    carries: [],
  };
}

export interface Nets {
  consumers: Consumer[];
  roots: OpenRoot[];
  groups: Map<string, Group>;
  /** What constants already put on each group: for zones, speed signals and chains. */
  placed: Placed[];
  /** Open ports that are outlets of a splitter, or hang on one. */
  behindSplitter: ReadonlySet<Address>;
}

/** Splits the graph into roots with what is still open on them and the leads that still look for a place. */
export function netsOf(graph: Graph, isCandidate: (partId: string) => boolean): Nets {
  const constants = graph.connections.filter(isConstant);
  const constantOf = new Map(constants.map((c) => [c.lead, c]));
  const above = (p: PortNode): Root => rootOf(graph, p, (l) => constantOf.get(l));
  const takenPlaces = new Map<Address, number>();
  const groups = new Map<string, Group>();
  const roots = new Map<string, OpenRoot>();
  const placed: Placed[] = [];

  for (const c of constants) {
    const l = graph.leads.get(c.lead);
    const weight = l && l.lead.family === "usb2" ? (l.lead.usbPorts ?? 1) : 1;
    takenPlaces.set(c.port, (takenPlaces.get(c.port) ?? 0) + weight);
  }

  const ports = [...graph.ports.values()]
    .filter((p) => p.port.flow === "out" && family(p.port.family).planned === "net")
    .sort((a, b) => naturally(a.address, b.address));
  for (const p of ports) {
    const source = above(p);
    if (source.kind === "nothing") continue;
    const group = rootId(source);
    if (!groups.has(group)) groups.set(group, groupOf(source));
    // What a splitter of the build opens on a hub counts on the hub's port that it hangs on.
    const top = source.port;
    const own = headerLimit(top.port);
    const perPort = source.kind === "hub" && (top.port.limit.currentA !== undefined || top.port.limit.leds !== undefined);
    const kind = `${p.port.family}${p.port.role === "pump" ? "*pump" : ""}`;
    // A through-plug that takes its own kind only is no place for whatever comes.
    const forKind = p.port.ownKindOnly ? p.part.type.id : undefined;
    const whole = perPort ? top.address : source.kind === "hub" ? `${group}*${kind}` : group;
    const id = forKind === undefined ? whole : `${whole}*${forKind}`;
    const all = p.port.places ?? family(p.port.family).places;
    const open = Math.max(0, all - (takenPlaces.get(p.address) ?? 0));
    const root = roots.get(id) ?? {
      id,
      group,
      ports: [],
      sample: top,
      places: 0,
      mA: perPort ? milli(top.port.limit.currentA) : Number.POSITIVE_INFINITY,
      startMA: Number.POSITIVE_INFINITY,
      leds: perPort || source.kind === "header" ? (own.leds ?? Number.POSITIVE_INFINITY) : Number.POSITIVE_INFINITY,
      ...(source.kind === "hub" && isCandidate(group) ? { unit: group } : {}),
      ...usbNeeds(p, isCandidate, constantOf),
      ...(forKind === undefined ? {} : { forKind }),
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
    const source = above(at);
    const consumer = consumerOf(graph, l);
    if (source.kind === "nothing") {
      waiting.push({ under: source.lead, consumer });
      continue;
    }
    const group = rootId(source);
    placed.push({ consumer, group, root: source.port });
    const g = groups.get(group);
    if (g) {
      g.mA -= consumer.mA;
      g.startMA -= consumer.startMA;
    }
    const root = source.kind === "hub" ? roots.get(source.port.address) : roots.get(group);
    if (root) {
      root.mA -= root.id === group ? 0 : consumer.mA;
      root.leds -= consumer.leds;
    }
  }
  for (const w of waiting) {
    const top = consumers.find((c) => c.address === w.under);
    if (top) load(top, w.consumer);
  }
  const open = [...roots.values()].filter((r) => r.places > 0);
  const behindSplitter = new Set(open.flatMap((r) => r.ports).filter((a) => hangsOnSplitter(graph, a, constantOf)));
  return { consumers, roots: open, groups, placed, behindSplitter };
}

/** Is this port a splitter's outlet, or that of an extension behind one? */
function hangsOnSplitter(graph: Graph, address: Address, constantOf: ReadonlyMap<Address, Connection>): boolean {
  const seen = new Set<Address>();
  for (let p = graph.ports.get(address); p && !seen.has(p.address); ) {
    seen.add(p.address);
    if (p.part.type.kind === "splitter") return true;
    if (p.part.type.kind !== "extension" || p.port.fedBy === undefined) return false;
    p = graph.ports.get(constantOf.get(`${p.part.id}:${p.port.fedBy}`)?.port ?? "");
  }
  return false;
}

function groupOf(source: Exclude<Root, { kind: "nothing" }>): Group {
  const { part } = source.port;
  if (source.kind === "header") {
    const own = headerLimit(source.port.port);
    return {
      id: source.port.address,
      gives: source.port.address,
      mA: milli(own.currentA),
      startMA: milli(own.startCurrentA),
      controlLeads: [],
      itself: false,
      reads: source.port.port.reportsSpeed === true,
      part,
      header: source.port,
    };
  }
  const limit = part.type.ports.find((q) => q.id === source.port.port.fedBy)?.limit;
  const outlets = part.type.ports.filter((q) => q.flow === "out");
  const fans = outlets.filter((q) => family(q.family).loom === "fans");
  const lead = (id: string | undefined) => part.type.leads.find((l) => l.id === id);
  const fan = lead(fans.find((q) => q.controlledBy !== undefined)?.controlledBy);
  const speed = fans.find((q) => q.speedTo !== undefined)?.speedTo;
  return {
    id: part.id,
    gives: `${part.id}:${source.port.port.fedBy}`,
    mA: milli(limit?.currentA),
    startMA: milli(limit?.startCurrentA),
    controlLeads: [...new Set(outlets.flatMap((q) => lead(q.controlledBy)?.id ?? []))].map((id) => `${part.id}:${id}`),
    ...(fan === undefined ? {} : { fanLead: `${part.id}:${fan.id}` }),
    itself: fan ? fan.ownControl !== undefined : fans.some((q) => (q.control ?? "none") !== "none"),
    // A cooler that tells a speed of its own on that lead watches its fans itself.
    ...(speed === undefined || lead(speed)?.reportsSpeed ? {} : { speedLead: `${part.id}:${speed}` }),
    reads: false,
    part,
  };
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

function usbNeeds(p: PortNode, isCandidate: (id: string) => boolean, constantOf: Map<Address, Connection>): Partial<OpenRoot> {
  const from = p.port.fedBy;
  if (p.port.family !== "usb2" || from === undefined || !p.part.type.leads.some((l) => l.id === from)) return {};
  const address = `${p.part.id}:${from}`;
  if (constantOf.has(address)) return {};
  return { needsLead: address, ...(isCandidate(p.part.id) ? { unit: p.part.id } : {}) };
}

/** May this lead go to this root at all: shape, key, voltage, and what a pump, a cooler's own outlets and a USB hub ask for? */
export function fitsRoot(consumer: Consumer, root: OpenRoot): boolean {
  const { lead, part } = consumer.node;
  const host = root.sample.part;
  const own = part.id === host.id;
  if (own && lead.role !== "radiator-fan") return false;
  // A cooler's own outlets take its radiator's fans.
  const carried = consumer.carries.length > 0 ? consumer.carries : [consumer.node];
  if (host.type.kind === "cooler" && !carried.every((l) => l.lead.role === "radiator-fan")) return false;
  // A pump wants current and speed of its own: a header, or a hub's place for pumps.
  if (lead.role === "pump" && root.sample.port.fedBy !== undefined && root.sample.port.role !== "pump") return false;
  if (root.forKind !== undefined && root.forKind !== part.type.id) return false;
  if (root.needsLead !== undefined && part.type.kind === "usb-hub") return false;
  if (consumer.weight > root.places) return false;
  return usable(mate(lead.family, root.sample.port.family, lead.key, root.sample.port.key));
}

/** Leads of a consumer that count: what hangs on a filled splitter, else itself. */
export const leadsOf = (c: Consumer): readonly LeadNode[] => (c.carries.length > 0 ? c.carries : [c.node]);

export const isPump = (c: Consumer): boolean => leadsOf(c).some((l) => l.lead.role === "pump");
/** What blows through the CPU's cooler, or through a radiator. */
export const isCooling = (c: Consumer): boolean => leadsOf(c).some(coolsTheCpu);
export const caseFansOf = (c: Consumer): number => leadsOf(c).filter(caseFan).length;

import type { Graph, LeadNode, PortNode } from "../assembly";
import { mateOf } from "../assembly";
import { closesRing, displacedBy, hungOn, panelPlaces, rootOf, switchedOff, upstream } from "../brings";
import { family, loadCurrentA, startingCurrentA, usable } from "../catalogue";
import { leadToPortMm } from "../routes";
import { lanesAt, speaks, tooFewLanes } from "../wiring";
import type { Hindrance } from "./claim";

/** Ports of the build that a lead's plug goes into and works in, whoever is in them. */
export const fitting = (graph: Graph, l: LeadNode): PortNode[] =>
  [...graph.ports.values()].filter((p) => p.port.flow !== l.lead.flow && p.part.id !== l.part.id && usable(mateOf(l, p)));

/** How far a lead hangs from where it must reach: the port, or what the port's splitters and extensions hang on. */
export function missingMm(graph: Graph, l: LeadNode, p: PortNode): number {
  let more = p.port.tailMm;
  let at = p;
  for (let n = 0; n < 20; n++) {
    const up = at.part.type.leads.find((x) => x.id === at.port.fedBy && x.role === "splitter-in");
    const above = up && graph.ports.get(graph.ofLead.get(`${at.part.id}:${up.id}`)?.port ?? "");
    if (!up || !above) break;
    more += up.lengthMm;
    at = above;
  }
  return Math.ceil(leadToPortMm(graph, l, at) - l.lead.lengthMm - more);
}

/** The first thing that keeps a free lead out of a port that it fits; undefined: nothing does. */
export function hindrance(graph: Graph, l: LeadNode, p: PortNode): Hindrance | undefined {
  const there = graph.atPort.get(p.address) ?? [];
  if (l.lead.family === "panel-loose") {
    const pins = new Set(there.flatMap((c) => c.place ?? [0]));
    const open = panelPlaces(l.lead, p.port).some((place) => place.every((n) => !pins.has(n)) && !pins.has(0));
    return open ? tooShort(graph, l, p) : { kind: "taken", by: there.map((c) => c.lead) };
  }
  const places = p.port.places ?? family(p.port.family).places;
  const taken = there.reduce((s, c) => s + (graph.leads.get(c.lead)?.lead.usbPorts ?? 1), 0);
  if (taken + (l.lead.usbPorts ?? 1) > places || (places === 1 && there.length > 0)) return { kind: "taken", by: there.map((c) => c.lead) };
  const off = switchedOff(graph, p);
  if (off) return { kind: "off", by: off.address };
  if (!speaks(l.lead, p.port)) return { kind: "protocol" };
  const used = displacedBy(p.port, l.lead)
    .map((id) => `${p.part.id}:${id}`)
    .filter((a) => graph.atPort.get(a)?.length);
  if (used.length > 0) return { kind: "switches-off", ports: used };
  const lanes = lanesAt(graph, p)?.lanes;
  if (tooFewLanes(l.lead, lanes)) return { kind: "lanes", lanes: lanes ?? 0 };
  if (p.port.ownKindOnly && p.part.type.id !== l.part.type.id) return { kind: "own-kind" };
  if (family(l.lead.family).planned === "net") {
    const net = onNet(graph, l, p);
    if (net) return net;
  }
  if (l.loom === "seat" || l.lead.family === "m2") return undefined;
  return tooShort(graph, l, p);
}

function tooShort(graph: Graph, l: LeadNode, p: PortNode): Hindrance | undefined {
  const mm = missingMm(graph, l, p);
  return mm > 0 ? { kind: "reach", missingMm: mm } : undefined;
}

function onNet(graph: Graph, l: LeadNode, p: PortNode): Hindrance | undefined {
  const root = rootOf(graph, p);
  if (root.kind === "nothing" && root.ring && !upstream(graph, p).has(l.part)) return { kind: "ring" };
  if (closesRing(graph, l, p)) return { kind: "own-part" };
  if (root.kind === "nothing") return { kind: "dead", lead: root.lead };
  if (root.kind === "hub") {
    if (root.part.id === l.part.id) return { kind: "own-part" };
    if (root.part.type.kind === "cooler" && l.lead.role !== "radiator-fan") return { kind: "cooler" };
    const feed = root.part.type.ports.find((q) => q.id === root.port.port.fedBy);
    if (feed && !graph.atPort.get(`${root.part.id}:${feed.id}`)?.length) return { kind: "dead", lead: `${root.part.id}:${feed.id}` };
  }
  const on = hungOn(graph, p);
  if (!on) return undefined;
  const others = on.leads.filter((x) => x.address !== l.address);
  const ownSignal = (x: LeadNode) => x.part.id === l.part.id && [x, l].some((y) => y.lead.role === "cooler-speed");
  if (root.kind === "header") {
    const pumps = others.filter((x) => x.lead.role === "pump" && !ownSignal(x));
    if (pumps.length > 0) return { kind: "pump", with: pumps.map((x) => x.address) };
    const strangers = others.filter((x) => !ownSignal(x));
    if (l.lead.role === "pump" && strangers.length > 0) return { kind: "pump", with: strangers.map((x) => x.address) };
  } else if (l.lead.role === "pump" && root.port.port.role !== "pump") return { kind: "pump", with: [] };
  const sum = (list: readonly LeadNode[]) => list.reduce((s, x) => s + loadCurrentA(x.lead), 0);
  const start = (list: readonly LeadNode[]) => list.reduce((s, x) => s + (x.loom === "fans" ? startingCurrentA(x.lead.load) : 0), 0);
  const all = [...others, l];
  if (l.lead.family !== "usb2") {
    if (on.limitA !== undefined && sum(all) > on.limitA + 1e-9) return { kind: "over", a: sum(all), ofA: on.limitA };
    const own = root.kind === "hub" ? root.port.port.limit.currentA : undefined;
    const here = others.filter((x) => rootPort(graph, x) === root.port);
    if (own !== undefined && sum([...here, l]) > own + 1e-9) return { kind: "over", a: sum([...here, l]), ofA: own };
    if (on.limitStartA !== undefined && start(all) > on.limitStartA + 1e-9) return { kind: "over-start", a: start(all), ofA: on.limitStartA };
  }
  const leds = all.reduce((s, x) => s + (x.lead.load.leds ?? 0), 0);
  return on.limitLeds !== undefined && leds > on.limitLeds ? { kind: "leds", leds, of: on.limitLeds } : undefined;
}

function rootPort(graph: Graph, l: LeadNode): PortNode | undefined {
  const p = graph.ports.get(graph.ofLead.get(l.address)?.port ?? "");
  const root = p && rootOf(graph, p);
  return root && root.kind !== "nothing" ? root.port : undefined;
}

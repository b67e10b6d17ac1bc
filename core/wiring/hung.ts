import type { Graph, LeadNode, PortNode } from "../assembly";
import { headerLimit } from "../catalogue";
import { sourceOf } from "./net-parts";

/** All that hangs on the same root as a port: for meters, reasons and checks. */
export interface Hung {
  root: PortNode;
  /** Set when the root is a powered hub. */
  hub?: string;
  name: string;
  leads: LeadNode[];
  currentA: number;
  limitA?: number;
  limitStartA?: number;
  leds: number;
  limitLeds?: number;
}

export function hungOn(graph: Graph, at: PortNode): Hung | undefined {
  const connectionOf = (a: string) => graph.ofLead.get(a);
  const source = sourceOf(graph, at, connectionOf);
  if (source.kind === "dangling") return undefined;
  const id = source.kind === "hub" ? source.part.id : source.port.address;
  const leads = graph.connections.flatMap((c): LeadNode[] => {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p || l.lead.flow !== "in" || l.lead.role === "splitter-in") return [];
    const s = sourceOf(graph, p, connectionOf);
    if (s.kind === "dangling") return [];
    return (s.kind === "hub" ? s.part.id : s.port.address) === id ? [l] : [];
  });
  const feed = source.kind === "hub" ? source.part.type.ports.find((q) => q.id === source.port.port.fedBy)?.limit : headerLimit(source.port.port);
  return {
    root: source.port,
    ...(source.kind === "hub" ? { hub: source.part.id } : {}),
    name: source.kind === "hub" ? (source.part.part.label ?? source.part.type.name) : source.port.name,
    leads,
    currentA: leads.reduce((s, l) => s + l.lead.load.currentA, 0),
    ...(feed?.currentA === undefined ? {} : { limitA: feed.currentA }),
    ...(feed?.startCurrentA === undefined ? {} : { limitStartA: feed.startCurrentA }),
    leds: leads.reduce((s, l) => s + (l.lead.load.leds ?? 0), 0),
    ...(feed?.leds === undefined ? {} : { limitLeds: feed.leds }),
  };
}

/**
 * The leads whose speed signal arrives at a header, each with the leads that pass it on. A splitter and a hub pass on
 * the signal of one outlet only (common practice): the one whose `speedTo` names the lead upwards.
 */
export function signallers(graph: Graph, header: PortNode): { lead: LeadNode; through: LeadNode[] }[] {
  return [...graph.leads.values()].flatMap((lead) => {
    if (!lead.lead.reportsSpeed) return [];
    const through: LeadNode[] = [];
    let at = graph.ports.get(graph.ofLead.get(lead.address)?.port ?? "");
    while (at && at !== header) {
      const up = at.port.speedTo === undefined ? undefined : graph.leads.get(`${at.part.id}:${at.port.speedTo}`);
      if (!up || through.includes(up)) return [];
      through.push(up);
      at = graph.ports.get(graph.ofLead.get(up.address)?.port ?? "");
    }
    return at ? [{ lead, through }] : [];
  });
}

/** Would this lead, plugged into this port, feed its own part in a ring: a splitter into one that hangs on it? */
export function closesRing(graph: Graph, lead: LeadNode, port: PortNode): boolean {
  if (lead.lead.flow !== "in") return false;
  let at: PortNode | undefined = port;
  for (let depth = 0; at && depth < 20; depth++) {
    if (at.part === lead.part) return true;
    const up = at.port.fedBy;
    if (up === undefined || !at.part.type.leads.some((l) => l.id === up)) return false;
    at = graph.ports.get(graph.ofLead.get(`${at.part.id}:${up}`)?.port ?? "");
  }
  return at !== undefined;
}

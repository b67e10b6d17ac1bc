import { type Graph, kept, type LeadNode, type PortNode } from "../assembly";
import { headerLimit, loadCurrentA, PART_KINDS } from "../catalogue";
import { type Root, rootId, rootOf } from "./root";
import { type Hop, wayOfLead } from "./way";

/** All that hangs on the same root as a port: for meters, reasons and checks. Currents in A. */
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

/** Every lead that takes current from a root, by root: the loads, and a hub's control lead. Splitters' inputs only pass it on. */
export const hungByRoot = (graph: Graph): ByRoot => kept(graph, "hung-by-root", PART_KINDS, () => gather(graph));

type ByRoot = ReadonlyMap<string, { root: Exclude<Root, { kind: "nothing" }>; leads: LeadNode[] }>;

function gather(graph: Graph): ByRoot {
  const out = new Map<string, { root: Exclude<Root, { kind: "nothing" }>; leads: LeadNode[] }>();
  for (const c of graph.connections) {
    const lead = graph.leads.get(c.lead);
    const port = graph.ports.get(c.port);
    if (!lead || !port || lead.lead.flow !== "in" || lead.lead.role === "splitter-in") continue;
    const root = rootOf(graph, port);
    if (root.kind === "nothing") continue;
    const known = out.get(rootId(root)) ?? { root, leads: [] };
    known.leads.push(lead);
    out.set(rootId(root), known);
  }
  return out;
}

/** What hangs on the root of a port; undefined where the port hangs on nothing. */
export function hungOn(graph: Graph, at: PortNode): Hung | undefined {
  const root = rootOf(graph, at);
  if (root.kind === "nothing") return undefined;
  const leads = hungByRoot(graph).get(rootId(root))?.leads ?? [];
  const feed = root.kind === "hub" ? root.part.type.ports.find((q) => q.id === root.port.port.fedBy)?.limit : headerLimit(root.port.port);
  return {
    root: root.port,
    ...(root.kind === "hub" ? { hub: root.part.id } : {}),
    name: root.kind === "hub" ? (root.part.part.label ?? root.part.type.name) : root.port.name,
    leads,
    currentA: leads.reduce((s, l) => s + loadCurrentA(l.lead), 0),
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
    const way = wayOfLead(graph, lead.address, "speed");
    if (way.end?.kind !== "header" || way.end.port !== header) return [];
    return [{ lead, through: way.through.slice(1).map((h: Hop) => h.lead) }];
  });
}

/** Every lead that is commanded (speed or colour) from a header, through splitters and hubs. */
export function commandedFrom(graph: Graph, header: PortNode): LeadNode[] {
  return [...graph.leads.values()].filter((lead) => {
    if (lead.lead.flow !== "in" || (lead.loom !== "fans" && lead.loom !== "lighting")) return false;
    const way = wayOfLead(graph, lead.address, lead.loom === "fans" ? "control" : "colour");
    return way.end?.kind === "header" && way.end.port === header;
  });
}

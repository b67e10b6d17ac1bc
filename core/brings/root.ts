import type { Address, Graph, LeadNode, PartNode, PortNode } from "../assembly";

/**
 * What limits and commands whatever is in a port: a header of the board, or a hub with current of its own. Through splitters,
 * extensions and through-plugs; `nothing` where one of them is plugged into nothing, or leads back to itself (`ring`).
 */
export type Root =
  | { kind: "header"; port: PortNode }
  | { kind: "hub"; part: PartNode; port: PortNode }
  | { kind: "nothing"; lead: Address; ring: boolean };

/** `connectionOf` says where a lead is; left out: as the graph has it. A USB hub's ports have limits of their own: they are headers here. */
export function rootOf(
  graph: Graph,
  port: PortNode,
  connectionOf: (lead: Address) => { port: Address } | undefined = (l) => graph.ofLead.get(l),
): Root {
  const seen = new Set<Address>();
  let at = port;
  for (;;) {
    const from = at.port.fedBy;
    if (from === undefined) return { kind: "header", port: at };
    if (at.part.type.ports.some((p) => p.id === from)) return { kind: "hub", part: at.part, port: at };
    if (at.port.family === "usb2") return { kind: "header", port: at };
    const lead = `${at.part.id}:${from}`;
    const ring = seen.has(lead);
    const above = ring ? undefined : graph.ports.get(connectionOf(lead)?.port ?? "");
    if (!above) return { kind: "nothing", lead, ring };
    seen.add(lead);
    at = above;
  }
}

/** One name for a root: the hub's part, or the header's address. */
export const rootId = (root: Exclude<Root, { kind: "nothing" }>): string => (root.kind === "hub" ? root.part.id : root.port.address);

/** The parts that a port gets anything from: current, control or colour, through whatever passes it on. Its own part is among them. */
export function upstream(graph: Graph, port: PortNode): Set<PartNode> {
  const parts = new Set<PartNode>();
  const todo = [port];
  const seen = new Set<Address>();
  for (let at = todo.pop(); at; at = todo.pop()) {
    if (seen.has(at.address)) continue;
    seen.add(at.address);
    parts.add(at.part);
    for (const up of [at.port.fedBy, at.port.controlledBy]) {
      if (up === undefined || !at.part.type.leads.some((l) => l.id === up)) continue;
      const above = graph.ports.get(graph.ofLead.get(`${at.part.id}:${up}`)?.port ?? "");
      if (above) todo.push(above);
    }
  }
  return parts;
}

/** Would this lead, plugged into this port, be in a ring: a splitter or a hub into one that hangs on it, or anything into a ring that is there? */
export function closesRing(graph: Graph, lead: LeadNode, port: PortNode): boolean {
  if (lead.lead.flow !== "in") return false;
  const root = rootOf(graph, port);
  if (root.kind === "nothing" && root.ring) return true;
  if (!passesOn(lead)) return false;
  // Where the lead is now does not matter: it would be somewhere else.
  const there = graph.ofLead.get(lead.address);
  const without = there ? { ...graph, ofLead: new Map([...graph.ofLead].filter(([l]) => l !== lead.address)) } : graph;
  return upstream(without, port).has(lead.part);
}

/** Does anything of the part hang on this lead: a splitter's input, a chain's, a hub's control lead? */
export const passesOn = (lead: LeadNode): boolean =>
  lead.part.type.ports.some((p) => p.flow === "out" && (p.fedBy === lead.lead.id || p.controlledBy === lead.lead.id));

/** Where a command for what is in a port begins: a header, the part's own knob or electronics, or nothing. */
export type Commander = { kind: "header"; port: PortNode } | { kind: "own"; part: PartNode } | { kind: "nothing" };

/** Followed through splitters and hubs, whether or not all on the way can follow what it says. */
export function commander(graph: Graph, port: PortNode): Commander {
  const seen = new Set<Address>();
  for (let at: PortNode | undefined = port; at; ) {
    const root = rootOf(graph, at);
    if (root.kind === "nothing") return { kind: "nothing" };
    if (root.kind === "header") return { kind: "header", port: root.port };
    const by = root.port.port.controlledBy;
    if (by === undefined) return (root.port.port.control ?? "none") === "none" ? { kind: "nothing" } : { kind: "own", part: root.part };
    const lead = `${root.part.id}:${by}`;
    const there = graph.ofLead.get(lead);
    if (!there) return root.part.type.leads.some((l) => l.id === by && l.ownControl) ? { kind: "own", part: root.part } : { kind: "nothing" };
    if (seen.has(lead)) return { kind: "nothing" };
    seen.add(lead);
    at = graph.ports.get(there.port);
  }
  return { kind: "nothing" };
}

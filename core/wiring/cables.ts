import { type Graph, naturally, type PartNode } from "../assembly";

/** Cables that come loose in a part's bag: those that the connections take out, and those that stay. In natural order. */
export function looseCables(graph: Graph): { used: PartNode[]; inBag: PartNode[] } {
  const taken = new Set(graph.connections.map((c) => graph.leads.get(c.lead)?.part.id));
  const all = [...graph.parts.values()].filter((p) => p.cable && !p.cable.captive).sort((a, b) => naturally(a.id, b.id));
  return { used: all.filter((p) => taken.has(p.id)), inBag: all.filter((p) => !taken.has(p.id)) };
}

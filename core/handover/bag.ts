import { type Graph, naturally } from "../assembly";

/** What belongs to the client and is not in the machine. */
export interface InBag {
  what: string;
  count: number;
  /** Cables of a supply fit that supply only. */
  onlyFor?: string;
}

/** Cables and accessories that are in no port, with what else was said to be over; alike ones counted together. */
export function bagOf(graph: Graph, over: readonly { what: string; with: string }[] = []): InBag[] {
  const out = new Map<string, InBag>();
  const put = (what: string, onlyFor?: string) => {
    const key = `${what} ${onlyFor ?? ""}`;
    const had = out.get(key);
    out.set(key, { what, count: (had?.count ?? 0) + 1, ...(onlyFor ? { onlyFor } : {}) });
  };
  for (const node of graph.parts.values()) {
    const used = [...node.type.leads.map((l) => `${node.id}:${l.id}`)].some((l) => graph.ofLead.has(l));
    if (node.cable && !node.cable.captive && !used) {
      const owner = graph.parts.get(node.cable.owner);
      put(node.type.name, owner?.type.kind === "supply" ? (owner.part.label ?? owner.type.name) : undefined);
    }
  }
  for (const o of over) put(`${o.what}, of ${o.with}`);
  return [...out.values()].sort((a, b) => naturally(a.what, b.what));
}

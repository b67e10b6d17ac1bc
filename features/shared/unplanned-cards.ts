import { type Graph, partsOfKind } from "../../core/assembly";

/** Cards whose slot nobody has planned: no step puts them in yet. */
export const unplannedCards = (graph: Graph): string[] =>
  partsOfKind(graph, "card").flatMap((c) => (c.type.leads.some((l) => l.role === "seat" && graph.ofLead.has(`${c.id}:${l.id}`)) ? [] : [c.id]));

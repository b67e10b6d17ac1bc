import type { Graph, LeadNode, PortNode } from "../assembly";
import { cableNeeds, leadNeeds } from "../routes";

/** The run of a lead to a port against what the lead has, in mm. */
export interface Run {
  needMm: number;
  hasMm: number;
}

/**
 * The same figure wherever a run is shown. Undefined where it means nothing: a part in its slot, a data cable whose other plug is in nothing, or a splitter, an extension or
 * a through-plug in between, which hang somewhere on the way.
 */
export function runOf(graph: Graph, lead: LeadNode, port: PortNode): Run | undefined {
  if (lead.lead.lengthMm === 0 || lead.loom === "seat" || lead.lead.role === "splitter-in" || lead.lead.role === "cable-root") return undefined;
  if (port.part.type.leads.some((l) => l.id === port.port.fedBy)) return undefined;
  const hasMm = lead.lead.lengthMm + port.port.tailMm;
  if (lead.lead.role === "data" && lead.part.cable) {
    // A data cable has no beginning but its other plug.
    const other = graph.connections.find((c) => c.lead !== lead.address && c.lead.startsWith(`${lead.part.id}:`));
    const from = other && graph.ports.get(other.port);
    return from && { needMm: Math.round(cableNeeds(graph, from, port, hasMm, false).needMm), hasMm };
  }
  return {
    needMm: Math.round(leadNeeds(graph, lead, port, hasMm).needMm),
    hasMm,
  };
}

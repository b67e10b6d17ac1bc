import type { Graph, LeadNode, PortNode } from "../../assembly";
import { leadNeeds, routesOf } from "../../routes";
import { ALWAYS, finding, joints, type Rule } from "../rule";

const hangsAt = (graph: Graph, p: PortNode, depth = 0): { at: PortNode; moreMm: number } => {
  const input = p.part.type.leads.find((l) => l.id === p.port.fedBy && l.role === "splitter-in");
  const up = input && graph.ports.get(graph.ofLead.get(`${p.part.id}:${input.id}`)?.port ?? "");
  // Hands can close a ring; `dangling` says so.
  if (!input || !up || depth > 20) return { at: p, moreMm: p.port.tailMm };
  const above = hangsAt(graph, up, depth + 1);
  return { at: above.at, moreMm: above.moreMm + input.lengthMm };
};

/** Does the lead reach the port it is meant for? Splitters and extensions add their own length. */
export const reach: Rule = {
  id: "reach",
  title: "Every lead reaches its port",
  protects: "the last plug of the day",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.loom === "seat" || lead.lead.lengthMm === 0 || ["cable-root", "splitter-in"].includes(lead.lead.role) || lead.loom === "data")
        return [];
      const end = hangsAt(graph, port);
      const hasMm = lead.lead.lengthMm + end.moreMm;
      const asked = graph.build.ways?.some((w) => w.lead === lead.address) ? routesOf(graph).byLead.get(lead.address)?.needMm : undefined;
      const needMm = asked ?? leadNeeds(graph, lead, end.at, hasMm).needMm;
      if (needMm <= hasMm) return [];
      return [
        finding(
          "reach",
          "warn",
          `${lead.tag} (${lead.name}) is ${Math.ceil(needMm - hasMm)} mm too short for ${port.name}: the run is ${Math.round(needMm)} mm, the lead ${hasMm} mm. Use an extension or a nearer port.`,
          ends(lead, port),
        ),
      ];
    }),
};

const ends = (l: LeadNode, p: PortNode) => [l.address, p.address];

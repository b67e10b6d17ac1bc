import { type Graph, isDone, withConnections } from "../assembly";
import type { Rig, Step } from "./model";

/**
 * The machine as it is plugged for a start on the table: what is in already, and what the plan has for the ports of the rig, with the
 * cables that feed them and the fans that hang there. The switch's plug stands for the bridged pins.
 */
function rigged(graph: Graph, rig: Rig): Graph {
  const ports = new Set(rig.ports);
  const first = graph.connections.filter((c) => {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p) return false;
    if (isDone(c) || ports.has(c.port) || ["cpu-socket", "memory-slot"].includes(l.lead.family)) return true;
    return p.port.role === "panel" && (l.lead.family === "panel-block" || (l.lead.positions ?? []).some((s) => s.startsWith("power switch")));
  });
  const held = new Set(first.flatMap((c) => graph.leads.get(c.lead)?.part.id ?? []));
  const more = graph.connections.filter((c) => {
    if (first.includes(c)) return false;
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p) return false;
    return l.lead.role === "cable-root" ? held.has(l.part.id) : p.part.type.kind === "splitter" && held.has(p.part.id);
  });
  return withConnections(
    graph,
    [...first, ...more].map((c) => ({ ...c, state: "plugged" as const })),
  );
}

/** The machine as a step that starts it finds it: on its rig, everything flat on the table, or as it is plugged. */
export function startedBy(graph: Graph, step: Pick<Step, "id" | "rig">): Graph {
  if (step.rig) return rigged(graph, step.rig);
  if (step.id === "rehearsal")
    return withConnections(
      graph,
      graph.connections.map((c) => ({ ...c, state: "plugged" as const })),
    );
  return graph;
}

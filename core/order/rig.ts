import { buildGraph, type Graph, isDone, withConnections } from "../assembly";
import { PartType } from "../catalogue";
import { powerOn } from "../machine";
import type { Rig, Step } from "./model";

const SPARE = PartType.parse({
  id: "spare-cooler",
  kind: "cooler",
  maker: "",
  name: "Spare cooler",
  ports: [],
  leads: [
    {
      id: "fan",
      label: "fan",
      family: "fan-4",
      flow: "in",
      role: "cpu-fan",
      lengthMm: 300,
      load: { currentA: 0.2 },
      control: "pwm",
      reportsSpeed: true,
    },
  ],
  body: {},
  ratings: {},
});

/**
 * What lies on the table for a start, and nothing else: what is in already, what the plan has for the ports of the rig, with the cables
 * that feed them and what hangs there. The switch's plug stands for the bridged pins.
 */
function rigged(graph: Graph, rig: Rig, parts: readonly string[]): Graph {
  const ports = new Set(rig.ports);
  const onTable = new Set(parts);
  const first = graph.connections.filter((c) => {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p || c.port === rig.spareFan) return false;
    if (isDone(c) || ports.has(c.port) || (l.loom === "seat" && onTable.has(l.part.id))) return true;
    return p.port.role === "panel" && (l.lead.family === "panel-block" || (l.lead.positions ?? []).some((s) => s.startsWith("power switch")));
  });
  const held = new Set(first.flatMap((c) => graph.leads.get(c.lead)?.part.id ?? []));
  const more = graph.connections.filter((c) => {
    if (first.includes(c) || c.port === rig.spareFan) return false;
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p) return false;
    return l.lead.role === "cable-root" ? held.has(l.part.id) : p.part.type.kind === "splitter" && held.has(p.part.id);
  });
  const plugged = [...first, ...more].map((c) => ({ ...c, state: "plugged" as const }));
  const owners = plugged.flatMap((c) => [graph.leads.get(c.lead)?.part, graph.ports.get(c.port)?.part]);
  const there = new Set([...onTable, ...owners.flatMap((p) => (p ? [p.cable?.owner ?? p.id] : []))]);
  const types = new Map([...graph.parts.values()].map((p) => [p.type.id, onlyPanel(p.type)]));
  types.set(SPARE.id, SPARE);
  return buildGraph(
    {
      ...graph.build,
      parts: [
        ...graph.build.parts.filter((p) => there.has(p.id)),
        ...(rig.spareFan ? [{ id: SPARE.id, type: SPARE.id, from: "shelf" as const }] : []),
      ],
      connections: [...plugged, ...(rig.spareFan ? [{ lead: `${SPARE.id}:fan`, port: rig.spareFan, state: "plugged" as const }] : [])],
    },
    (id) => types.get(id),
  );
}

/** Of a case only its switches are at hand: the board's are bridged in their stead. */
const onlyPanel = (t: PartType): PartType => (t.kind === "case" ? { ...t, leads: t.leads.filter((l) => l.role === "panel") } : t);

/** The machine as a step that starts it finds it: on its rig, everything flat on the table, or as it is plugged. */
export function startedBy(graph: Graph, step: Pick<Step, "id" | "rig" | "parts">): Graph {
  if (step.rig) return rigged(graph, step.rig, step.parts);
  if (step.id === "rehearsal")
    return withConnections(
      graph,
      graph.connections.map((c) => ({ ...c, state: "plugged" as const })),
    );
  return graph;
}

/** What a press of the button does at a step that starts the machine apart from its case; undefined at any other. */
export function startWords(graph: Graph, step: Pick<Step, "id" | "rig" | "parts">): string | undefined {
  if (!step.rig && step.id !== "rehearsal") return undefined;
  const { verdict } = powerOn(startedBy(graph, step), undefined, false);
  return verdict.replace("If you press now:", step.rig ? "On the rig:" : "On the table:");
}

import type { Graph, LeadNode } from "../../assembly";
import { family, mate, type Port, usable } from "../../catalogue";
import { needOf } from "../../wiring";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

/** Plugs of which no part of the list, and nothing on offer from the shelf, has a port at all. */
export const portMissing: Rule = {
  id: "port-missing",
  title: "Every plug has a port of its kind somewhere",
  protects: "a front port or a light that stays dead",
  on: PARTS_ONLY,
  rests: { board: ["usb2", "usb3", "usbc", "led5", "led12", "sata", "caseFans"], case: ["frontC", "front3"], lighting: ["volts"] },
  run: ({ graph }) => {
    const ports = everyPort(graph);
    const board = [...graph.parts.values()].find((p) => p.type.kind === "board");
    const without = [...graph.leads.values()].filter(
      (l) => isAsked(l) && needOf(graph, l) !== "optional" && !ports.some((p) => p.flow === "out" && usable(mate(l.lead.family, p.family))),
    );
    return without.map((l) =>
      partsFinding("port-missing", {
        severity: needOf(graph, l) === "mandatory" ? "stop" : "warn",
        message: `${l.name}: no part of the list has a port for it (${family(l.lead.family).name}).`,
        parts: [l.address, ...(board ? [board.id] : [])],
        ifIgnored: "It stays unplugged, and what it is for stays dead.",
        ...(board ? { swap: board.id } : {}),
      }),
    );
  },
};

/** Seats and power have rules of their own. */
const isAsked = (l: LeadNode) =>
  l.lead.flow === "in" &&
  !l.part.cable &&
  ["usb", "audio", "front-panel", "fans", "lighting", "data"].includes(l.loom) &&
  l.lead.role !== "splitter-in";

/** Ports of the parts, and of what the shelf offers beside them. */
function everyPort(graph: Graph): Port[] {
  const offered = new Set(graph.build.accessories.filter((a) => a.count > 0).map((a) => a.type));
  return [
    ...[...graph.parts.values()].flatMap((p) => p.type.ports),
    ...graph.build.partTypes.filter((t) => offered.has(t.id)).flatMap((t) => t.ports),
  ];
}

import type { Graph, LeadNode } from "../../assembly";
import { whyFree } from "../../claims";
import { needOf } from "../../wiring";
import { finding, PLAN_ONLY, type Rule } from "../rule";

/** What stays unconnected, with its reason: never silently. */
export const freeLeads: Rule = {
  id: "free-leads",
  title: "Nothing is left free without a reason",
  protects: "what the client was sold",
  on: PLAN_ONLY,
  rests: { board: ["caseFans", "usb2", "usb3", "usbc", "led5", "led12"], case: ["frontC", "front3"] },
  run: ({ graph }) =>
    [...graph.leads.values()].flatMap((l) => {
      if (l.lead.flow !== "in" || ["cable-root", "splitter-in"].includes(l.lead.role) || graph.ofLead.has(l.address)) return [];
      const severity = ({ mandatory: "stop", wanted: "warn", optional: "note" } as const)[needOf(graph, l)];
      return [
        finding(
          "free-leads",
          severity,
          `${l.tag} (${l.name}) has no port${consequence(graph, l)}. ${whyFree(graph, l)}`,
          [l.address],
          severity === "note" || graph.connections.length > 0 ? undefined : { kind: "plan", label: "Plan the wiring" },
        ),
      ];
    }),
};

/** What it means, beside what it is: what stays dark or still with it. */
function consequence(graph: Graph, l: LeadNode): string {
  const on = behind(graph, l);
  const [fans, lights] = (["fans", "lighting"] as const).map((loom) => on.filter((x) => x.loom === loom && x.lead.role !== "splitter-in").length);
  const said = [
    fans ? (fans === 1 ? "one fan stands still" : `${fans} fans stand still`) : "",
    lights ? (lights === 1 ? "one light stays dark" : `${lights} lights stay dark`) : "",
  ].filter(Boolean);
  // A hub's own lead carries a command: what hangs on the hub has none, which is said of the hub.
  return said.length === 0 || l.part.type.kind === "hub" ? "" : `: ${said.join(", ")}`;
}

/** The lead and all that hang on its part, through others too. */
function behind(graph: Graph, l: LeadNode, depth = 0): LeadNode[] {
  if (depth > 20) return [];
  const on = graph.connections.flatMap((c) => {
    const p = graph.ports.get(c.port);
    const next = p?.part === l.part && p.port.fedBy === l.lead.id ? graph.leads.get(c.lead) : undefined;
    return next ? behind(graph, next, depth + 1) : [];
  });
  return [l, ...on];
}

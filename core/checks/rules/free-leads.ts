import { whyFree } from "../../claims";
import { needOf } from "../../wiring";
import { finding, PLAN_ONLY, type Rule } from "../rule";

/** What stays unconnected, with its reason: never silently. */
export const freeLeads: Rule = {
  id: "free-leads",
  title: "Nothing is left free without a reason",
  protects: "what the client was sold",
  on: PLAN_ONLY,
  run: ({ graph }) =>
    [...graph.leads.values()].flatMap((l) => {
      if (l.lead.flow !== "in" || ["cable-root", "splitter-in"].includes(l.lead.role) || graph.ofLead.has(l.address)) return [];
      const severity = ({ mandatory: "stop", wanted: "warn", optional: "note" } as const)[needOf(graph, l)];
      return [
        finding(
          "free-leads",
          severity,
          `${l.tag} (${l.name}) has no port. ${whyFree(graph, l)}`,
          [l.address],
          severity === "note" || graph.connections.length > 0 ? undefined : { kind: "plan", label: "Plan the wiring" },
        ),
      ];
    }),
};

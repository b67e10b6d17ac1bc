import type { PortNode } from "../../assembly";
import { family } from "../../catalogue";
import { whyEmpty } from "../../claims";
import { finding, isEmpty, PLAN_ONLY, type Rule, type Severity } from "../rule";

const CONSEQUENCE: Partial<Record<PortNode["port"]["role"], string>> = {
  "board-power": "Nothing at all happens on the button",
  "cpu-power": "Fans turn and nothing else happens",
  "graphics-power": "The card gives no picture or asks for power",
  "device-power": "It stays dead",
};

/** Every power socket that must be fed is fed: board, CPU, card, drive, hub, pump. */
export const needsPower: Rule = {
  id: "needs-power",
  title: "Everything that needs power has it",
  protects: "the first start",
  on: PLAN_ONLY,
  run: ({ graph }) =>
    [...graph.ports.values()].flatMap((p) => {
      if (p.port.flow !== "in" || family(p.port.family).loom !== "power" || !isEmpty(graph, p) || p.part.type.kind === "adapter") return [];
      const reason = whyEmpty(graph, p);
      const optional = p.port.need === "optional" || (p.port.role === "cpu-power" && reason.startsWith("Optional"));
      const severity: Severity = optional ? "note" : "stop";
      const hub = p.part.type.kind === "hub" ? "Everything on this hub stays dark or still" : CONSEQUENCE[p.port.role];
      return [
        finding(
          "needs-power",
          severity,
          `${p.name} is empty. ${optional ? "" : `${hub ?? "It stays dead"}. `}${reason}`,
          [p.address],
          optional ? undefined : { kind: "plan", label: "Plan the supply again" },
        ),
      ];
    }),
};

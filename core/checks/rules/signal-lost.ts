import { hungOn } from "../../brings";
import { controlLost } from "../../catalogue";
import { ALWAYS, finding, joints, type Rule } from "../rule";

export const signalLost: Rule = {
  id: "signal-lost",
  title: "Fans can be slowed down",
  protects: "quiet machines",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.loom !== "fans" || lead.lead.flow !== "in" || lead.lead.role === "hub-control") return [];
      const on = hungOn(graph, port);
      if (!on || !controlLost(lead.lead, on.root.port)) return [];
      return [
        finding(
          "signal-lost",
          "note",
          `${lead.tag} (${lead.name}) cannot be slowed on ${on.name}: it has ${lead.lead.control === "voltage" ? "3 wires and the header controls by PWM only" : "no control there"}. It runs at full speed.`,
          [lead.address, port.address],
        ),
      ];
    }),
};

import { hungOn, signallers } from "../../brings";
import { finding, PLAN_ONLY, type Rule } from "../rule";

export const cpuFanSignal: Rule = {
  id: "cpu-fan-signal",
  title: "The CPU fan header sees a speed signal",
  protects: "the first start",
  on: PLAN_ONLY,
  run: ({ graph }) =>
    [...graph.ports.values()].flatMap((p) => {
      if (p.port.role !== "cpu-fan" || p.port.flow !== "out") return [];
      const on = hungOn(graph, p);
      if (signallers(graph, p).length > 0) return [];
      const ignored = graph.build.settings.cpuFanWarning === "ignore";
      const what =
        on && on.leads.length > 0
          ? `${p.name} holds ${on.leads.map((l) => l.tag).join(", ")}, whose speed signal does not arrive there`
          : `${p.name} is empty`;
      return [
        finding(
          "cpu-fan-signal",
          ignored ? "note" : "warn",
          ignored
            ? `${what}. The warning is set to ignore: the reason stays on record.`
            : `${what}: start-up will halt and wait for a key. Plug a lead with a speed signal there.`,
          [p.address],
          { kind: "plan", label: "Plan the fans again" },
        ),
      ];
    }),
};

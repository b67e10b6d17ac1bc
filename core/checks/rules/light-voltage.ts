import { mateOf } from "../../assembly";
import { usable } from "../../catalogue";
import { ALWAYS, finding, isEmpty, joints, type Rule } from "../rule";

/** 5 V and 12 V plugs look alike to a tired eye; only one of the two mistakes is harmless. */
export const lightVoltage: Rule = {
  id: "light-voltage",
  title: "Lights get their own voltage",
  protects: "LEDs",
  on: ALWAYS,
  rests: { lighting: ["volts"] },
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.loom !== "lighting") return [];
      const m = mateOf(lead, port);
      if (usable(m)) return [];
      const better = [...graph.ports.values()].find(
        (p) => p.port.flow === "out" && p.part.type.kind === "board" && isEmpty(graph, p) && usable(mateOf(lead, p)),
      );
      const way = better ? ` Move it to ${better.name}.` : " Take it out.";
      const remedy = better
        ? ({ kind: "move", label: `Move ${lead.tag} to ${better.name}`, lead: lead.address, port: better.address } as const)
        : ({ kind: "unplug", label: `Take ${lead.tag} out`, lead: lead.address } as const);
      const ends = [lead.address, port.address];
      return m.outcome === "harm"
        ? [finding("light-voltage", "stop", `${lead.tag} is a 5 V strip; ${port.name} gives 12 V. Its LEDs die at power-on.${way}`, ends, remedy)]
        : [
            finding(
              "light-voltage",
              m.outcome === "idle" ? "warn" : "stop",
              `${lead.tag} does not work in ${port.name}: ${m.because}.${way}`,
              ends,
              remedy,
            ),
          ];
    }),
};

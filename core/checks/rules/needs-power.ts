import type { PortNode } from "../../assembly";
import { family, passesPower } from "../../catalogue";
import { whyEmpty } from "../../claims";
import { cpuSockets } from "../../power";
import { needOfSocket } from "../../wiring";
import { finding, isEmpty, PLAN_ONLY, type Rule } from "../rule";

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
  rests: { supply: ["cpu", "gfx", "g16", "sata", "cpuMm"], card: ["plugs"] },
  run: ({ graph }) =>
    [...graph.ports.values()].flatMap((p) => {
      if (p.port.flow !== "in" || family(p.port.family).loom !== "power" || !isEmpty(graph, p) || passesPower(p.part.type)) return [];
      const need = needOfSocket(graph, p);
      // Beyond the main socket the CPU's draw decides: the rule about it says what is missing.
      if (p.port.role === "cpu-power" && need === "mandatory" && cpuSockets(graph)[0] !== p) return [];
      const severity = ({ mandatory: "stop", wanted: "warn", optional: "note" } as const)[need];
      const hub = p.part.type.kind === "hub" ? "Everything on this hub stays dark or still" : CONSEQUENCE[p.port.role];
      return [
        finding(
          "needs-power",
          severity,
          `${p.name} is empty. ${need === "mandatory" ? `${hub ?? "It stays dead"}. ` : ""}${whyEmpty(graph, p)}`,
          [p.address],
          need === "mandatory" ? { kind: "plan", label: "Plan the supply again" } : undefined,
        ),
      ];
    }),
};

import { cableLimitW, plugLimitW, portDrawW } from "../../power";
import { ALWAYS, finding, joints, type Rule } from "../rule";

export const cableWatts: Rule = {
  id: "cable-watts",
  title: "Supply cables stay within their watts",
  protects: "cables and plugs",
  on: ALWAYS,
  run: ({ graph }) =>
    [...graph.parts.values()].flatMap((p) => {
      if (!p.cable) return [];
      const mine = joints(graph).filter((j) => j.lead.part === p && j.lead.lead.flow === "out");
      const sumW = mine.reduce((s, j) => s + portDrawW(graph, j.port), 0);
      const limitW = cableLimitW(p.cable.cable.ends, p.cable.cable.limit);
      const ends = [p.id, ...mine.map((j) => j.port.address)];
      const weak = mine.find(
        (j) => j.port.port.role !== "cpu-power" && portDrawW(graph, j.port) > plugLimitW(j.lead.lead.family, j.lead.lead.limit ?? {}) + 1e-9,
      );
      if (sumW > limitW + 1e-9)
        return [
          finding(
            "cable-watts",
            "stop",
            `${p.part.label} carries ${Math.round(sumW)} W of ${Math.round(limitW)} W. Put one of its plugs on another cable.`,
            ends,
            { kind: "plan", label: "Plan the supply again" },
          ),
        ];
      if (weak)
        return [
          finding(
            "cable-watts",
            "stop",
            `${weak.port.name} takes ${Math.round(portDrawW(graph, weak.port))} W; the plug may carry ${Math.round(plugLimitW(weak.lead.lead.family, weak.lead.lead.limit ?? {}))} W.`,
            [weak.lead.address, weak.port.address],
          ),
        ];
      return [];
    }),
};

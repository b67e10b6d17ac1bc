import { hungOn, rootOf } from "../../brings";
import { ALWAYS, finding, joints, type Rule } from "../rule";

/** A pump that shares its header is slowed with the fans, and its speed is not the one that is read (common practice). */
export const pumpAlone: Rule = {
  id: "pump-alone",
  title: "A pump has its header to itself",
  protects: "a pump that must not slow down with the fans",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.lead.role !== "pump") return [];
      const root = rootOf(graph, port);
      if (root.kind === "nothing") return [];
      if (root.kind === "hub" && root.port.port.role === "pump") return [];
      const others = (hungOn(graph, port)?.leads ?? []).filter((l) => l !== lead && !(l.part === lead.part && l.lead.role === "cooler-speed"));
      if (root.kind === "header" && others.length === 0) return [];
      const where = root.kind === "hub" ? `on ${root.part.part.label ?? root.part.type.name}, a hub` : `on ${root.port.name}`;
      const beside = others.length > 0 ? ` beside ${others.map((l) => l.tag).join(", ")}` : "";
      return [
        finding(
          "pump-alone",
          "warn",
          `${lead.tag} (${lead.name}) hangs ${where}${beside}: it slows down with what is there, and its own speed may not be read. Give it a header of its own.`,
          [lead.address, port.address],
          { kind: "plan", label: "Plan the fans again" },
        ),
      ];
    }),
};

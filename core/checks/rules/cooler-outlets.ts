import { rootOf } from "../../brings";
import { hindrance } from "../../claims";
import { ALWAYS, finding, joints, type Rule } from "../rule";

/** A cooler that can run its own fans, and fans of its radiator that hang elsewhere. */
export const coolerOutlets: Rule = {
  id: "cooler-outlets",
  title: "A cooler with outlets runs its radiator's fans",
  protects: "a cooler that cannot do what it was bought for",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.lead.role !== "radiator-fan") return [];
      const root = rootOf(graph, port);
      if (root.kind === "hub" && root.part.type.kind === "cooler") return [];
      const outlets = [...graph.ports.values()].filter((p) => p.part.type.kind === "cooler" && p.port.flow === "out" && p.port.fedBy !== undefined);
      if (outlets.length === 0) return [];
      const open = outlets.find((p) => hindrance(graph, lead, p) === undefined);
      const wants = graph.build.policy.cooling === "self-controlled";
      return [
        finding(
          "cooler-outlets",
          open && wants ? "warn" : "note",
          `${lead.tag} (${lead.name}) is in ${port.name}, though ${outlets[0]?.part.part.label ?? outlets[0]?.part.type.name} has outlets for its own fans${open ? `: ${open.name} is open` : ", which are full or out of reach"}. The cooler does not control it.`,
          [lead.address, port.address],
        ),
      ];
    }),
};

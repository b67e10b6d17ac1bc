import { rootOf } from "../../brings";
import { ALWAYS, finding, joints, type Rule } from "../rule";

/** Outlets that are for something else: a cooler's own, and through-plugs for their own kind. */
export const outletsMeant: Rule = {
  id: "outlets-meant",
  title: "Outlets feed what they are made for",
  protects: "coolers that run their own fans, and chains of one kind",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.lead.flow !== "in" || (lead.loom !== "fans" && lead.loom !== "lighting")) return [];
      const ends = [lead.address, port.address];
      if (port.port.ownKindOnly && port.part.type.id !== lead.part.type.id)
        return [
          finding("outlets-meant", "warn", `${lead.tag} (${lead.name}) hangs behind ${port.name}, which takes ${port.part.type.name} only.`, ends),
        ];
      const root = rootOf(graph, port);
      if (root.kind !== "hub" || root.part.type.kind !== "cooler" || lead.lead.role === "radiator-fan" || lead.lead.role === "splitter-in") return [];
      return [
        finding(
          "outlets-meant",
          "warn",
          `${lead.tag} (${lead.name}) hangs on ${root.part.part.label ?? root.part.type.name}: its outlets are for the fans of its own radiator.`,
          ends,
        ),
      ];
    }),
};

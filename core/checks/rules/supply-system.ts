import { ALWAYS, finding, joints, type Rule } from "../rule";

export const supplySystem: Rule = {
  id: "supply-system",
  title: "Modular cables belong to their own supply",
  protects: "every part on the cable",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.lead.role !== "cable-root") return [];
      // A cable set that is made for this outlet system belongs here, whoever brought it; what belongs to another system is foreign.
      if (lead.lead.key === port.port.key) return [];
      const why = `${port.name} is an outlet for ${port.port.key} cables and ${lead.name} is of ${lead.lead.key}${lead.part.cable?.owner !== port.part.id ? ": it came with something else" : ""}`;
      return [
        finding("supply-system", "stop", `${why}. Pin-outs differ and parts are destroyed. Take it out.`, [lead.address, port.address], {
          kind: "unplug",
          label: `Take ${lead.tag} out`,
          lead: lead.address,
        }),
      ];
    }),
};

import { ALWAYS, finding, joints, type Rule } from "../rule";

export const supplySystem: Rule = {
  id: "supply-system",
  title: "Modular cables belong to their own supply",
  protects: "every part on the cable",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.lead.role !== "cable-root") return [];
      const foreign = lead.part.cable?.owner !== port.part.id;
      if (!foreign && lead.lead.key === port.port.key) return [];
      const why = foreign
        ? `${lead.name} came with another power supply`
        : `${port.name} is a ${port.port.key} outlet and the cable wants ${lead.lead.key}`;
      return [
        finding("supply-system", "stop", `${why}. Pin-outs differ and parts are destroyed. Take it out.`, [lead.address, port.address], {
          kind: "unplug",
          label: `Take ${lead.tag} out`,
          lead: lead.address,
        }),
      ];
    }),
};

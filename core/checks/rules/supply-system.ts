import { mateOf, pinOutOf } from "../../assembly";
import { usable } from "../../catalogue";
import { ALWAYS, finding, joints, type Rule } from "../rule";

export const supplySystem: Rule = {
  id: "supply-system",
  title: "Modular cables belong to their own supply",
  protects: "every part on the cable",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.lead.role !== "cable-root") return [];
      if (usable(mateOf(lead, port))) return [];
      const foreign = pinOutOf(lead.part) !== pinOutOf(port.part);
      const supply = port.part.part.label ?? port.part.type.name;
      const why = foreign
        ? `${lead.part.part.label ?? lead.name} did not come with ${supply}, and nothing says that it is made for its outlets. Pin-outs differ and parts are destroyed. Do not press. Take it out of ${port.name}.`
        : `${port.name} is an outlet for ${port.port.key ?? "other"} cables, and ${lead.name} is for ${lead.lead.key ?? "another"}. Pin-outs differ and parts are destroyed. Do not press. Take it out.`;
      return [
        finding("supply-system", "stop", why, [lead.address, port.address], {
          kind: "unplug",
          label: `Take ${lead.tag} out`,
          lead: lead.address,
        }),
      ];
    }),
};

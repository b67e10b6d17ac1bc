import { mateOf } from "../../assembly";
import { ALWAYS, finding, joints, type Rule } from "../rule";

export const mating: Rule = {
  id: "mating",
  title: "Plugs go into ports of their family",
  protects: "pins and sockets",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.loom === "lighting" || lead.lead.family === "supply-outlet") return [];
      const m = mateOf(lead, port);
      if (m.outcome === "fits") return [];
      const ends = [lead.address, port.address];
      const unplug = { kind: "unplug", label: `Take ${lead.tag} out`, lead: lead.address } as const;
      if (m.outcome === "harm")
        return [
          finding("mating", "stop", `${lead.tag} (${lead.name}) in ${port.name}: ${m.because}. Parts die at power-on. Take it out.`, ends, unplug),
        ];
      if (m.outcome === "keyed")
        return [
          finding("mating", "stop", `${lead.tag} (${lead.name}) does not belong in ${port.name}: ${m.because}. Do not force it.`, ends, unplug),
        ];
      return [finding("mating", "note", `${lead.tag} in ${port.name} works, but ${m.because}.`, ends)];
    }),
};

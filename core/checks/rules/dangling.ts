import { rootOf } from "../../brings";
import { ALWAYS, finding, joints, type Rule } from "../rule";

export const dangling: Rule = {
  id: "dangling",
  title: "Splitters and chains lead somewhere",
  protects: "one dark leg of a chain",
  on: ALWAYS,
  run: ({ graph, on }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.lead.flow !== "in" || !["fans", "lighting"].includes(lead.loom)) return [];
      const source = rootOf(graph, port);
      if (source.kind !== "nothing") return [];
      const up = graph.leads.get(source.lead);
      const { ring } = source;
      // While hands are at work a splitter may be filled before it is plugged.
      return [
        finding(
          "dangling",
          on === "plan" ? "stop" : "note",
          ring
            ? `${lead.tag} is in ${port.name}, and ${up?.tag ?? source.lead} (${up?.name ?? "its input"}) leads back to itself: nothing feeds the ring. Plug one of its inputs into a header.`
            : `${lead.tag} is in ${port.name}, but ${up?.tag ?? source.lead} (${up?.name ?? "its input"}) is plugged into nothing. It stays dark or still.`,
          [lead.address, port.address],
        ),
      ];
    }),
};

import { lanesAt, lanesLost } from "../../wiring";
import { ALWAYS, finding, joints, type Rule } from "../rule";

/** Lanes that a card or drive asks for and does not get, and what takes them. */
export const lanes: Rule = {
  id: "lanes",
  title: "Cards and drives get the lanes that they ask for",
  protects: "speed that was paid for",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.lead.flow !== "in" || !lead.lead.link) return [];
      const at = lanesAt(graph, port);
      const lost = lanesLost(lead.lead, at?.lanes);
      if (!at || lost === 0) return [];
      const why =
        at.sharedWith.length > 0
          ? `${at.sharedWith.map((p) => p.name).join(" and ")} ${at.sharedWith.length === 1 ? "shares" : "share"} its lanes`
          : `${port.name} has no more`;
      const least = lead.lead.link.leastLanes ?? 1;
      return [
        finding(
          "lanes",
          at.lanes < least ? "stop" : "note",
          `${lead.name} in ${port.name} gets ${at.lanes} of the ${lead.lead.link.lanes} lanes that it asks for: ${why}.`,
          [lead.address, port.address],
        ),
      ];
    }),
};

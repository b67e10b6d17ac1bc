import { wayOfLead } from "../../brings";
import { ALWAYS, finding, joints, type Rule } from "../rule";

/** A hub's control lead that is plugged in and leads to no header: two hubs that command each other, or one on nothing. */
export const commandNowhere: Rule = {
  id: "command-nowhere",
  title: "Control leads end at a header",
  protects: "fans that would run at full speed and lights that stay dark",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ lead, port }) => {
      if (lead.lead.role !== "hub-control" && lead.lead.role !== "light-control") return [];
      const fans = lead.lead.role === "hub-control";
      const { nowhere } = wayOfLead(graph, lead.address, fans ? "control" : "colour");
      if (!nowhere || nowhere.kind === "mating") return [];
      const what =
        nowhere.kind === "ring"
          ? "and the way leads back to itself: nothing commands it"
          : nowhere.kind === "lost"
            ? "which gives no signal that it can follow"
            : "and from there to no header: nothing commands it";
      return [
        finding(
          "command-nowhere",
          "warn",
          `${lead.tag} (${lead.name}) is in ${port.name}, ${what}. ${fans ? "Its fans run at full speed" : "Its addressable lights stay dark"}. Plug it into a header of the board.`,
          [lead.address, port.address],
          { kind: "plan", label: "Plan these again" },
        ),
      ];
    }),
};

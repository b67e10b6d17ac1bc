import { cardsOver } from "../../space";
import { runsHot } from "../../wiring";
import { ALWAYS, finding, joints, type Rule } from "../rule";

export const driveHeat: Rule = {
  id: "drive-heat",
  title: "Hot drives have a heatsink",
  protects: "a drive that slows itself down under load",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph)
      .filter((j) => j.lead.lead.family === "m2" && runsHot(j.lead.part, j.port.port))
      .map(({ c, lead, port }) => ({
        ...finding(
          "drive-heat",
          "note",
          `${lead.part.part.label ?? lead.part.type.name} draws ${lead.part.type.ratings.peakW ?? lead.part.type.ratings.powerW} W; ${port.name} has no heatsink${cardsOver(graph, port).length > 0 ? " and lies under the card" : ""}.`,
          [c.lead, c.port],
        ),
        ifIgnored: "In long copies it slows itself down (common practice above about 7 W).",
      })),
};

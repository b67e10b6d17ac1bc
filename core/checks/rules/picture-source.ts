import { partsOfKind } from "../../assembly";
import { finding, PARTS_AND_PLAN, type Rule } from "../rule";

export const pictureSource: Rule = {
  id: "picture-source",
  title: "Something gives a picture",
  protects: "the first start",
  on: PARTS_AND_PLAN,
  run: ({ graph }) => {
    const cpu = partsOfKind(graph, "cpu")[0];
    if (!cpu || cpu.type.ratings.hasGraphics || partsOfKind(graph, "card").length > 0) return [];
    return [
      finding("picture-source", "stop", `${cpu.type.name} has no graphics of its own and there is no card. Nothing gives a picture. Add a card.`, [
        cpu.id,
      ]),
    ];
  },
};

import { partsOfKind } from "../../assembly";
import { finding, PARTS_AND_PLAN, type Rule } from "../rule";

export const pictureSource: Rule = {
  id: "picture-source",
  title: "Something gives a picture",
  protects: "the first start",
  on: PARTS_AND_PLAN,
  rests: { cpu: ["graphics"] },
  run: ({ graph }) => {
    const cpu = partsOfKind(graph, "cpu")[0];
    const cards = partsOfKind(graph, "card");
    if (!cpu || cpu.type.ratings.hasGraphics || cards.some((c) => c.type.ratings.hasGraphics)) return [];
    const none =
      cards.length === 0
        ? "there is no card"
        : `${cards.map((c) => c.part.label ?? c.type.name).join(" and ")} ${cards.length === 1 ? "gives" : "give"} no picture`;
    return [finding("picture-source", "stop", `${cpu.type.name} has no graphics of its own and ${none}. Add a graphics card.`, [cpu.id])];
  },
};

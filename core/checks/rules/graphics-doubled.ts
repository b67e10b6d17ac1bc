import { passesPower } from "../../catalogue";
import { cableLimitW, throughCablesW } from "../../power";
import { ALWAYS, finding, joints, type Rule } from "../rule";

/** Two plugs of one cable in one card beyond what the whole card may draw from it, and one cable in two cards (common practice). */
export const graphicsDoubled: Rule = {
  id: "graphics-doubled",
  title: "Graphics plugs come from cables of their own",
  protects: "graphics cables",
  on: ALWAYS,
  run: ({ graph }) =>
    [...graph.parts.values()].flatMap((node) => {
      if (!node.cable) return [];
      const mine = joints(graph).filter((j) => j.lead.part === node && j.port.port.role === "graphics-power" && !passesPower(j.port.part.type));
      const cards = new Set(mine.map((j) => j.port.part));
      const limitW = cableLimitW(node.cable.cable.ends, node.cable.cable.limit);
      const name = node.part.label ?? node.type.name;
      const ends = [node.id, ...mine.map((j) => j.port.address)];
      const order = "Use a second cable; order one if the bag has none.";
      if (cards.size > 1)
        return [
          finding(
            "graphics-doubled",
            "warn",
            `${name} feeds ${cards.size} cards. One cable serves one card while there are cables enough. ${order}`,
            ends,
          ),
        ];
      const [card] = cards;
      if (!card || mine.length < 2 || throughCablesW(card) <= limitW + 1e-9) return [];
      return [
        finding(
          "graphics-doubled",
          "warn",
          `Both plugs of ${name} are in ${card.part.label ?? card.type.name}, which may draw ${throughCablesW(card)} W through its cables; the cable is good for ${Math.round(limitW)} W. ${order}`,
          ends,
        ),
      ];
    }),
};

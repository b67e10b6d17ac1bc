import { partsOfKind } from "../../assembly";
import { changed, PARTS_ONLY, partsFinding, type Rule } from "../rule";

/** A card that stands wants a mount in the case and a riser. */
export const verticalCard: Rule = {
  id: "vertical-card",
  title: "A vertical card has its mount and its riser",
  protects: "a card that cannot be fitted as sold",
  on: PARTS_ONLY,
  reads: ["card", "case", "cable"],
  run: ({ graph }) =>
    partsOfKind(graph, "card").flatMap((card) => {
      if (!card.part.vertical) return [];
      const shell = partsOfKind(graph, "case")[0];
      const name = card.part.label ?? card.type.name;
      if (shell && !shell.type.body.vertical)
        return [
          partsFinding("vertical-card", {
            severity: "stop",
            message: `${name} is to stand, and ${shell.type.name} has no vertical mount.`,
            parts: [card.id, shell.id],
            swap: shell.id,
            tries: [{ what: "The card level in its slot", change: (build) => changed(build, card.id, ({ vertical: _, ...p }) => p) }],
          }),
        ];
      const riser =
        shell?.type.body.vertical?.riserMm !== undefined ||
        partsOfKind(graph, "cable").some((c) => c.type.leads.some((l) => l.family === "pcie-slot"));
      if (!shell || riser) return [];
      return [
        partsFinding("vertical-card", {
          severity: "warn",
          message: `${name} is to stand, and no riser comes with ${shell.type.name}. Put one on the order list.`,
          parts: [card.id],
        }),
      ];
    }),
};

import { wirelessPart } from "../../picture";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const wireless: Rule = {
  id: "wireless",
  title: "Wireless where the client wants it",
  protects: "a machine without a network on the client's desk",
  on: PARTS_ONLY,
  reads: ["board", "card"],
  run: ({ graph }) => {
    if (!graph.build.wishes.wireless || wirelessPart(graph)) return [];
    const board = graph.build.parts.find((p) => graph.parts.get(p.id)?.type.kind === "board");
    return [
      partsFinding("wireless", {
        severity: "warn",
        message: "The client wants wireless; neither the board nor a card of the list has it. A board with it, a card or a USB adapter.",
        parts: board ? [board.id] : [],
        ...(board ? { swap: board.id } : {}),
      }),
    ];
  },
};

import { partsOfKind } from "../../assembly";
import { standoffs as standoffsOf } from "../../fit";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

const names = (list: readonly { id: string }[]) => list.map((h) => h.id).join(", ");

export const standoffs: Rule = {
  id: "standoffs",
  title: "Standoffs stand exactly where the board has holes",
  protects: "a short against the tray",
  on: PARTS_ONLY,
  reads: ["case", "board"],
  run: ({ graph }) => {
    const s = standoffsOf(graph);
    const shell = partsOfKind(graph, "case")[0];
    const board = partsOfKind(graph, "board")[0];
    if (!s || !shell || !board || shell.part.standoffsSet || (s.add.length === 0 && s.remove.length === 0)) return [];
    return [
      partsFinding("standoffs", {
        // One left in shorts the board; one that is missing lets it flex. Set by hand, neither is said any more.
        severity: s.remove.length > 0 ? "stop" : "note",
        message: [
          s.remove.length > 0 ? `Take ${s.remove.length} ${s.remove.length === 1 ? "standoff" : "standoffs"} out: ${names(s.remove)}.` : "",
          s.add.length > 0 ? `Add ${s.add.length}: ${names(s.add)}.` : "",
          `${s.keep.length} of ${board.type.body.holes.length} stand right.`,
        ]
          .filter(Boolean)
          .join(" "),
        parts: [shell.id, board.id],
        ifIgnored:
          s.remove.length > 0 ? "A standoff without a hole above it shorts the board against the tray." : "The board flexes when plugs go in.",
      }),
    ];
  },
};

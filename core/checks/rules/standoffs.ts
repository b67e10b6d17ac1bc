import { type Graph, type PartNode, partIdOf, partsOfKind } from "../../assembly";
import { standoffs as standoffsOf } from "../../fit";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

const names = (list: readonly { id: string }[]) => list.map((h) => h.id).join(", ");

/** Somebody screwed the board in, or plugs of the case are in it. */
const isIn = (graph: Graph, board: PartNode, shell: PartNode): boolean =>
  board.part.inCase === true ||
  graph.connections.some((c) => (c.state === "plugged" || c.state === "checked") && partIdOf(c.lead) === shell.id && partIdOf(c.port) === board.id);

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
        severity: s.remove.length === 0 ? "note" : isIn(graph, board, shell) ? "stop" : "warn",
        message: [
          s.remove.length > 0
            ? isIn(graph, board, shell)
              ? `The board is in, and nobody says that ${s.remove.length} ${s.remove.length === 1 ? "standoff" : "standoffs"} came out from under it: ${names(s.remove)}. Take it out and look, or say in the parts that they are set.`
              : `Take ${s.remove.length} ${s.remove.length === 1 ? "standoff" : "standoffs"} out: ${names(s.remove)}.`
            : "",
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

import { partsOfKind } from "../../assembly";
import { changed, PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const formFactors: Rule = {
  id: "form-factors",
  title: "Board and supply have the case's formats",
  protects: "a board without a place",
  on: PARTS_ONLY,
  rests: { board: ["form"], case: ["form"], supply: ["form"] },
  reads: ["case", "board", "supply"],
  run: ({ graph }) => {
    const shell = partsOfKind(graph, "case")[0];
    if (!shell) return [];
    const { forms, supplyForms } = shell.type.body;
    const board = partsOfKind(graph, "board")[0];
    const form = board?.type.body.formFactor;
    const supply = partsOfKind(graph, "supply")[0];
    const kind = supply?.type.body.formFactor;
    return [
      ...(board && form && forms && !forms.some((f) => f === form)
        ? [
            partsFinding("form-factors", {
              severity: "stop" as const,
              message: `${board.type.name} is ${form}; ${shell.type.name} takes ${forms.join(", ")}.`,
              parts: [board.id, shell.id],
              ifIgnored: "The board has no place in the case.",
              swap: shell.id,
            }),
          ]
        : []),
      ...(supply && kind && supplyForms && !supplyForms.some((f) => f === kind || (supply.part.bracket && kind.startsWith("SFX") && f === "ATX"))
        ? [
            partsFinding("form-factors", {
              severity: "stop" as const,
              message: `${supply.type.name} is ${kind}; the bay of ${shell.type.name} takes ${supplyForms.join(", ")}.`,
              parts: [supply.id, shell.id],
              ifIgnored: "The supply cannot be screwed in.",
              tries: kind.startsWith("SFX")
                ? [{ what: "On a bracket from SFX to ATX, to order", change: (build) => changed(build, supply.id, (p) => ({ ...p, bracket: true })) }]
                : [],
              swap: supply.id,
            }),
          ]
        : []),
    ];
  },
};

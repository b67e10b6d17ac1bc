import { partsOfKind } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const lightWish: Rule = {
  id: "light-wish",
  title: "Lighting as the client wants it",
  protects: "the client's taste",
  on: PARTS_ONLY,
  reads: ["lighting"],
  run: ({ graph }) => {
    const lit = partsOfKind(graph, "lighting");
    const wish = graph.build.wishes.lighting;
    if (wish === "none" && lit.length > 0)
      return [
        partsFinding("light-wish", {
          severity: "warn",
          message: `The client wants no lighting; ${lit.length} lit ${lit.length === 1 ? "part is" : "parts are"} in the list.`,
          parts: lit.map((p) => p.id),
        }),
      ];
    if (wish === "wanted" && lit.length === 0)
      return [partsFinding("light-wish", { severity: "warn", message: "The client wants lighting; no lit part is in the list.", parts: [] })];
    return [];
  },
};

import { FIT_KINDS, fitFindings } from "../fit";
import { PARTS_ONLY, type Rule } from "../rule";

export const cardFit: Rule = {
  id: "card-fit",
  title: "The card goes in",
  protects: "the last step of the build",
  on: PARTS_ONLY,
  reads: FIT_KINDS,
  run: ({ graph }) => fitFindings(graph, "card-fit", ["cards"], ["card-length", "card-width", "card-vertical", "riser"]),
};

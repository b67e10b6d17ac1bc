import { FIT_KINDS, fitFindings } from "../fit";
import { PARTS_ONLY, type Rule } from "../rule";

export const radiatorFit: Rule = {
  id: "radiator-fit",
  title: "The radiator has room",
  protects: "a radiator that meets the board",
  on: PARTS_ONLY,
  reads: FIT_KINDS,
  run: ({ graph }) => fitFindings(graph, "radiator-fit", ["radiators"], ["radiator-length", "radiator-thickness", "tubes"]),
};

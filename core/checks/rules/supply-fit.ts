import { FIT_KINDS, fitFindings } from "../fit";
import { PARTS_ONLY, type Rule } from "../rule";

export const supplyFit: Rule = {
  id: "supply-fit",
  title: "The supply goes into its bay",
  protects: "bent modular plugs",
  on: PARTS_ONLY,
  reads: FIT_KINDS,
  run: ({ graph }) => fitFindings(graph, "supply-fit", ["supplies"], ["supply-length"]),
};

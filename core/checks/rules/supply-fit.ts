import { fitFindings } from "../fit";
import { PARTS_ONLY, type Rule } from "../rule";

export const supplyFit: Rule = {
  id: "supply-fit",
  title: "The supply goes into its bay",
  protects: "bent modular plugs",
  on: PARTS_ONLY,
  run: ({ graph }) => fitFindings(graph, "supply-fit", ["supply-length"]),
};

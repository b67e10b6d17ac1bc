import { fitFindings } from "../fit";
import { PARTS_ONLY, type Rule } from "../rule";

export const supplyFit: Rule = {
  id: "supply-fit",
  title: "The supply goes into its bay",
  protects: "bent modular plugs",
  on: PARTS_ONLY,
  reads: ["case", "supply", "drive"],
  run: ({ graph }) => fitFindings(graph, "supply-fit", ["supplies"], ["supply-length"]),
};

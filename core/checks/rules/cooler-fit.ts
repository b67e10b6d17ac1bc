import { FIT_KINDS, fitFindings } from "../fit";
import { PARTS_ONLY, type Rule } from "../rule";

export const coolerFit: Rule = {
  id: "cooler-fit",
  title: "The cooler goes under the panel",
  protects: "a panel that does not close",
  on: PARTS_ONLY,
  reads: FIT_KINDS,
  run: ({ graph }) => fitFindings(graph, "cooler-fit", ["coolers"], ["cooler-height"]),
};

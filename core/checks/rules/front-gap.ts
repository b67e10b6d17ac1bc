import { FIT_KINDS, fitFindings } from "../fit";
import { PARTS_ONLY, type Rule } from "../rule";

export const frontGap: Rule = {
  id: "front-gap",
  title: "Fans outside the frame go behind the front panel",
  protects: "a panel that does not close",
  on: PARTS_ONLY,
  reads: FIT_KINDS,
  run: ({ graph }) => fitFindings(graph, "front-gap", ["front"], ["front-gap"]),
};

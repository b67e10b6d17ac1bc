import { FIT_KINDS, fitFindings } from "../fit";
import { PARTS_ONLY, type Rule } from "../rule";

export const memoryRoom: Rule = {
  id: "memory-room",
  title: "Memory has room under cooler and radiator",
  protects: "a radiator hung twice",
  on: PARTS_ONLY,
  reads: FIT_KINDS,
  run: ({ graph }) => fitFindings(graph, "memory-room", ["memory", "radiators"], ["memory-under-cooler", "memory-under-radiator"]),
};

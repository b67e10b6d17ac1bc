import type { Graph } from "../build";
import { type Clearance, clearances } from "../fit";
import { type Finding, partsFinding } from "./rule";

const known = new WeakMap<Graph, Clearance[]>();
/** Clearances of one graph are worked out once, however many rules ask. */
export function clearancesOf(graph: Graph): Clearance[] {
  const had = known.get(graph);
  if (had) return had;
  const list = clearances(graph);
  known.set(graph, list);
  return list;
}

/** What does not fit stops, what only just fits warns. */
export function fitFindings(graph: Graph, rule: string, kinds: readonly string[]): Finding[] {
  return clearancesOf(graph)
    .filter((c) => c.verdict !== "fits" && kinds.includes(c.id.split(":")[0] ?? ""))
    .map((c) =>
      partsFinding(rule, {
        severity: c.verdict === "not" ? "stop" : "warn",
        message: c.sentence,
        parts: c.parts,
        ifIgnored: c.ifIgnored,
        ways: c.ways,
        ...(c.parts[0] ? { swap: c.parts[0] } : {}),
      }),
    );
}

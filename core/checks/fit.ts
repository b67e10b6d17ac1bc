import type { Graph } from "../assembly";
import { type FitGroup, said, tightOrWorse } from "../fit";
import { type Finding, partsFinding } from "./rule";

/** What does not fit stops, what only just fits warns. */
export function fitFindings(graph: Graph, rule: string, groups: readonly FitGroup[], kinds: readonly string[]): Finding[] {
  return tightOrWorse(graph, groups)
    .filter((c) => kinds.includes(c.id.split(":")[0] ?? ""))
    .map((c) =>
      partsFinding(rule, {
        severity: c.verdict === "not" ? "stop" : "warn",
        message: said(c),
        parts: c.parts,
        ifIgnored: c.ifIgnored,
        ways: c.ways,
        ...(c.parts[0] ? { swap: c.parts[0] } : {}),
      }),
    );
}

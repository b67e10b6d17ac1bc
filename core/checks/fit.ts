import type { Graph } from "../assembly";
import type { PartKind } from "../catalogue";
import { type FitGroup, said, tightOrWorse } from "../fit";
import { type Finding, partsFinding } from "./rule";

/** Kinds of parts that any clearance looks at: a way out of one is judged by all of them. */
export const FIT_KINDS: readonly PartKind[] = ["case", "board", "card", "fan", "cooler", "memory", "supply", "drive"];

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
        clearance: c,
        ...(c.parts[0] ? { swap: c.parts[0] } : {}),
      }),
    );
}

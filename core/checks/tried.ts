import { buildGraph, type Graph, type TypeLookup } from "../assembly";
import { type Clearance, triedWays, wayOutWords } from "../fit";
import type { Finding, Try } from "./rule";
import { checkParts } from "./run";

const WEIGHT = { stop: 1000, warn: 10, note: 1 } as const;
const weightOf = (list: readonly Finding[]) => list.reduce((s, f) => s + WEIGHT[f.severity], 0);
const stopsIn = (list: readonly Finding[]) => list.filter((f) => f.severity === "stop").length;

/**
 * The same findings with their ways out in words. Each was applied to a copy and judged by every rule about parts; it is offered
 * only where less is found of the same rule, no stop is new, and all findings together weigh less, with the numbers after it.
 */
export function withTriedWays(graph: Graph, findings: readonly Finding[]): Finding[] {
  if (!findings.some((f) => f.tries || f.clearance)) return [...findings];
  const types = typesOf(graph);
  const bare = buildGraph({ ...graph.build, connections: [] }, types, graph);
  const before = checkParts(bare);
  return findings.map(({ tries, clearance, ...f }) => {
    const ways = [
      ...(clearance ? cleanWays(bare, types, before, clearance) : []),
      ...(tries ?? []).flatMap((t) => judged(bare, types, before, f.rule, t)),
    ];
    return ways.length + (f.ways?.length ?? 0) > 0 ? { ...f, ways: [...(f.ways ?? []), ...ways] } : f;
  });
}

/** Ways out of one clearance in words: those that no other rule about parts objects to. */
export function fitWays(graph: Graph, clearance: Clearance): string[] {
  const types = typesOf(graph);
  const bare = buildGraph({ ...graph.build, connections: [] }, types, graph);
  return cleanWays(bare, types, checkParts(bare), clearance);
}

function cleanWays(bare: Graph, types: TypeLookup, before: readonly Finding[], clearance: Clearance): string[] {
  const stops = (list: readonly Finding[], rule: string) => list.filter((f) => f.rule === rule && f.severity === "stop").length;
  return triedWays(bare, clearance).flatMap((w) => {
    const after = checkParts(buildGraph(w.build, types, bare));
    const worse = after.some((f) => f.severity === "stop" && stops(after, f.rule) > stops(before, f.rule));
    return worse || weightOf(after) > weightOf(before) ? [] : [wayOutWords(w)];
  });
}

const typesOf = (graph: Graph): TypeLookup => {
  const types = new Map([...graph.parts.values()].map((p) => [p.type.id, p.type]));
  return (id) => types.get(id);
};

function judged(graph: Graph, types: TypeLookup, before: readonly Finding[], rule: string, { what, change, leadsTo }: Try): string[] {
  const other = buildGraph(change(graph.build), types, graph);
  const after = checkParts(other);
  const of = (list: readonly Finding[]) => weightOf(list.filter((f) => f.rule === rule));
  const had = new Set(before.filter((f) => f.severity === "stop").map((f) => f.rule));
  const isNew = after.some((f) => f.severity === "stop" && !had.has(f.rule));
  if (isNew || of(after) >= of(before) || weightOf(after) >= weightOf(before)) return [];
  const stops = stopsIn(before);
  const left = stopsIn(after);
  const numbers = [leadsTo?.(other), stops > left ? `removes ${stops - left} of ${stops} ${stops === 1 ? "stop" : "stops"}` : undefined].filter(
    (n) => n !== undefined,
  );
  return [`${what}${numbers.length > 0 ? `: ${numbers.join("; ")}` : ""}.`];
}

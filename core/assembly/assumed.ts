import { assumed, figuresOf, isProvisional, type PartKind, type PartType } from "../catalogue";
import { partsOfKind } from "./kept";
import type { Graph } from "./shape";

/** Figures that a sentence rests on, by kind of part. */
export type RestsOn = Partial<Record<PartKind, readonly string[]>>;

/**
 * What of these nobody has confirmed, in words: "length of Borealis X5". Of parts that are named only those count, of kinds of which none is
 * named all of the machine.
 */
export function assumedIn(graph: Graph, rests: RestsOn, named: readonly string[] = []): string[] {
  const out = new Set<string>();
  for (const [kind, ids] of Object.entries(rests) as [PartKind, readonly string[]][]) {
    const all = partsOfKind(graph, kind);
    const mine = all.filter((p) => named.includes(p.id));
    const types = new Map<string, PartType>((mine.length > 0 ? mine : all).map((p) => [p.type.id, p.type]));
    for (const t of types.values())
      if (isProvisional(t))
        for (const f of figuresOf(kind)) if (ids.includes(f.id) && t.figures?.[f.id]?.is === "typical") out.add(`${f.word} of ${t.name}`);
  }
  return [...out];
}

/** A sentence with what of it is only assumed. */
export function sayingAssumed(sentence: string, assumed: readonly string[]): string {
  if (assumed.length === 0) return sentence;
  const some = assumed.length > 3 ? [...assumed.slice(0, 2), `${assumed.length - 2} more`] : assumed;
  const list = some.length > 1 ? `${some.slice(0, -1).join(", ")} and ${some.at(-1)}` : some[0];
  return `${sentence} Assumed: ${list}.`;
}

/** How many values of the machine's parts nobody has confirmed; a cable out of a bag is its owner's. */
export const assumedOn = (graph: Graph): number =>
  [...new Map([...graph.parts.values()].filter((p) => !p.cable).map((p) => [p.type.id, p.type])).values()].reduce(
    (n, t) => n + (isProvisional(t) ? assumed(t).length : 0),
    0,
  );

import { family } from "../../catalogue";
import type { Group } from "./consumers";
import type { NetChoice, NetVariables } from "./net-variables";
import { type Term, term } from "./terms";

/** Groups on which a lead may hang; without a choice: it is there for good. */
export function hostsOf(out: NetVariables, lead: string | undefined): { group: string; choice?: NetChoice }[] {
  const kept = out.nets.placed.find((p) => p.consumer.address === lead);
  if (kept) return [{ group: kept.group }];
  return out.choices.filter((c) => c.consumer.address === lead).map((choice) => ({ group: choice.root.group, choice }));
}

/** A yes or no that is a variable, or known: 1. */
export type Yes = { variable: number } | { known: 1 };
export const asTerm = (y: Yes, factor = 1): Term[] => ("variable" in y ? [term(y.variable, factor)] : []);
export const known = (y: Yes, factor = 1): number => ("variable" in y ? 0 : factor);

/** Where a hub has no header for its command: its own knob, or nothing at all. */
export const NOWHERE = "nowhere";

export const fansOf = (out: NetVariables): Group[] => {
  const looms = new Map<string, Set<string>>();
  for (const { group, family: f } of [
    ...out.nets.roots.map((r) => ({ group: r.group, family: r.sample.port.family })),
    ...out.nets.placed.map((p) => ({ group: p.group, family: p.root.port.family })),
  ])
    looms.set(group, (looms.get(group) ?? new Set()).add(family(f).loom));
  return [...out.nets.groups.values()].filter((g) => looms.get(g.id)?.has("fans"));
};

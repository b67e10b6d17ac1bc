import type { Card } from "./cards";
import type { Step } from "./model";

const PUTS_IN: ReadonlySet<Step["kind"]> = new Set(["fit", "assemble", "plug"]);
const partOf = (port: string) => port.slice(0, port.indexOf(":"));

/**
 * Parts that are not in the machine yet when a card is worked at: the step that first puts them into the case comes after it and is not
 * done. What hands hold or plug into on the card itself is there. Without a card, none. `unplanned` are parts whose place is not known yet:
 * without a step of their own they are not in either.
 */
export function notInYet(steps: readonly Step[], card: Card | undefined, unplanned: readonly string[] = []): ReadonlySet<string> {
  const own = new Set(card?.steps.map((s) => s.id) ?? []);
  const last = steps.reduce((at, s, i) => (own.has(s.id) ? i : at), -1);
  if (last < 0) return new Set();
  const inCase = new Map<string, number>();
  const onTable = new Map<string, number>();
  for (const [i, s] of steps.entries()) {
    if (!PUTS_IN.has(s.kind)) continue;
    const first = s.posture === undefined ? onTable : inCase;
    for (const p of s.parts) if (!first.has(p)) first.set(p, i);
  }
  const here = new Set([
    "case",
    ...(card?.steps ?? []).flatMap((s) => [...s.parts, ...[...(s.rig?.ports ?? []), ...(s.port ? [s.port] : [])].map(partOf)]),
  ]);
  const out = new Set<string>();
  for (const p of new Set([...inCase.keys(), ...onTable.keys()])) {
    const at = inCase.get(p) ?? onTable.get(p) ?? 0;
    if (at > last && !steps[at]?.done && !here.has(p)) out.add(p);
  }
  for (const p of unplanned) if (!here.has(p) && !inCase.has(p) && !onTable.has(p)) out.add(p);
  return out;
}

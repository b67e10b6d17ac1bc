import { byText } from "../assembly";
import type { Precedence, Work } from "./model";

/** The steps that must come before each step, and those that come after it, by number. */
export interface Net {
  ids: readonly string[];
  before: readonly (readonly number[])[];
  after: readonly (readonly number[])[];
}

export function netOf(ids: readonly string[], precedences: readonly Precedence[]): Net {
  const at = new Map(ids.map((id, i) => [id, i]));
  const before = ids.map(() => new Set<number>());
  const after = ids.map(() => new Set<number>());
  for (const p of precedences) {
    const [a, b] = [at.get(p.before), at.get(p.after)];
    if (a === undefined || b === undefined) continue;
    before[b]?.add(a);
    after[a]?.add(b);
  }
  return { ids, before: before.map((s) => [...s]), after: after.map((s) => [...s]) };
}

/** Sets of steps each of which needs all the others first (strongly connected components; Tarjan 1972), a step that needs itself among them. */
export function rings(net: Net): string[][] {
  const n = net.ids.length;
  const index = new Int32Array(n).fill(-1);
  const low = new Int32Array(n);
  const on = new Uint8Array(n);
  const stack: number[] = [];
  const out: string[][] = [];
  let count = 0;
  const visit = (v: number): void => {
    index[v] = low[v] = count++;
    stack.push(v);
    on[v] = 1;
    for (const w of net.after[v] ?? []) {
      if (index[w] === -1) {
        visit(w);
        low[v] = Math.min(low[v] as number, low[w] as number);
      } else if (on[w]) low[v] = Math.min(low[v] as number, index[w] as number);
    }
    if (low[v] !== index[v]) return;
    const ring: number[] = [];
    let w: number;
    do {
      w = stack.pop() as number;
      on[w] = 0;
      ring.push(w);
    } while (w !== v);
    if (ring.length > 1 || net.after[v]?.includes(v)) out.push(ring.map((i) => net.ids[i] as string).sort(byText));
  };
  for (let v = 0; v < n; v++) if (index[v] === -1) visit(v);
  return out.sort((a, b) => byText(a[0] as string, b[0] as string));
}

const KIND_TURN = { needs: 0, covers: 1, reach: 2, school: 3 } as const;
/** Needs first, schools last; then by name: the order of the input counts for nothing. */
export const inTurn = (a: Precedence, b: Precedence) =>
  KIND_TURN[a.kind] - KIND_TURN[b.kind] || byText(a.before, b.before) || byText(a.after, b.after) || byText(a.why, b.why);

/** Is there a way from one step to the other, along what must come before what? */
function leads(after: ReadonlyMap<string, ReadonlySet<string>>, from: string, to: string): boolean {
  const seen = new Set([from]);
  const open = [from];
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    if (at === to) return true;
    for (const next of after.get(at) ?? [])
      if (!seen.has(next)) {
        seen.add(next);
        open.push(next);
      }
  }
  return false;
}

/** Precedences without rings: those of schools give way, then those of reach and cover inside a ring. What was left out is told. */
export function withoutRings(
  works: ReadonlyMap<string, Work>,
  edges: readonly Precedence[],
): { precedences: Precedence[]; rings: string[][]; gaveWay: string[] } {
  const hard = edges.filter((e) => e.kind !== "school").sort(inTurn);
  const found = rings(netOf([...works.keys()], hard));
  const ringOf = new Map(found.flatMap((r, i) => r.map((id) => [id, i] as const)));
  const inRing = (e: Precedence) => ringOf.get(e.before) !== undefined && ringOf.get(e.before) === ringOf.get(e.after);
  const after = new Map<string, Set<string>>();
  const precedences: Precedence[] = [];
  const put = (e: Precedence) => {
    const has = after.get(e.before);
    if (has) has.add(e.after);
    else after.set(e.before, new Set([e.after]));
    precedences.push(e);
  };
  for (const e of hard) if (!inRing(e)) put(e);
  for (const e of hard) if (inRing(e) && e.before !== e.after && !leads(after, e.after, e.before)) put(e);
  const gaveWay: string[] = [];
  for (const e of edges.filter((x) => x.kind === "school").sort(inTurn)) {
    if (e.before !== e.after && !leads(after, e.after, e.before)) put(e);
    else if (!inRing(e)) gaveWay.push(`${titleOf(works, e.before)} cannot come before ${titleOf(works, e.after)} here, though ${e.why}.`);
  }
  return { precedences, rings: found, gaveWay };
}

export const titleOf = (works: ReadonlyMap<string, Work>, id: string): string => `“${works.get(id)?.title ?? id}”`;

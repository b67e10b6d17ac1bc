import { naturally } from "../assembly";
import { POSTURES, type Posture, type Precedence, type Work } from "./model";
import { type Net, netOf } from "./rings";
import { bitsOf, fewestTurns } from "./turns";
import { whereKey } from "./where";

export interface Arranged {
  /** Works in order, each with the number of its block. */
  order: { work: Work; block: number }[];
  blocks: readonly Posture[];
  turns: number;
}

/**
 * The works in an order that keeps every precedence with the fewest turns of the case; inside that, what one hand does in one place
 * comes together, and things come in their usual turn. The same for the same works, in whatever order they are given.
 */
export function arranged(given: readonly Work[], precedences: readonly Precedence[], start: Posture = POSTURES[0]): Arranged {
  const works = [...given].sort((a, b) => naturally(a.id, b.id));
  const net = netOf(
    works.map((w) => w.id),
    precedences,
  );
  const may = works.map((w) => bitsOf(w.postures));
  const keys = works.map((w) => whereKey(w.where));
  const { blocks } = fewestTurns(net, may, start);
  const block = intoBlocks(works, keys, net, may, blocks);
  const order: Arranged["order"] = [];
  const placed = new Uint8Array(works.length);
  for (let b = 0; b < blocks.length; b++)
    for (const v of inBlock(works, keys, net, block, b, placed)) order.push({ work: works[v] as Work, block: b });
  return { order, blocks, turns: blocks.length - 1 };
}

/** For each work its block: as early as it goes, but with the others of its card where that is possible. */
function intoBlocks(works: readonly Work[], keys: readonly string[], net: Net, may: readonly number[], blocks: readonly Posture[]): Int16Array {
  const bit = blocks.map((p) => 1 << POSTURES.indexOf(p));
  const block = new Int16Array(works.length);
  const order = topological(net);
  const from = (v: number, b: number) => {
    let at = b;
    while (at < bit.length && !((may[v] as number) & (bit[at] as number))) at++;
    return at;
  };
  for (const v of order) block[v] = from(v, Math.max(0, ...(net.before[v] ?? []).map((b) => block[b] as number)));
  const latest = new Map<string, number>();
  keys.forEach((key, v) => {
    latest.set(key, Math.max(latest.get(key) ?? 0, block[v] as number));
  });
  for (const v of [...order].reverse()) {
    // A last look is no use before the moment that it is for.
    const target = (works[v] as Work).kind === "gate" ? blocks.length - 1 : (latest.get(keys[v] as string) ?? 0);
    const most = Math.min(target, ...(net.after[v] ?? []).map((w) => block[w] as number));
    let at = most;
    while (at > (block[v] as number) && !((may[v] as number) & (bit[at] as number))) at--;
    block[v] = Math.max(block[v] as number, at);
  }
  return block;
}

function topological(net: Net): number[] {
  const missing = net.before.map((b) => b.length);
  const out = missing.flatMap((n, i) => (n === 0 ? [i] : []));
  for (let i = 0; i < out.length; i++) for (const w of net.after[out[i] as number] ?? []) if (--(missing[w] as number) === 0) out.push(w);
  return out;
}

/** The works of one block: hands stay at a card while there is something ready on it; else the card whose turn it usually is. */
function inBlock(works: readonly Work[], keys: readonly string[], net: Net, block: Int16Array, b: number, placed: Uint8Array): number[] {
  const mine = works.flatMap((_, v) => (block[v] === b ? [v] : []));
  const turn = new Map<string, number>();
  for (const v of mine) {
    const key = keys[v] as string;
    turn.set(key, Math.min(turn.get(key) ?? Number.MAX_SAFE_INTEGER, (works[v] as Work).stage));
  }
  const out: number[] = [];
  const left = new Set(mine);
  const at = (v: number): Placed => ({ work: works[v] as Work, key: keys[v] as string });
  let here = "";
  while (left.size > 0) {
    let next: number | undefined;
    for (const v of left) {
      if (!(net.before[v] ?? []).every((p) => placed[p])) continue;
      if (next === undefined || compare(at(v), at(next), here, turn) < 0) next = v;
    }
    if (next === undefined) throw new Error("a step was left over: the precedences hold a ring");
    placed[next] = 1;
    left.delete(next);
    out.push(next);
    here = keys[next] as string;
  }
  return out;
}

interface Placed {
  work: Work;
  /** Of its place. */
  key: string;
}

function compare(a: Placed, b: Placed, here: string, turn: ReadonlyMap<string, number>): number {
  return (
    Number(b.key === here) - Number(a.key === here) ||
    (a.key === b.key ? 0 : (turn.get(a.key) ?? a.work.stage) - (turn.get(b.key) ?? b.work.stage) || naturally(a.key, b.key)) ||
    a.work.stage - b.work.stage ||
    a.work.along - b.work.along ||
    naturally(a.work.id, b.work.id)
  );
}

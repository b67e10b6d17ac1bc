import { POSTURES, type Posture } from "./model";
import type { Net } from "./rings";

/** How the case may lie for each step, as bits of `POSTURES`; whatever it may, where the step is on the table. */
export const bitsOf = (postures: readonly Posture[]): number =>
  postures.length === 0 ? (1 << POSTURES.length) - 1 : postures.reduce((n, p) => n | (1 << POSTURES.indexOf(p)), 0);

const ALL = POSTURES.map((_, i) => i);

/**
 * For each step and each way the case lies at it: how often it must be turned at least for all that comes after it. Along every chain,
 * so never more than it takes.
 */
function bounds(net: Net, may: readonly number[], order: readonly number[]): Uint16Array {
  const k = POSTURES.length;
  const least = new Uint16Array(net.ids.length * k);
  for (const v of [...order].reverse())
    for (const p of ALL) {
      let most = 0;
      for (const w of net.after[v] ?? []) {
        let best = Number.MAX_SAFE_INTEGER;
        for (const q of ALL) if ((may[w] as number) & (1 << q)) best = Math.min(best, (least[w * k + q] as number) + (p === q ? 0 : 1));
        if (best > most) most = best;
      }
      least[v * k + p] = most;
    }
  return least;
}

/** Any order that keeps every precedence, by number. The net has no rings. */
export function anyOrder(net: Net): number[] {
  const missing = net.before.map((b) => b.length);
  const open = missing.flatMap((n, i) => (n === 0 ? [i] : []));
  const out: number[] = [];
  for (let v = open.pop(); v !== undefined; v = open.pop()) {
    out.push(v);
    for (const w of net.after[v] ?? []) if (--(missing[w] as number) === 0) open.push(w);
  }
  return out;
}

interface State {
  done: Uint8Array;
  left: number;
  lies: number;
  turns: number;
  from: State | undefined;
}

/** Does everything that can be done as the case lies; it never hurts to. */
function close(net: Net, may: readonly number[], s: State): State {
  const done = s.done.slice();
  let left = s.left;
  const ready: number[] = [];
  const can = (v: number) => !done[v] && (may[v] as number) & (1 << s.lies) && (net.before[v] ?? []).every((b) => done[b]);
  for (let v = 0; v < done.length; v++) if (can(v)) ready.push(v);
  for (let v = ready.pop(); v !== undefined; v = ready.pop()) {
    if (done[v]) continue;
    done[v] = 1;
    left--;
    for (const w of net.after[v] ?? []) if (can(w)) ready.push(w);
  }
  return { ...s, done, left };
}

/** What the search came through, for the benchmark. */
export interface Searched {
  /** How the case lies, block by block, the first as it lies now. */
  blocks: Posture[];
  states: number;
}

/**
 * The fewest turns of the case that let every step be done, exactly: A* over what is done and how the case lies, where everything
 * that can be done as it lies is done at once; the bound is the longest chain of turns that is still to come (docs/architecture.md). `net` has no rings; `start` is how the case lies now. `bounded: false` searches without the bound.
 */
export function fewestTurns(net: Net, may: readonly number[], start: Posture, bounded = true): Searched {
  const k = POSTURES.length;
  const least = bounded ? bounds(net, may, anyOrder(net)) : undefined;
  const ahead = (s: State): number => {
    if (!least) return s.left > 0 ? 1 : 0;
    let most = 0;
    for (let v = 0; v < s.done.length; v++) {
      if (s.done[v]) continue;
      let best = Number.MAX_SAFE_INTEGER;
      for (const q of ALL) if ((may[v] as number) & (1 << q)) best = Math.min(best, (least[v * k + q] as number) + (q === s.lies ? 0 : 1));
      if (best > most) most = best;
    }
    return most;
  };
  const first = close(net, may, {
    done: new Uint8Array(net.ids.length),
    left: net.ids.length,
    lies: POSTURES.indexOf(start),
    turns: 0,
    from: undefined,
  });
  const queue: State[][] = [];
  const put = (s: State, f: number) => {
    const at = queue[f];
    if (at) at.push(s);
    else queue[f] = [s];
  };
  put(first, ahead(first));
  const seen = new Set<string>();
  let states = 0;
  for (let f = 0; f < queue.length; f++) {
    const bucket = queue[f] ?? [];
    // The same bucket may grow while it is gone through.
    for (let i = 0; i < bucket.length; i++) {
      const s = bucket[i] as State;
      const key = `${s.lies} ${String.fromCharCode(...packed(s.done))}`;
      if (seen.has(key)) continue;
      seen.add(key);
      states++;
      if (s.left === 0) return { blocks: blocksOf(s), states };
      for (const q of ALL) {
        if (q === s.lies) continue;
        const next = close(net, may, { ...s, lies: q, turns: s.turns + 1, from: s });
        if (next.left < s.left) put(next, Math.max(f, next.turns + ahead(next)));
      }
    }
  }
  throw new Error("a step was left over: the precedences hold a ring");
}

function packed(done: Uint8Array): number[] {
  const out: number[] = [];
  for (let i = 0; i < done.length; i += 15) {
    let n = 0;
    for (let j = 0; j < 15; j++) n = n * 2 + (done[i + j] ?? 0);
    out.push(n);
  }
  return out;
}

function blocksOf(s: State): Posture[] {
  const out: Posture[] = [];
  for (let at: State | undefined = s; at; at = at.from) out.unshift(POSTURES[at.lies] as Posture);
  return out;
}

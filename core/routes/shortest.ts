import type { Spot } from "../space";
import { CUTOUT_COST, CUTOUT_MM, type Network, nearest, sizeOf } from "./network";

/**
 * Everything that can be reached from one spot: the cheapest way to each node, the shorter of two as cheap. States are node × direction of
 * the last stretch, for a bend costs.
 */
export interface Spread {
  net: Network;
  from: Spot;
  /** Cost of a state, and the state before it; -1 at the start. */
  cost: Float64Array;
  before: Int32Array;
}

/** Costs are whole numbers; of two ways that cost the same the shorter is taken. */
const SHORTER = 1 / 16_384;

/** Which of a spot's nodes are where it can begin: the node nearest to it, on each side on which it is open. */
export function nodesOf(net: Network, s: Spot): number[] {
  const at = nearest(net.ys, s.yMm) * net.xs.length + nearest(net.xs, s.xMm);
  const one = sizeOf(net);
  return s.on === "front" ? [at] : s.on === "behind" ? [one + at] : [at, one + at];
}

export interface Pricing {
  bend: number;
  /** Cost of a stretch from what the network says of it and its length. */
  stretch?: (cost: number, mm: number) => number;
  cutout?: number;
}

const priced = new WeakMap<Network, Map<Pricing, { right: Float64Array; down: Float64Array }>>();

/** What each stretch of a network costs by one kind of price, its length as a tie-break: worked out once. */
function pricesOf(net: Network, price: Pricing): { right: Float64Array; down: Float64Array } {
  const mine = priced.get(net) ?? new Map();
  priced.set(net, mine);
  const made = mine.get(price);
  if (made) return made;
  const nx = net.xs.length;
  const one = sizeOf(net);
  const priceOf = (c: number, mm: number) => (c === Number.POSITIVE_INFINITY ? c : (price.stretch ? price.stretch(c, mm) : c) + mm * SHORTER);
  const gap = (lines: readonly number[], k: number) => (lines[k + 1] ?? 0) - (lines[k] ?? 0);
  const out = {
    right: net.right.map((c, n) => priceOf(c, gap(net.xs, (n % one) % nx))),
    down: net.down.map((c, n) => priceOf(c, gap(net.ys, Math.floor((n % one) / nx)))),
  };
  mine.set(price, out);
  return out;
}

/** Dijkstra over both sheets, in a heap of typed arrays. */
export function spread(net: Network, from: Spot, price: Pricing): Spread {
  const { link } = net;
  const nx = net.xs.length;
  const one = sizeOf(net);
  const states = one * 4;
  const cost = new Float64Array(states).fill(Number.POSITIVE_INFINITY);
  const before = new Int32Array(states).fill(-1);
  const heap = new Heap(states);
  const through = (price.cutout ?? CUTOUT_COST) + CUTOUT_MM * SHORTER;
  for (const n of nodesOf(net, from))
    for (const d of [0, 1]) {
      cost[n * 2 + d] = 0;
      heap.push(n * 2 + d, 0);
    }
  const by = pricesOf(net, price);
  while (heap.size > 0) {
    const s = heap.pop();
    const here = cost[s] as number;
    if (heap.poppedKey > here) continue;
    const n = s >> 1;
    const dir = s & 1;
    const cell = n >= one ? n - one : n;
    const i = cell % nx;
    const level = here + (dir === 1 ? price.bend : 0);
    const upright = here + (dir === 0 ? price.bend : 0);
    // The four neighbours, and the other sheet at a cut-out; written out, for this is where the time goes.
    for (let k = 0; k < 4; k++) {
      let to: number;
      let next: number;
      if (k === 0) {
        if (i + 1 >= nx) continue;
        to = (n + 1) * 2;
        next = level + (by.right[n] as number);
      } else if (k === 1) {
        if (i === 0) continue;
        to = (n - 1) * 2;
        next = level + (by.right[n - 1] as number);
      } else if (k === 2) {
        if (cell + nx >= one) continue;
        to = (n + nx) * 2 + 1;
        next = upright + (by.down[n] as number);
      } else {
        if (cell < nx) continue;
        to = (n - nx) * 2 + 1;
        next = upright + (by.down[n - nx] as number);
      }
      if (next < (cost[to] as number)) {
        cost[to] = next;
        before[to] = s;
        heap.push(to, next);
      }
    }
    const other = link[n] as number;
    if (other >= 0)
      for (let d = 0; d < 2; d++) {
        const t = other * 2 + d;
        const next = here + through;
        if (next < (cost[t] as number)) {
          cost[t] = next;
          before[t] = s;
          heap.push(t, next);
        }
      }
  }
  return { net, from, cost, before };
}

/** The nodes of the cheapest way to a spot, from the start on. */
export function wayTo(s: Spread, to: Spot): number[] | undefined {
  let best = -1;
  for (const n of nodesOf(s.net, to))
    for (const d of [0, 1]) if (best < 0 || (s.cost[n * 2 + d] as number) < (s.cost[best] as number)) best = n * 2 + d;
  if (best < 0 || s.cost[best] === Number.POSITIVE_INFINITY) return undefined;
  const out: number[] = [];
  for (let t = best; t >= 0; t = s.before[t] as number) out.push(t >> 1);
  return out.reverse();
}

class Heap {
  private keys: Float64Array;
  private items: Int32Array;
  size = 0;
  poppedKey = 0;
  constructor(room: number) {
    this.keys = new Float64Array(room);
    this.items = new Int32Array(room);
  }
  push(item: number, key: number): void {
    if (this.size === this.keys.length) {
      const keys = new Float64Array(this.size * 2);
      keys.set(this.keys);
      this.keys = keys;
      const items = new Int32Array(this.size * 2);
      items.set(this.items);
      this.items = items;
    }
    const { keys, items } = this;
    let i = this.size++;
    while (i > 0) {
      const up = (i - 1) >> 1;
      if ((keys[up] as number) <= key) break;
      keys[i] = keys[up] as number;
      items[i] = items[up] as number;
      i = up;
    }
    keys[i] = key;
    items[i] = item;
  }
  pop(): number {
    const { keys, items } = this;
    const top = items[0] as number;
    this.poppedKey = keys[0] as number;
    const key = keys[--this.size] as number;
    const item = items[this.size] as number;
    let i = 0;
    for (;;) {
      let c = i * 2 + 1;
      if (c >= this.size) break;
      if (c + 1 < this.size && (keys[c + 1] as number) < (keys[c] as number)) c++;
      if ((keys[c] as number) >= key) break;
      keys[i] = keys[c] as number;
      items[i] = items[c] as number;
      i = c;
    }
    keys[i] = key;
    items[i] = item;
    return top;
  }
}

import { type Address, type Graph, manhattanMm, naturally, type PortNode } from "../../assembly";
import { inChainOrder } from "./chain-arcs";
import { type Consumer, isCooling, opened } from "./consumers";
import type { NetChoice } from "./net-variables";
import { isThrough, reachesThrough } from "./through";
import { Together } from "./together";

/** A place on a root that a plug may go into. */
export interface Spot {
  address: Address;
  at: { xMm: number; yMm: number };
  /** A speed signal passes here to the root. */
  speed: boolean;
  /** Splitters between it and the root. */
  splitters: number;
  half?: number;
  /** The through-plug of a part further up: the lead has to reach that part, not the root. */
  behind?: { port: PortNode; depth: number };
}

export interface Placed {
  choice: NetChoice;
  spot: Spot;
}

/** More tries than this and the search for an order gives up. */
const MOST_TRIES = 20_000;

/**
 * Gives each lead of a root its place, so that every one that hangs behind another reaches it and no chain is longer than its
 * parts allow. Nearest first, as things sit; where that does not come out, every order is tried. Undefined: none holds.
 */
export function arrange(
  graph: Graph,
  here: readonly NetChoice[],
  open: readonly Spot[],
  wanted: (lead: Address) => Address | undefined,
  heard: (choice: NetChoice) => boolean = () => false,
  behind: ReadonlyMap<Address, Address> = new Map(),
): Placed[] | undefined {
  // Where the answer says what hangs behind what, that is the order.
  if (behind.size > 0) {
    const said = inOrder(graph, inChainOrder(graph, here, behind), open, wanted, heard, behind);
    if (said) return said;
  }
  const at = here[0]?.root.sample.at ?? { xMm: 0, yMm: 0 };
  const opensFirst = (a: NetChoice, b: NetChoice) => Math.sign(b.consumer.opens) - Math.sign(a.consumer.opens);
  // The signal that passes the root is that of the zone which needs it, else of what cools the CPU.
  const heardFirst = (a: NetChoice, b: NetChoice) => Number(heard(b)) - Number(heard(a));
  const nearest = (a: NetChoice, b: NetChoice) =>
    b.consumer.weight - a.consumer.weight ||
    heardFirst(a, b) ||
    Number(b.consumer.reports) - Number(a.consumer.reports) ||
    Number(isCooling(b.consumer)) - Number(isCooling(a.consumer)) ||
    manhattanMm(a.consumer.node.origin, at) - manhattanMm(b.consumer.node.origin, at) ||
    naturally(a.consumer.address, b.consumer.address);
  // What opens places goes first, nearest first, so that a chain runs the way things sit.
  const order = [...here].sort((a, b) => opensFirst(a, b) || nearest(a, b));
  const chained = here.some((c) => c.consumer.opens > 0);
  const heardOrder =
    chained && here.some(heard)
      ? inOrder(
          graph,
          [...here].sort((a, b) => heardFirst(a, b) || opensFirst(a, b) || nearest(a, b)),
          open,
          wanted,
          heard,
        )
      : undefined;
  const first = heardOrder ?? inOrder(graph, order, open, wanted, heard);
  if (first || !chained || here.some((c) => c.consumer.node.lead.family === "usb2")) return first;
  return anyOrder(graph, order, open, [], { left: MOST_TRIES });
}

/** At most so many leads are left out in every combination, where there are few; beyond, whatever finds no place in its turn. */
const MOST_LEFT_OUT = 2;
const FEW = 8;

/** The largest set of a root's leads that has an order, where the whole has none; what cools, then what is mandatory, stays longest. */
export function arrangeMost(
  graph: Graph,
  here: readonly NetChoice[],
  open: readonly Spot[],
  wanted: (lead: Address) => Address | undefined,
  heard?: (c: NetChoice) => boolean,
  behind?: ReadonlyMap<Address, Address>,
): Placed[] {
  const worth = (c: NetChoice) => (c.consumer.node.lead.need === "mandatory" ? 4 : 0) + (isCooling(c.consumer) ? 2 : 0) + Math.sign(c.consumer.opens);
  const rest = [...here].sort((a, b) => worth(a) - worth(b) || naturally(b.consumer.address, a.consumer.address));
  for (let k = 0; k <= (here.length > FEW ? 0 : MOST_LEFT_OUT); k++)
    for (const out of choose(rest, k)) {
      const found = arrange(
        graph,
        here.filter((c) => !out.includes(c)),
        open,
        wanted,
        heard,
        behind,
      );
      if (found) return found;
    }
  // As many as go on in turn, what is worth most first.
  const said = behind && behind.size > 0 ? behind : undefined;
  return inOrder(graph, [...rest].reverse(), open, wanted, heard ?? (() => false), said, true) ?? [];
}

function* choose<X>(list: readonly X[], k: number, from = 0): Generator<X[]> {
  if (k === 0) {
    yield [];
    return;
  }
  for (let i = from; i <= list.length - k; i++) for (const more of choose(list, k - 1, i + 1)) yield [list[i] as X, ...more];
}

/** Sets of consumers that can hang behind one another, directly or through others of the set. */
export function chainsAmong(graph: Graph, here: readonly NetChoice[]): NetChoice[][] {
  const behind = (a: Consumer, b: Consumer) =>
    opened(b.node.part, b.node.lead).some((o) => {
      const host = graph.ports.get(`${b.node.part.id}:${o.id}`);
      // An outlet of a splitter hangs where its splitter does: whatever reaches the root reaches it.
      return host !== undefined && (!isThrough(host) || reachesThrough(graph, a, host));
    });
  const together = new Together(here.length);
  for (const [i, a] of here.entries())
    for (const [j, b] of here.entries()) if (i < j && (behind(a.consumer, b.consumer) || behind(b.consumer, a.consumer))) together.join(i, j);
  return together.sets().map((set) => set.map((i) => here[i] as NetChoice));
}

function fits(graph: Graph, choice: NetChoice, spot: Spot): boolean {
  const { consumer, via, follows } = choice;
  if (!spot.behind) return !follows;
  const most = consumer.node.lead.mostInChain;
  if (most !== undefined && spot.behind.depth >= most) return false;
  return reachesThrough(graph, consumer, spot.behind.port, via?.splitter.lengthMm ?? 0);
}

/** Places that a part opens once it is plugged at a spot. */
function opens(graph: Graph, { consumer }: NetChoice, spot: Spot): Spot[] {
  const { part, lead, origin } = consumer.node;
  return opened(part, lead).flatMap((p): Spot[] => {
    const address = `${part.id}:${p.id}`;
    const node = graph.ports.get(address);
    if (p.family === "usb2" || !node || graph.atPort.get(address)?.some((c) => c.state !== "planned")) return [];
    const speed = spot.speed && p.speedTo !== undefined;
    const splitters = spot.splitters + (part.type.kind === "splitter" ? 1 : 0);
    if (!isThrough(node)) return [{ address, at: spot.at, speed, splitters, ...(spot.behind ? { behind: spot.behind } : {}) }];
    return [{ address, at: origin, speed, splitters, behind: { port: node, depth: (spot.behind?.depth ?? 0) + 1 } }];
  });
}

const better =
  ({ consumer }: NetChoice, want: Address | undefined, heard: boolean, reserved: boolean) =>
  (a: Spot, b: Spot): number =>
    (consumer.node.part.type.kind === "splitter" ? a.splitters - b.splitters : 0) ||
    (heard ? Number(b.speed) - Number(a.speed) : reserved ? Number(a.speed) - Number(b.speed) : 0) ||
    Number(b.address === want) - Number(a.address === want) ||
    (consumer.reports || heard ? Number(b.speed) - Number(a.speed) : Number(a.speed) - Number(b.speed)) ||
    manhattanMm(consumer.node.origin, a.at) - manhattanMm(consumer.node.origin, b.at) ||
    naturally(a.address, b.address) ||
    (a.half ?? 0) - (b.half ?? 0);

function inOrder(
  graph: Graph,
  order: readonly NetChoice[],
  spots: readonly Spot[],
  wanted: (lead: Address) => Address | undefined,
  heard: (choice: NetChoice) => boolean,
  behind?: ReadonlyMap<Address, Address>,
  some = false,
): Placed[] | undefined {
  let open = [...spots];
  // The place whose signal is heard is kept for the lead that is meant.
  const reserved = order.some(heard);
  const out: Placed[] = [];
  for (const choice of order) {
    const host = behind?.get(choice.consumer.address);
    const own = (s: Spot) => behind === undefined || (host === undefined ? !s.behind : s.address === host);
    const spot = open
      .filter((s) => own(s) && fits(graph, choice, s))
      .sort(better(choice, wanted(choice.consumer.address), heard(choice), reserved))[0];
    if (!spot && some) continue;
    if (!spot) return undefined;
    open = open.filter((s) => s !== spot);
    if (choice.consumer.weight === 2)
      open = open.filter((s, i) => s.address !== spot.address || open.findIndex((x) => x.address === s.address) !== i);
    out.push({ choice, spot });
    open.push(...opens(graph, choice, spot));
  }
  return out;
}

function anyOrder(
  graph: Graph,
  left: readonly NetChoice[],
  open: readonly Spot[],
  done: readonly Placed[],
  tries: { left: number },
): Placed[] | undefined {
  if (left.length === 0) return [...done];
  // The lead with the fewest places it could ever go into decides least: it is placed as soon as it can be.
  for (const choice of left) {
    const rest = left.filter((c) => c !== choice);
    const roots = open.filter((s) => !s.behind);
    const spots = open.filter((s) => fits(graph, choice, s)).filter((s) => s.behind !== undefined || s === roots[0]);
    for (const spot of spots.sort(better(choice, undefined, false, false))) {
      if (tries.left-- <= 0) return undefined;
      const found = anyOrder(graph, rest, [...open.filter((s) => s !== spot), ...opens(graph, choice, spot)], [...done, { choice, spot }], tries);
      if (found) return found;
    }
  }
  return undefined;
}

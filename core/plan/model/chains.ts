import { type Address, type Graph, manhattanMm, naturally, type PortNode } from "../../assembly";
import { opened } from "../../wiring";
import type { NetChoice } from "./fans-lights-usb";
import { isThrough, reachesThrough } from "./through";

/** A place on a root that a plug may go into. */
export interface Spot {
  address: Address;
  at: { xMm: number; yMm: number };
  speed: boolean;
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
): Placed[] | undefined {
  const at = here[0]?.root.sample.at ?? { xMm: 0, yMm: 0 };
  // What opens places goes first, nearest first, so that a chain runs the way things sit.
  const order = [...here].sort(
    (a, b) =>
      Math.sign(b.consumer.opens) - Math.sign(a.consumer.opens) ||
      b.consumer.weight - a.consumer.weight ||
      Number(b.consumer.reports) - Number(a.consumer.reports) ||
      manhattanMm(a.consumer.node.origin, at) - manhattanMm(b.consumer.node.origin, at) ||
      naturally(a.consumer.address, b.consumer.address),
  );
  const first = inOrder(graph, order, open, wanted);
  if (first || !here.some((c) => c.consumer.opens > 0) || here.some((c) => c.consumer.node.lead.family === "usb2")) return first;
  const tries = { left: MOST_TRIES };
  return anyOrder(graph, order, open, [], tries);
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
    if (!isThrough(node)) return [{ address, at: spot.at, speed, ...(spot.behind ? { behind: spot.behind } : {}) }];
    return [{ address, at: origin, speed, behind: { port: node, depth: (spot.behind?.depth ?? 0) + 1 } }];
  });
}

const better =
  ({ consumer }: NetChoice, want: Address | undefined) =>
  (a: Spot, b: Spot): number =>
    Number(b.address === want) - Number(a.address === want) ||
    (consumer.reports ? Number(b.speed) - Number(a.speed) : Number(a.speed) - Number(b.speed)) ||
    manhattanMm(consumer.node.origin, a.at) - manhattanMm(consumer.node.origin, b.at) ||
    naturally(a.address, b.address) ||
    (a.half ?? 0) - (b.half ?? 0);

function inOrder(
  graph: Graph,
  order: readonly NetChoice[],
  spots: readonly Spot[],
  wanted: (lead: Address) => Address | undefined,
): Placed[] | undefined {
  let open = [...spots];
  const out: Placed[] = [];
  for (const choice of order) {
    const spot = open.filter((s) => fits(graph, choice, s)).sort(better(choice, wanted(choice.consumer.address)))[0];
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
    for (const spot of spots.sort(better(choice, undefined))) {
      if (tries.left-- <= 0) return undefined;
      const found = anyOrder(graph, rest, [...open.filter((s) => s !== spot), ...opens(graph, choice, spot)], [...done, { choice, spot }], tries);
      if (found) return found;
    }
  }
  return undefined;
}

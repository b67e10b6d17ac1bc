import { manhattanMm, SLACK_MM } from "../assembly";
import type { Point } from "../catalogue";
import type { Sheet, Spot } from "../space";
import { BEND_COST, CUTOUT_MM, type Network, overFaceMm, RATE, sizeOf } from "./network";
import { type Spread, spread, wayTo } from "./shortest";

/** One stretch of a way on one side of the tray. */
export interface Stretch {
  sheet: Sheet;
  points: Point[];
}

export interface Way {
  stretches: Stretch[];
  /** Cut-outs it goes through, by index of the network. */
  cutouts: number[];
  lengthMm: number;
  /** Of it over the board's face. */
  overBoardMm: number;
  /** It goes through something solid, for there is no other way. */
  blocked: boolean;
}

/** As hands lay a lead: along the edges and behind the tray. */
const TIDY = { bend: BEND_COST };
/** As short as it goes, a little longer where that spares the board's face, a fan or a bend. */
const SHORT = {
  bend: 4,
  cutout: CUTOUT_MM,
  stretch: (cost: number, mm: number) => (cost >= mm * RATE.through ? mm * 200 : mm + cost * (0.08 / RATE.boardEdge)),
};
/** A hop this short goes straight over (common practice). */
const SHORT_HOP_MM = 160;

const keyOf = (s: Spot) => `${s.on}:${Math.round(s.xMm * 10)},${Math.round(s.yMm * 10)}`;

/**
 * What spreads of all networks together may take, bytes: each takes 12 a state, a plan of many leads asks for hundreds again and again, and a
 * server is asked of as many builds as there are benches.
 */
const MOST_BYTES = 160_000_000;

/** Spreads by network, kind and start, those of late last: worked out when first asked for. */
const known = new Map<string, Spread>();
let bytes = 0;
const numbers = new WeakMap<Network, number>();
let lastNumber = 0;
function numberOf(net: Network): number {
  const has = numbers.get(net) ?? ++lastNumber;
  numbers.set(net, has);
  return has;
}
const bytesOf = (s: Spread) => sizeOf(s.net) * 4 * 12;

function spreadOf(net: Network, from: Spot, how: "tidy" | "short"): Spread {
  const key = `${numberOf(net)} ${how} ${keyOf(from)}`;
  const was = known.get(key);
  if (was) known.delete(key);
  const made = was ?? spread(net, from, how === "tidy" ? TIDY : SHORT);
  known.set(key, made);
  if (was) return made;
  bytes += bytesOf(made);
  for (const [old, s] of known) {
    if (bytes <= MOST_BYTES || s === made) break;
    known.delete(old);
    bytes -= bytesOf(s);
  }
  return made;
}

/** The way from a lead's beginning to its port. It is looked for from the port: there are fewer of them than of leads, and each is asked for often. */
export function wayBetween(net: Network, a: Spot, b: Spot, how: "tidy" | "short"): Way | undefined {
  const nodes = wayTo(spreadOf(net, b, how), a);
  return nodes && describe(net, nodes.reverse(), a, b);
}

/** Points, length and what it crosses; the ends themselves stand before the first and behind the last node. */
function describe(net: Network, nodes: readonly number[], from: Spot, to: Spot): Way {
  const one = sizeOf(net);
  const nx = net.xs.length;
  const at = (n: number): Point => {
    const cell = n >= one ? n - one : n;
    return { xMm: net.xs[cell % nx] as number, yMm: net.ys[Math.floor(cell / nx)] as number };
  };
  const stretches: Stretch[] = [];
  const cutouts: number[] = [];
  let lengthMm = 0;
  let overBoardMm = 0;
  let blocked = false;
  for (const [i, n] of nodes.entries()) {
    const sheet: Sheet = n >= one ? "behind" : "front";
    const last = stretches.at(-1);
    if (last?.sheet === sheet) last.points.push(at(n));
    else stretches.push({ sheet, points: [at(n)] });
    const was = nodes[i - 1];
    if (was === undefined) continue;
    if (net.link[was] === n) {
      lengthMm += CUTOUT_MM;
      cutouts.push(net.cutoutAt.get(was >= one ? was - one : was) ?? -1);
      continue;
    }
    const [p, q] = [at(was), at(n)];
    const mm = manhattanMm(p, q);
    lengthMm += mm;
    const low = Math.min(was, n);
    const cost = (p.yMm === q.yMm ? net.right[low] : net.down[low]) as number;
    if (mm > 0 && cost >= mm * RATE.through) blocked = true;
    if (sheet === "front" && net.boardRect) overBoardMm += overFaceMm(net.boardRect, p, q);
  }
  const ends: [Stretch | undefined, Spot, "unshift" | "push"][] = [
    [stretches[0], from, "unshift"],
    [stretches.at(-1), to, "push"],
  ];
  for (const [s, spot, put] of ends) {
    const p = s?.points.at(put === "push" ? -1 : 0);
    if (!s || !p) continue;
    lengthMm += manhattanMm(p, spot);
    // Between a spot and the grid leads turn square, too.
    const next = s.points.at(put === "push" ? -2 : 1);
    const level = next === undefined || next.yMm !== p.yMm;
    if (p.xMm !== spot.xMm && p.yMm !== spot.yMm) s.points[put](level ? { xMm: p.xMm, yMm: spot.yMm } : { xMm: spot.xMm, yMm: p.yMm });
    s.points[put]({ xMm: spot.xMm, yMm: spot.yMm });
  }
  return { stretches: stretches.map((s) => ({ ...s, points: corners(s.points) })), cutouts, lengthMm, overBoardMm, blocked };
}

/** Without the points that lie on a straight line. */
function corners(points: readonly Point[]): Point[] {
  const out: Point[] = [];
  for (const p of points) {
    const a = out.at(-2);
    const b = out.at(-1);
    if (b && b.xMm === p.xMm && b.yMm === p.yMm) continue;
    if (a && b && ((a.xMm === b.xMm && b.xMm === p.xMm) || (a.yMm === b.yMm && b.yMm === p.yMm))) out[out.length - 1] = p;
    else out.push(p);
  }
  return out;
}

export const straightMm = (a: Point, b: Point) => Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm);

/**
 * What a lead needs from one spot to another, service loop and bends included: laid tidily where it is long enough for that, else as short as
 * it goes.
 */
export interface Needs {
  needMm: number;
  /** The way it then goes; undefined where the case's channels are not known and a rule of thumb counts. */
  way?: Way;
  tidy: boolean;
}

/**
 * The tidy way through a cut-out that somebody asks for: to it on one side of the tray, and on from it on the other. Undefined where it would
 * only go through and back again, or through something solid.
 */
export function wayThrough(net: Network, a: Spot, b: Spot, cutout: number): Way | undefined {
  const c = net.cutouts[cutout];
  if (!c) return undefined;
  const on = (sheet: Sheet): Spot => ({ xMm: c.at.xMm, yMm: c.at.yMm, on: sheet });
  const tried = (["front", "behind"] as const).flatMap((first) => {
    const second = first === "front" ? "behind" : "front";
    const to = wayBetween(net, a, on(first), "tidy");
    const from = wayBetween(net, on(second), b, "tidy");
    return to && from ? [{ to, from }] : [];
  });
  const best = tried.reduce<(typeof tried)[number] | undefined>(
    (m, t) => (m && m.to.lengthMm + m.from.lengthMm <= t.to.lengthMm + t.from.lengthMm ? m : t),
    undefined,
  );
  if (!best || best.to.blocked || best.from.blocked || [...best.to.cutouts, ...best.from.cutouts].includes(cutout)) return undefined;
  return {
    stretches: [...best.to.stretches, ...best.from.stretches],
    cutouts: [...best.to.cutouts, cutout, ...best.from.cutouts],
    lengthMm: best.to.lengthMm + CUTOUT_MM + best.from.lengthMm,
    overBoardMm: best.to.overBoardMm + best.from.overBoardMm,
    blocked: false,
  };
}

/** As hands lay it: a short hop straight over, all else along edges and behind the tray. */
function tidyWay(net: Network, a: Spot, b: Spot): Way | undefined {
  const hop = manhattanMm(a, b) <= SHORT_HOP_MM ? wayBetween(net, a, b, "short") : undefined;
  return hop && hop.lengthMm <= SHORT_HOP_MM && !hop.blocked ? hop : wayBetween(net, a, b, "tidy");
}

/** So many ways of leads that are plugged are remembered of one network: those of a build and of what is tried in it. */
const MOST_WAYS = 600;
const ways = new WeakMap<Network, Map<string, Way | undefined>>();
const exactly = (s: Spot) => `${s.on}:${s.xMm},${s.yMm}`;

/** A way of a lead that is plugged: the same is asked for again with every entry and every page of its job. */
function plugged(net: Network, a: Spot, b: Spot, how: "tidy" | "short"): Way | undefined {
  const mine = ways.get(net) ?? new Map<string, Way | undefined>();
  ways.set(net, mine);
  const key = `${how} ${exactly(a)} ${exactly(b)}`;
  const is = mine.has(key) ? mine.get(key) : how === "tidy" ? tidyWay(net, a, b) : wayBetween(net, a, b, "short");
  mine.delete(key);
  mine.set(key, is);
  for (const old of mine.keys()) {
    if (mine.size <= MOST_WAYS) break;
    mine.delete(old);
  }
  return is;
}

/** What a lead of `hasMm` needs and how it then lies; undefined where the two ends are not joined at all. */
export function needs(net: Network, a: Spot, b: Spot, hasMm: number, slackMm = SLACK_MM): Needs | undefined {
  const tidy = plugged(net, a, b, "tidy");
  if (!tidy) return undefined;
  if (tidy.lengthMm + slackMm <= hasMm && !tidy.blocked) return { needMm: tidy.lengthMm + slackMm, way: tidy, tidy: true };
  const short = plugged(net, a, b, "short");
  if (!short || short.lengthMm >= tidy.lengthMm) return { needMm: tidy.lengthMm + slackMm, way: tidy, tidy: true };
  return { needMm: short.lengthMm + slackMm, way: short, tidy: false };
}

const lengths = new WeakMap<Network, Map<string, number | undefined>>();
const costs = new WeakMap<Network, Map<string, number | undefined>>();

function remembered(store: WeakMap<Network, Map<string, number | undefined>>, net: Network, a: Spot, b: Spot, work: () => number | undefined) {
  const mine = store.get(net) ?? new Map<string, number | undefined>();
  store.set(net, mine);
  const key = `${keyOf(a)} ${keyOf(b)}`;
  if (mine.has(key)) return mine.get(key);
  const value = work();
  mine.set(key, value);
  return value;
}

/** The least that a lead needs from one spot to another, service loop included, in mm: what decides whether it reaches. */
export const leastMm = (net: Network, a: Spot, b: Spot): number | undefined =>
  remembered(lengths, net, a, b, () => {
    const all = (["tidy", "short"] as const).flatMap((how) => wayBetween(net, a, b, how)?.lengthMm ?? []);
    return all.length > 0 ? Math.min(...all) + SLACK_MM : undefined;
  });

/** Cost of a way in whole centimetres: as it is laid tidily, with the stretch over the board's face counted twice. */
export const wayCostCm = (net: Network, a: Spot, b: Spot): number | undefined =>
  remembered(costs, net, a, b, () => {
    const w = tidyWay(net, a, b);
    return w && Math.round((w.lengthMm + w.overBoardMm + SLACK_MM) / 10);
  });

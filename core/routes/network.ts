import { type Graph, kept, partsOfKind, type Rect } from "../assembly";
import { isUsable, noRoomBehind, type PartType, type Point } from "../catalogue";
import { type Body, bodies, CLEAR_MM, type Sheet, STANDING } from "../space";

/** What a millimetre costs, in twentieths of a millimetre along the board's edge on the front. Tried on the demo builds. */
export const RATE = {
  boardEdge: 20,
  wall: 23,
  free: 32,
  behind: 19,
  boardFace: 100,
  overPart: 160,
  beforeFan: 64,
  /** Never worth it where there is any other way. */
  through: 4000,
  /** Share of the rate along a channel: leads that lie in one make a bundle. */
  channel: 0.75,
} as const;
/** A cut-out costs as much as so many mm along the board's edge, and takes so much lead; a bend only costs. */
export const CUTOUT_COST = 25 * 20;
export const CUTOUT_MM = 20;
export const BEND_COST = 14 * 20;

/** Lines closer than this are one. */
const MERGE_MM = 6;
/** Lines of one axis; what comes later is left out, and its ends go to the nearest line. An entry of any size costs no more than this. */
const MOST_LINES = 90;
const WALL_MM = 6;
/** Leads along the board's edge lie so far outside it. */
const EDGE_MM = 7;
const NEAR_EDGE_MM = 12;
const NEAR_WALL_MM = 14;
/** Nothing hangs in front of a fan so near. */
const BEFORE_FAN_MM = 30;

export interface Cutout {
  id: string;
  label: string;
  at: Point;
  widthMm: number;
  heightMm: number;
  /** A rubber lip takes a fifth of the opening (common practice). */
  grommet?: boolean;
}

/** An opening that says nothing of its size, mm (common practice). */
export const CUTOUT_SIZE_MM = { w: 20, h: 45 } as const;

/** The two sheets as one grid of lines. A node is sheet × row × column; rates are those of the stretch to the right and of the one below. */
export interface Network {
  xs: readonly number[];
  ys: readonly number[];
  /** Cost of the stretch from a node to its right neighbour and to the one below; Infinity at the rim. */
  right: Float64Array;
  down: Float64Array;
  /** Node on the other sheet where a cut-out is, else -1. */
  link: Int32Array;
  cutouts: readonly Cutout[];
  /** Cut-out at a node, by index. */
  cutoutAt: ReadonlyMap<number, number>;
  boardRect?: Rect;
  /** Channels, cut-outs or the like are not known and taken as typical; which. */
  assumed: readonly string[];
}

export const sizeOf = (n: Network) => n.xs.length * n.ys.length;

/** The cut-outs of the case with their sizes; typical ones beside the board where a case of known outline names none. */
function cutoutsOf(graph: Graph): { cutouts: Cutout[]; assumed: string[] } {
  const b = partsOfKind(graph, "case")[0]?.type.body;
  const r = graph.boardRect;
  if (!b?.widthMm || !b.heightMm || noRoomBehind(b)) return { cutouts: [], assumed: [] };
  const [w, h] = [b.widthMm, b.heightMm];
  const real = b.cutouts.filter((c) => c.at.xMm >= 0 && c.at.yMm >= 0 && c.at.xMm <= w && c.at.yMm <= h);
  if (real.length > 0)
    return {
      cutouts: real.map((c) => ({ id: c.id, label: c.label, at: c.at, ...sized(c) })),
      assumed: [],
    };
  if (!r) return { cutouts: [], assumed: [] };
  const x = Math.min(b.widthMm - 20, r.xMm + r.widthMm + 19);
  const typical = [
    ["top left", r.xMm + 20, r.yMm - 11],
    ["top right", r.xMm + r.widthMm - 15, r.yMm - 11],
    ["right, upper", x, r.yMm + r.heightMm * 0.25],
    ["right, middle", x, r.yMm + r.heightMm * 0.55],
    ["right, lower", x, r.yMm + r.heightMm * 0.85],
    ["bottom left", r.xMm + r.widthMm * 0.35, r.yMm + r.heightMm + 12],
    ["bottom right", r.xMm + r.widthMm * 0.8, r.yMm + r.heightMm + 12],
  ] as const;
  return {
    cutouts: typical
      .filter(([, cx, cy]) => cx > 4 && cy > 4 && cx < (b.widthMm ?? 0) - 4 && cy < (b.heightMm ?? 0) - 4)
      .map(([label, xMm, yMm], i) => ({
        id: `typical-${i + 1}`,
        label: `${label} (assumed)`,
        at: { xMm: Math.round(xMm), yMm: Math.round(yMm) },
        widthMm: CUTOUT_SIZE_MM.w,
        heightMm: CUTOUT_SIZE_MM.h,
      })),
    assumed: ["cut-outs"],
  };
}

function sized(c: { widthMm?: number | undefined; heightMm?: number | undefined; grommet?: string | undefined }) {
  return { widthMm: c.widthMm ?? CUTOUT_SIZE_MM.w, heightMm: c.heightMm ?? CUTOUT_SIZE_MM.h, grommet: c.grommet !== undefined };
}

/** Lines of one axis: what comes first stays, what is closer to one that stays than they can be told apart is left out. */
function lines(wanted: readonly (readonly number[])[], least: number, most: number): number[] {
  const kept: number[] = [];
  for (const group of wanted)
    for (const v of [...group].sort((a, b) => a - b)) {
      const at = Math.round(v);
      if (at < least || at > most) continue;
      if (kept.length < MOST_LINES && !kept.some((k) => Math.abs(k - at) < MERGE_MM)) kept.push(at);
    }
  return kept.sort((a, b) => a - b);
}

/** The open inside of a rectangle meets a stretch. */
const meets = (r: Rect, x1: number, y1: number, x2: number, y2: number) =>
  Math.max(x1, x2) > r.xMm && Math.min(x1, x2) < r.xMm + r.widthMm && Math.max(y1, y2) > r.yMm && Math.min(y1, y2) < r.yMm + r.heightMm;

const lap = (a: number, b: number, lo: number, hi: number) => Math.max(0, Math.min(Math.max(a, b), hi) - Math.max(Math.min(a, b), lo));
const holds = (r: Rect, x: number, y: number) => x > r.xMm && x < r.xMm + r.widthMm && y > r.yMm && y < r.yMm + r.heightMm;

/** How much of a level or upright stretch lies over the board's face, mm. */
export function overFaceMm(r: Rect, p: Point, q: Point): number {
  if (p.yMm === q.yMm) return p.yMm > r.yMm && p.yMm < r.yMm + r.heightMm ? lap(p.xMm, q.xMm, r.xMm, r.xMm + r.widthMm) : 0;
  return p.xMm > r.xMm && p.xMm < r.xMm + r.widthMm ? lap(p.yMm, q.yMm, r.yMm, r.yMm + r.heightMm) : 0;
}

/** The network of a build by which leads can be drawn, with typical cut-outs where the case names none; undefined without an outline. */
export function drawnNetwork(graph: Graph): Network | undefined {
  // A graph with other connections has the same parts: a plan asks this of thousands of them.
  const { parts } = graph;
  if (!byParts.has(parts))
    byParts.set(
      parts,
      kept(graph, "tray-network", STANDING, () => shared(graph)),
    );
  return byParts.get(parts);
}

const byParts = new WeakMap<Graph["parts"], Network | undefined>();

/** The network of a build by which reach is judged, or undefined where the case's cut-outs are not known: then there is only a rule of thumb. */
export function networkOf(graph: Graph): Network | undefined {
  const net = drawnNetwork(graph);
  return net && net.assumed.length === 0 ? net : undefined;
}

/**
 * What stands where somebody has put it: a hub that is only offered, or whose plate nobody has named, is in nobody's way. Cards are not in it:
 * where they are follows from what is plugged, and no lead's reach hangs on another's plug.
 */
const standing = (graph: Graph): readonly Body[] => bodies(graph).filter((b) => !b.assumed && b.kind !== "light" && b.kind !== "card");

/**
 * Networks of late, so that a build read anew, or with a lead moved, goes on with the ways that are known: as many as there are benches in a
 * large shop. Each takes about a third of a megabyte; what is worked out from them has a bound of its own.
 */
const late = new Map<string, Network | undefined>();
const MOST_LATE = 128;

function shared(graph: Graph): Network | undefined {
  const body = partsOfKind(graph, "case")[0]?.type.body;
  const board = partsOfKind(graph, "board")[0];
  const key = JSON.stringify([
    body && [body.widthMm, body.heightMm, body.cutouts, body.tiePoints, body.channels, noRoomBehind(body)],
    graph.boardRect,
    board?.type.ports.map((p) => [p.at.xMm, p.at.yMm]),
    standing(graph).map((b) => [b.kind, b.sheets, b.rect, b.lets, b.faceOn]),
  ]);
  const known = late.get(key);
  late.delete(key);
  const net = known ?? makeNetwork(graph);
  late.set(key, net);
  for (const old of late.keys()) {
    if (late.size <= MOST_LATE) break;
    late.delete(old);
  }
  return net;
}

/** The network of a build; `share` of the rate along a channel: 1 makes no bundles. */
export function makeNetwork(graph: Graph, share: number = RATE.channel): Network | undefined {
  const body = partsOfKind(graph, "case")[0]?.type.body;
  const { cutouts, assumed } = cutoutsOf(graph);
  const frontOnly = noRoomBehind(body);
  if (!body?.widthMm || !body.heightMm || (cutouts.length === 0 && !frontOnly)) return undefined;
  const [w, h] = [body.widthMm, body.heightMm];
  const all = standing(graph);
  const solidOn = (s: Sheet) => all.filter((b) => b.lets === "nothing" && b.sheets.includes(s) && !(s === "behind" && b.kind === "fan"));
  const solid = { front: solidOn("front"), behind: solidOn("behind") };
  const r = graph.boardRect;
  const within = (p: Point) => p.xMm >= 0 && p.yMm >= 0 && p.xMm <= w && p.yMm <= h;
  const ties = body.tiePoints.filter((t) => within(t.at));
  const shell = partsOfKind(graph, "case")[0]?.type as PartType;
  const channels = (body.channels ?? []).filter(
    (c) => isUsable(shell, c) && !(c.side === "front" && r && meets(r, c.from.xMm, c.from.yMm, c.to.xMm, c.to.yMm)),
  );
  const board = partsOfKind(graph, "board")[0];
  const axis = (v: "xMm" | "yMm", long: "widthMm" | "heightMm", most: number) => {
    return lines(
      [
        cutouts.map((c) => c.at[v]),
        r ? [r[v] - EDGE_MM, r[v] + r[long] + EDGE_MM] : [],
        channels.filter((c) => c.from[v] === c.to[v]).map((c) => c.from[v]),
        [WALL_MM, most - WALL_MM],
        ties.map((t) => t.at[v]),
        all.flatMap((b) => [b.rect[v] - CLEAR_MM, b.rect[v] + b.rect[long] + CLEAR_MM]),
        (board?.type.ports ?? []).map((p) => (r?.[v] ?? 0) + p.at[v]),
      ],
      3,
      most - 3,
    );
  };
  const xs = axis("xMm", "widthMm", w);
  const ys = axis("yMm", "heightMm", h);
  const channel = channelLines(channels, cutouts, ties, r);
  const over = all.filter((b) => b.lets === "at a price" && !b.faceOn && b.sheets.includes("front"));
  const fans = all.filter((b) => b.kind === "fan" && !b.faceOn);
  const rate = (sheet: Sheet, x1: number, y1: number, x2: number, y2: number): number => {
    if (frontOnly && sheet === "behind") return Number.POSITIVE_INFINITY;
    const long = Math.abs(x2 - x1) + Math.abs(y2 - y1);
    for (const b of solid[sheet]) if (meets(b.rect, x1, y1, x2, y2)) return long * RATE.through;
    const part = channel(sheet, x1, y1, x2, y2) ? share : 1;
    if (sheet === "behind") return long * RATE.behind * part;
    for (const b of over)
      if (meets(b.rect, x1, y1, x2, y2)) return long * (b.kind === "radiator" || b.kind === "fan" ? RATE.beforeFan : RATE.overPart);
    const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2];
    const face = r ? overFaceMm(r, { xMm: x1, yMm: y1 }, { xMm: x2, yMm: y2 }) : 0;
    const edge = r !== undefined && holds(widened(r, NEAR_EDGE_MM), mx, my);
    const before = fans.some((f) => meets(widened(f.rect, BEFORE_FAN_MM), x1, y1, x2, y2));
    const wall = mx < NEAR_WALL_MM || my < NEAR_WALL_MM || mx > w - NEAR_WALL_MM || my > h - NEAR_WALL_MM;
    const open = edge ? RATE.boardEdge : before ? RATE.beforeFan : wall ? RATE.wall : RATE.free;
    return face * RATE.boardFace + (long - face) * open * part;
  };
  return lay({ xs, ys, rate, cutouts, assumed, ...(r ? { boardRect: r } : {}) });
}

const widened = (r: Rect, by: number): Rect => ({ xMm: r.xMm - by, yMm: r.yMm - by, widthMm: r.widthMm + 2 * by, heightMm: r.heightMm + 2 * by });

/** Does a stretch lie in a channel: one that the case names, else the lines along which cut-outs and tie points stand, and the board's edges. */
function channelLines(
  named: readonly { from: Point; to: Point; side: "front" | "rear" }[],
  cutouts: readonly Cutout[],
  ties: readonly { at: Point; side: "front" | "rear" }[],
  board: Rect | undefined,
) {
  const sideOf = (s: Sheet) => (s === "front" ? "front" : "rear");
  const xsOf = (s: Sheet) =>
    new Set([
      ...ties.filter((t) => t.side === sideOf(s)).map((t) => Math.round(t.at.xMm)),
      ...(s === "behind" ? cutouts.map((c) => Math.round(c.at.xMm)) : []),
    ]);
  const ysOf = (s: Sheet) =>
    new Set([
      ...ties.filter((t) => t.side === sideOf(s)).map((t) => Math.round(t.at.yMm)),
      ...(s === "behind" ? cutouts.map((c) => Math.round(c.at.yMm)) : []),
    ]);
  const typical = { front: { xs: xsOf("front"), ys: ysOf("front") }, behind: { xs: xsOf("behind"), ys: ysOf("behind") } };
  if (board) {
    for (const x of [board.xMm - EDGE_MM, board.xMm + board.widthMm + EDGE_MM]) typical.front.xs.add(Math.round(x));
    for (const y of [board.yMm - EDGE_MM, board.yMm + board.heightMm + EDGE_MM]) typical.front.ys.add(Math.round(y));
  }
  const on = (c: { from: Point; to: Point }, x1: number, y1: number, x2: number, y2: number) =>
    c.from.xMm === c.to.xMm
      ? x1 === x2 &&
        Math.abs(x1 - c.from.xMm) < MERGE_MM &&
        Math.min(y1, y2) >= Math.min(c.from.yMm, c.to.yMm) - MERGE_MM &&
        Math.max(y1, y2) <= Math.max(c.from.yMm, c.to.yMm) + MERGE_MM
      : y1 === y2 &&
        Math.abs(y1 - c.from.yMm) < MERGE_MM &&
        Math.min(x1, x2) >= Math.min(c.from.xMm, c.to.xMm) - MERGE_MM &&
        Math.max(x1, x2) <= Math.max(c.from.xMm, c.to.xMm) + MERGE_MM;
  return (sheet: Sheet, x1: number, y1: number, x2: number, y2: number): boolean => {
    const mine = named.filter((c) => c.side === sideOf(sheet));
    if (mine.length > 0) return mine.some((c) => on(c, x1, y1, x2, y2));
    return x1 === x2 ? typical[sheet].xs.has(x1) : typical[sheet].ys.has(y1);
  };
}

function lay(n: {
  xs: number[];
  ys: number[];
  rate: (sheet: Sheet, x1: number, y1: number, x2: number, y2: number) => number;
  cutouts: readonly Cutout[];
  assumed: readonly string[];
  boardRect?: Rect;
}): Network {
  const { xs, ys } = n;
  const [nx, ny] = [xs.length, ys.length];
  const one = nx * ny;
  const right = new Float64Array(2 * one).fill(Number.POSITIVE_INFINITY);
  const down = new Float64Array(2 * one).fill(Number.POSITIVE_INFINITY);
  for (const [s, sheet] of (["front", "behind"] as const).entries())
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) {
        const at = s * one + j * nx + i;
        const [x, y] = [xs[i] as number, ys[j] as number];
        if (i + 1 < nx) right[at] = Math.round(n.rate(sheet, x, y, xs[i + 1] as number, y));
        if (j + 1 < ny) down[at] = Math.round(n.rate(sheet, x, y, x, ys[j + 1] as number));
      }
  const link = new Int32Array(2 * one).fill(-1);
  const cutoutAt = new Map<number, number>();
  for (const [k, c] of n.cutouts.entries()) {
    const at = nearest(ys, c.at.yMm) * nx + nearest(xs, c.at.xMm);
    link[at] = one + at;
    link[one + at] = at;
    cutoutAt.set(at, k);
  }
  return {
    xs,
    ys,
    right,
    down,
    link,
    cutouts: n.cutouts,
    cutoutAt,
    assumed: n.assumed,
    ...(n.boardRect ? { boardRect: n.boardRect } : {}),
  };
}

/** Index of the line nearest to a value, the lower of two as near. */
export function nearest(lines: readonly number[], v: number): number {
  let best = 0;
  for (let i = 1; i < lines.length; i++) if (Math.abs((lines[i] as number) - v) < Math.abs((lines[best] as number) - v)) best = i;
  return best;
}

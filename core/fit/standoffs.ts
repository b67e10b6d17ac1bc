import { type Graph, kept, partsOfKind } from "../assembly";
import type { Point } from "../catalogue";

export interface Standoffs {
  /** Holes of the board without a standoff under them. */
  add: { id: string; at: Point }[];
  /** Standoffs under the board where it has no hole: they short it. */
  remove: { id: string; at: Point }[];
  keep: { id: string; at: Point }[];
  /** Holes of the board over a fixed post: no screw goes there. */
  posts: { id: string; at: Point }[];
}

/** Standoffs further apart than this are two. */
const SAME_MM = 3;

/**
 * What has to be done to those that the case comes with: to add = the board's holes - fitted; to remove = fitted - the board's holes, of those that lie under the board.
 * Hole letters after the microATX and Mini-ITX interface specifications (published, from memory). Positions from the
 * board's top left corner.
 */
export const standoffs = (graph: Graph): Standoffs | undefined => kept(graph, "standoffs", ["case", "board"], () => work(graph));

/** As they stand now: right, where somebody has set them for this board. */
export function standoffsNow(graph: Graph): Standoffs | undefined {
  const s = standoffs(graph);
  const set = partsOfKind(graph, "case")[0]?.part.standoffsSet === true;
  return s && set ? { add: [], remove: [], keep: partsOfKind(graph, "board")[0]?.type.body.holes ?? [], posts: s.posts } : s;
}

function work(graph: Graph): Standoffs | undefined {
  const shell = partsOfKind(graph, "case")[0]?.type.body;
  const board = partsOfKind(graph, "board")[0]?.type.body;
  if (!shell || !board || (shell.holes.length === 0 && !shell.noStandoffs) || board.holes.length === 0) return undefined;
  const same = (a: { at: Point }, b: { at: Point }) => Math.hypot(a.at.xMm - b.at.xMm, a.at.yMm - b.at.yMm) <= SAME_MM;
  const under = (h: { at: Point }) => h.at.xMm <= (board.widthMm ?? 244) && h.at.yMm <= (board.heightMm ?? 305);
  return {
    add: board.holes.filter((h) => !shell.holes.some((s) => same(h, s))),
    // A fixed post cannot be taken out, and stands lower than a standoff.
    remove: shell.holes.filter((s) => !s.post && under(s) && !board.holes.some((h) => same(h, s))),
    keep: board.holes.filter((h) => shell.holes.some((s) => same(h, s))),
    posts: board.holes.filter((h) => shell.holes.some((s) => s.post === true && same(h, s))),
  };
}

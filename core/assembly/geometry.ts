import type { Point } from "../catalogue";

/** Slack that every lead needs for bends and a service loop, in mm. */
export const SLACK_MM = 60;

/** Manhattan distance in mm. */
export function manhattanMm(a: Point, b: Point): number {
  return Math.abs(a.xMm - b.xMm) + Math.abs(a.yMm - b.yMm);
}

export interface Rect {
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
}

/** A hop this short stays on the front side of the tray (common practice). */
const SHORT_HOP_MM = 160;

const on = (p: Point, r: Rect) => p.xMm >= r.xMm && p.xMm <= r.xMm + r.widthMm && p.yMm >= r.yMm && p.yMm <= r.yMm + r.heightMm;

/** The points a lead may pass on its way: a cut-out, or nothing at all for a hop on the board or a short one. */
function ways(from: Point, to: Point, cutouts: readonly Point[], board?: Rect): readonly Point[] {
  const straight = cutouts.length === 0 || manhattanMm(from, to) <= SHORT_HOP_MM || (board !== undefined && on(from, board) && on(to, board));
  return straight ? [from] : cutouts;
}

/**
 * Length of a lead's run in mm: Manhattan through the cut-out that makes it shortest, plus slack.
 * Both ends on the board, a short hop, or no cut-outs: straight on the front side.
 */
export function runLengthMm(from: Point, to: Point, cutouts: readonly Point[], board?: Rect): number {
  return Math.min(...ways(from, to, cutouts, board).map((c) => manhattanMm(from, c) + manhattanMm(c, to))) + SLACK_MM;
}

const overlap = (a: number, b: number, lo: number, hi: number) => Math.max(0, Math.min(Math.max(a, b), hi) - Math.max(Math.min(a, b), lo));
const within = (v: number, lo: number, hi: number) => v > lo && v < hi;

const acrossMm = (from: Point, to: Point, yMm: number, b: Rect) =>
  within(yMm, b.yMm, b.yMm + b.heightMm) ? overlap(from.xMm, to.xMm, b.xMm, b.xMm + b.widthMm) : 0;
const downMm = (from: Point, to: Point, xMm: number, b: Rect) =>
  within(xMm, b.xMm, b.xMm + b.widthMm) ? overlap(from.yMm, to.yMm, b.yMm, b.yMm + b.heightMm) : 0;

/** Millimetres of the last stretch, cut-out to port, that lie over the board's face: the better of the two bends. */
const overBoardMm = (from: Point, to: Point, board: Rect): number =>
  Math.min(
    acrossMm(from, to, from.yMm, board) + downMm(from, to, to.xMm, board),
    downMm(from, to, from.xMm, board) + acrossMm(from, to, to.yMm, board),
  );

/** Cost of a run in whole centimetres: its length, with the stretch over the board's face counted twice. */
export function runCostCm(from: Point, to: Point, cutouts: readonly Point[], board?: Rect): number {
  if (!board) return Math.round(runLengthMm(from, to, cutouts) / 10);
  const best = Math.min(...ways(from, to, cutouts, board).map((c) => manhattanMm(from, c) + manhattanMm(c, to) + overBoardMm(c, to, board)));
  return Math.round((best + SLACK_MM) / 10);
}

import { type PortShape, portSizeMm } from "./port-size";

export interface DrawnPort extends PortShape {
  address: string;
  label: string;
  family: string;
  turned: number;
  xMm: number;
  yMm: number;
}
export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}
export interface PlacedPort extends Box {
  address: string;
  label: string;
  family: string;
  cx: number;
  cy: number;
  edge: Side;
  landmark: boolean;
}
export interface PlacedLabel {
  address: string;
  lines: string[];
  x: number;
  y: number;
  anchor: "start" | "end" | "middle";
  leader: string;
}
export type Side = "left" | "right" | "top" | "bottom";

const PITCH = 16;
const LABEL_ROWS = 3;

export interface BoardFrame {
  scale: number;
  board: Box;
  width: number;
  height: number;
  gutter: number;
  dock: number;
  band: number;
}

/** Room for docks, ring lanes and labels round the board; everything in px at the given scale (px a mm). */
export function boardFrame(widthMm: number, heightMm: number, scale: number): BoardFrame {
  const gutter = 88;
  const dock = 54;
  const band = 64;
  const board = { x: dock + gutter, y: dock + band, w: widthMm * scale, h: heightMm * scale };
  return { scale, board, gutter, dock, band, width: board.w + 2 * (dock + gutter), height: board.h + 2 * (dock + band) };
}

const LEAST_PX = 10;
/** The lane round the board: leads run inside it, words stand outside it. */
const RING = 13;

export function placePorts(frame: BoardFrame, ports: readonly DrawnPort[], widthMm: number, heightMm: number): PlacedPort[] {
  return ports.map((p) => {
    const [wMm, hMm] = portSizeMm(p, p.turned);
    const w = Math.max(LEAST_PX, wMm * frame.scale);
    const h = Math.max(p.lies ? wMm * frame.scale : LEAST_PX, (p.lies ? 7 : hMm) * frame.scale);
    const cx = frame.board.x + p.xMm * frame.scale;
    const cy = frame.board.y + p.yMm * frame.scale;
    return {
      address: p.address,
      label: p.label,
      family: p.family,
      x: cx - w / 2,
      y: cy - h / 2,
      w,
      h,
      cx,
      cy,
      edge: nearestEdge(p.xMm, p.yMm, widthMm, heightMm),
      landmark: p.landmark === true,
    };
  });
}

export function nearestEdge(xMm: number, yMm: number, widthMm: number, heightMm: number): Side {
  const d: [number, Side][] = [
    [yMm, "top"],
    [heightMm - yMm, "bottom"],
    [xMm, "left"],
    [widthMm - xMm, "right"],
  ];
  return d.reduce((a, b) => (b[0] < a[0] ? b : a))[1];
}

/** Over ten characters a label breaks at an underscore; it is never shortened. */
export function labelLines(label: string): string[] {
  if (label.length <= 10) return [label];
  const at = label.lastIndexOf("_", 10);
  return at > 0 ? [label.slice(0, at + 1), label.slice(at + 1)] : [label];
}

/**
 * Labels as printed. Side ports stand in one column at a 16 px pitch with one-bend leaders; top and bottom ports fly
 * like flags, the outermost nearest the board, the left half leftward and the right half rightward.
 * `wanted` comes in order of priority; what finds no room is left out. Same input, same places.
 */
export function placeLabels(frame: BoardFrame, ports: readonly PlacedPort[], wanted: readonly string[]): PlacedLabel[] {
  const rank = new Map(wanted.map((a, i) => [a, i]));
  const shown = ports.filter((p) => rank.has(p.address) && !p.landmark);
  const mid = frame.board.x + frame.board.w / 2;
  return [
    ...column(
      frame,
      shown.filter((p) => p.edge === "left"),
      "left",
      rank,
    ),
    ...column(
      frame,
      shown.filter((p) => p.edge === "right"),
      "right",
      rank,
    ),
    ...(["top", "bottom"] as const).flatMap((edge) => [
      ...flags(
        frame,
        shown.filter((p) => p.edge === edge && p.cx < mid),
        edge,
        "left",
        rank,
      ),
      ...flags(
        frame,
        shown.filter((p) => p.edge === edge && p.cx >= mid),
        edge,
        "right",
        rank,
      ),
    ]),
  ];
}

function column(frame: BoardFrame, ports: PlacedPort[], side: "left" | "right", rank: Map<string, number>): PlacedLabel[] {
  const room = Math.floor(frame.board.h / PITCH);
  const kept = [...ports]
    .sort((a, b) => (rank.get(a.address) ?? 0) - (rank.get(b.address) ?? 0))
    .slice(0, room)
    .sort((a, b) => a.cy - b.cy || a.cx - b.cx);
  const ys: number[] = [];
  for (const p of kept) ys.push(Math.max(p.cy, (ys.at(-1) ?? Number.NEGATIVE_INFINITY) + PITCH));
  const over = Math.max(0, (ys.at(-1) ?? 0) - (frame.board.y + frame.board.h - 4));
  const x = side === "left" ? frame.board.x - RING - 10 : frame.board.x + frame.board.w + RING + 10;
  return kept.map((p, i) => {
    const y = Math.max(frame.board.y + 6 + i * PITCH, (ys[i] ?? p.cy) - over);
    const from = side === "left" ? p.x : p.x + p.w;
    const bend = side === "left" ? frame.board.x - 8 : frame.board.x + frame.board.w + 8;
    return {
      address: p.address,
      lines: [p.label],
      x,
      y,
      anchor: side === "left" ? "end" : "start",
      leader: `M${from} ${p.cy}H${bend}L${side === "left" ? x + 4 : x - 4} ${y}`,
    };
  });
}

function flags(frame: BoardFrame, ports: PlacedPort[], edge: "top" | "bottom", half: "left" | "right", rank: Map<string, number>): PlacedLabel[] {
  const kept = [...ports]
    .sort((a, b) => (rank.get(a.address) ?? 0) - (rank.get(b.address) ?? 0))
    .slice(0, LABEL_ROWS)
    .sort((a, b) => (half === "left" ? a.cx - b.cx : b.cx - a.cx));
  return kept.map((p, row) => {
    const off = RING + 12 + row * PITCH;
    const y = edge === "top" ? frame.board.y - off : frame.board.y + frame.board.h + off;
    const x = half === "left" ? p.cx - 4 : p.cx + 4;
    return {
      address: p.address,
      lines: [p.label],
      x,
      y,
      anchor: half === "left" ? "end" : "start",
      leader: `M${p.cx} ${edge === "top" ? p.y : p.y + p.h}V${y}`,
    };
  });
}

export interface DockItem {
  id: string;
  lines: string[];
  side: Side;
  x: number;
  y: number;
  w: number;
  h: number;
}

export interface DockWish {
  id: string;
  lines: string[];
  side: Side;
  gapBefore?: number;
  /** Stands for all of these: a trunk with a count. */
  holds?: string[];
}

/** Below these a dock's words do not stand apart any more, px. */
const LEAST_DOCK = { across: 44, along: 30 };
const DOCK_GAP = 6;

/**
 * As many docks as a side can show with words that can be read: where there are more, those of one kind become one with
 * their count, the most numerous first. Kinds are told by the first line; `apart` stay on their own. Same input, same docks.
 */
export function gatherDocks(frame: BoardFrame, items: readonly DockWish[], apart: (id: string) => boolean): DockWish[] {
  let out: DockWish[] = [...items];
  for (const side of ["left", "right", "top", "bottom"] as const) {
    const across = side === "top" || side === "bottom";
    const length = (across ? frame.width : frame.height - 2 * frame.dock) - 8;
    const room = Math.floor(length / ((across ? LEAST_DOCK.across : LEAST_DOCK.along) + DOCK_GAP));
    while (out.filter((i) => i.side === side).length > room) {
      const kinds = new Map<string, DockWish[]>();
      for (const i of out) if (i.side === side && !i.holds && !apart(i.id)) kinds.set(i.lines[0] ?? "", [...(kinds.get(i.lines[0] ?? "") ?? []), i]);
      const [word, most] = [...kinds].sort((a, b) => b[1].length - a[1].length)[0] ?? ["", []];
      if (most.length < 2) break;
      const all: DockWish = { id: `all ${side} ${word}`, lines: [`${word}s`, String(most.length)], side, holds: most.map((i) => i.id) };
      out = out.flatMap((i) => (i === most[0] ? [all] : most.includes(i) ? [] : [i]));
    }
  }
  return out;
}

/** Docks stand on their own side, unscaled: boxes in a row or a column, evenly spread. */
export function placeDocks(frame: BoardFrame, items: readonly DockWish[]): DockItem[] {
  const out: DockItem[] = [];
  for (const side of ["left", "right", "top", "bottom"] as const) {
    const mine = items.filter((i) => i.side === side);
    const across = side === "top" || side === "bottom";
    const gap = DOCK_GAP;
    const from = across ? 4 : frame.dock + 4;
    const length = (across ? frame.width : frame.height - 2 * frame.dock) - 8;
    const extra = mine.reduce((s, i) => s + (i.gapBefore ?? 0), 0);
    const each = Math.min(across ? 74 : 52, (length - extra) / Math.max(1, mine.length) - gap);
    const used = mine.length * (each + gap) - gap + extra;
    let at = from + Math.max(0, (length - used) / 2);
    for (const i of mine) {
      at += i.gapBefore ?? 0;
      const deep = frame.dock - 8;
      out.push(
        across
          ? { id: i.id, lines: i.lines, side, x: at, y: side === "top" ? 4 : frame.height - deep - 4, w: each, h: deep }
          : { id: i.id, lines: i.lines, side, x: side === "left" ? 4 : frame.width - deep - 4, y: at, w: deep, h: each },
      );
      at += each + gap;
    }
  }
  return out;
}

/** A point on the ring lane round the board, and how far along it lies, clockwise from the top left corner. */
function onRing(ring: Box, side: Side, x: number, y: number): { x: number; y: number; at: number } {
  const px = Math.min(ring.x + ring.w, Math.max(ring.x, x));
  const py = Math.min(ring.y + ring.h, Math.max(ring.y, y));
  switch (side) {
    case "top":
      return { x: px, y: ring.y, at: px - ring.x };
    case "right":
      return { x: ring.x + ring.w, y: py, at: ring.w + py - ring.y };
    case "bottom":
      return { x: px, y: ring.y + ring.h, at: ring.w + ring.h + (ring.x + ring.w - px) };
    case "left":
      return { x: ring.x, y: py, at: 2 * ring.w + ring.h + (ring.y + ring.h - py) };
  }
}

/** From a dock along the ring lane of its loom to the edge nearest the port, and in: a cord laid round the board. */
export function routeRound(frame: BoardFrame, from: { x: number; y: number; side: Side }, to: { x: number; y: number; edge: Side }): string {
  const d = RING;
  const ring = { x: frame.board.x - d, y: frame.board.y - d, w: frame.board.w + 2 * d, h: frame.board.h + 2 * d };
  const a = onRing(ring, from.side, from.x, from.y);
  const b = onRing(ring, to.edge, to.x, to.y);
  const total = 2 * (ring.w + ring.h);
  const clockwise = (b.at - a.at + total) % total;
  const forward = clockwise <= total / 2;
  const corners = [
    { x: ring.x, y: ring.y, at: 0 },
    { x: ring.x + ring.w, y: ring.y, at: ring.w },
    { x: ring.x + ring.w, y: ring.y + ring.h, at: ring.w + ring.h },
    { x: ring.x, y: ring.y + ring.h, at: 2 * ring.w + ring.h },
  ];
  const span = forward ? clockwise : total - clockwise;
  const passed = corners
    .map((c) => ({ ...c, on: forward ? (c.at - a.at + total) % total : (a.at - c.at + total) % total }))
    .filter((c) => c.on > 0 && c.on < span)
    .sort((p, q) => p.on - q.on);
  // Straight to the lane first, so that no cord runs aslant.
  const turn = from.side === "left" || from.side === "right" ? { x: a.x, y: from.y } : { x: from.x, y: a.y };
  const points = [from, turn, a, ...passed, b, to];
  return points.map((p, i) => `${i === 0 ? "M" : "L"}${Math.round(p.x * 10) / 10} ${Math.round(p.y * 10) / 10}`).join("");
}

import { type Graph, partsOfKind, type Rect } from "../assembly";
import type { PartType } from "../catalogue";
import { fanSeat, radiatorSeats } from "../fit";
import { isLevel } from "./depth";

/**
 * Radiators with their fans, each as a stack off its wall: the first row of fans, the radiator, the second row. Where the case says how far its
 * top place stands over the board, the stack begins there: what is drawn hangs over the board by what is said.
 */
export function stacks(graph: Graph): { radiators: ReadonlyMap<string, Rect>; fans: ReadonlyMap<string, Rect> } {
  const radiators = new Map<string, Rect>();
  const fans = new Map<string, Rect>();
  const b = partsOfKind(graph, "case")[0]?.type.body;
  for (const s of radiatorSeats(graph)) {
    const [a, z] = s.ends;
    if (!s.place || !a || !z || !b) continue;
    const t = s.radiator.thicknessMm;
    const level = isLevel(s.place.region);
    const seats = s.fans.flatMap((f) => fanSeat(graph, f) ?? []).filter((f) => f.inside);
    const first = seats.slice(0, s.radiator.fans);
    const second = seats.slice(s.radiator.fans);
    const deep = (row: typeof seats) => Math.max(0, ...row.map((f) => f.depthMm));
    const row = s.fans.length === 0 ? s.fanDepthMm : deep(first);
    // Off which wall it stands, and which way it grows from there.
    const [wall, way] = wallOf(graph, s.place, level ? a.yMm : a.xMm, row, b);
    const across = (from: number, thick: number): { at: number; thick: number } => ({ at: way > 0 ? wall + from : wall - from - thick, thick });
    const put = ({ at, thick }: { at: number; thick: number }, from: number, long: number): Rect =>
      level ? { xMm: from, yMm: at, widthMm: long, heightMm: thick } : { xMm: at, yMm: from, widthMm: thick, heightMm: long };
    const along = level ? a.xMm : a.yMm;
    radiators.set(s.cooler.id, put(across(row, t), along, level ? z.xMm - a.xMm : z.yMm - a.yMm));
    for (const [rowOf, from] of [
      [first, 0],
      [second, row + t],
    ] as const)
      for (const f of rowOf) {
        const mid = level ? f.mount.at.xMm : f.mount.at.yMm;
        fans.set(f.part.id, put(across(from, f.depthMm), mid - f.sizeMm / 2, f.sizeMm));
      }
  }
  return { radiators, fans };
}

/** Where a stack begins, in mm of the case, and whether it grows towards more or less. A row of fans is drawn around its mounts where nothing is said. */
function wallOf(
  graph: Graph,
  place: { region: string; overBoardMm?: number | undefined },
  at: number,
  row: number,
  b: PartType["body"],
): [number, 1 | -1] {
  const [w, h] = [b.widthMm ?? 450, b.heightMm ?? 450];
  switch (place.region) {
    case "top":
      return [place.overBoardMm !== undefined && graph.boardRect ? graph.boardRect.yMm - place.overBoardMm : Math.max(0, at - row / 2), 1];
    case "bottom":
      return [Math.min(h, at + row / 2), -1];
    case "rear":
      return [Math.max(0, at - row / 2), 1];
    default:
      return [Math.min(w, at + row / 2), -1];
  }
}

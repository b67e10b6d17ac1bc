import { boardPorts, coolsCpu, type Graph, kept, type PartNode, partsOfKind } from "../assembly";
import type { Point } from "../catalogue";
import { cardBoxes } from "./cards";
import { fanSeats } from "./fans";
import { type RadiatorSeat, radiatorSeats } from "./radiators";

/** Room that two tubes with their fittings take at the end of a radiator: along it, and away from it. Common practice. */
export const FITTINGS_MM = { along: 45, away: 50 };

export type TubeEnd = "rear" | "front" | "top" | "bottom";

interface Rect {
  x: number;
  y: number;
  w: number;
  h: number;
}

export interface Tubes {
  seat: RadiatorSeat;
  end: TubeEnd;
  /** True where the technician said so; else the end that reaches and is in nobody's way. */
  given: boolean;
  at: Point;
  /** Where fittings and bends are, in case millimetres of the side section. */
  room: Rect;
  reachMm: number;
  /** Fans and cards that stand where the tubes come out. */
  blocks: PartNode[];
  /** The pump stands above the whole radiator: air gathers in it. */
  pumpHighest: boolean;
}

/** For each radiator the end at which its tubes come out, how far the CPU is from there, and what is in the way. */
export const tubes = (graph: Graph): Tubes[] => radiatorSeats(graph).flatMap((s) => sides(graph, s)[0] ?? []);

/** Both ends of one radiator, the better first. */
export const sides = (graph: Graph, seat: RadiatorSeat): Tubes[] =>
  kept(graph, "tube-sides", ["case", "cooler", "fan", "board", "card"], () => {
    const boxes = boxesInside(graph);
    return new Map(radiatorSeats(graph).map((s) => [s.cooler.id, bothSides(graph, s, boxes)]));
  }).get(seat.cooler.id) ?? [];

function bothSides(graph: Graph, seat: RadiatorSeat, boxes: readonly Box[]): Tubes[] {
  const cpu = boardPorts(graph, "cpu")[0];
  const [a, z] = seat.ends;
  // Where a card or a loop takes them, nothing is known of how far that is.
  if (!cpu || !a || !z || !seat.place || !coolsCpu(seat.cooler)) return [];
  const level = seat.place.region === "top" || seat.place.region === "bottom";
  const names: [TubeEnd, TubeEnd] = level ? ["rear", "front"] : ["top", "bottom"];
  const said = seat.cooler.part.tubes;
  const pumpHighest = cpu.at.yMm < Math.min(a.yMm, z.yMm);
  return ([a, z] as const)
    .map((at, i): Tubes => {
      const room = roomAt(seat, at, i === 0);
      return {
        seat,
        end: names[i === 0 ? 0 : 1],
        given: said === names[i === 0 ? 0 : 1],
        at,
        room,
        reachMm: reachOf(seat, cpu.at, at),
        blocks: boxes.filter((b) => meet(b, room) && !seat.fans.includes(b.part)).map((b) => b.part),
        pumpHighest,
      };
    })
    .sort(
      (p, q) =>
        Number(q.given) - Number(p.given) ||
        Number(p.reachMm > seat.radiator.tubeMm) - Number(q.reachMm > seat.radiator.tubeMm) ||
        p.blocks.length - q.blocks.length ||
        // Upright radiators: air gathers at the top, away from the tubes (common practice).
        Number(q.end === "bottom") - Number(p.end === "bottom") ||
        p.reachMm - q.reachMm,
    );
}

/** What a tube needs more to leave its pump on the far side and come round, mm (common practice: two bends of 40 mm). */
const ROUND_MM = 80;

/** From the pump to an end of the radiator; longer where the pump head lets the tubes leave only on the far sides. */
function reachOf({ radiator }: RadiatorSeat, pump: Point, end: Point): number {
  const [dx, dy] = [end.xMm - pump.xMm, end.yMm - pump.yMm];
  const towards: Record<TubeEnd, number> = { rear: -dx, front: dx, top: -dy, bottom: dy };
  const leaves = radiator.leavesPump;
  const faces = leaves === undefined || leaves.some((side) => towards[side] > 0);
  return Math.abs(dx) + Math.abs(dy) + (faces ? 0 : ROUND_MM);
}

function roomAt(seat: RadiatorSeat, at: Point, first: boolean): Rect {
  const { along, away } = FITTINGS_MM;
  const deep = seat.fanDepthMm / 2 + seat.radiator.thicknessMm;
  const on = (n: number) => (first ? n : n - along);
  switch (seat.place?.region) {
    case "top":
      return { x: on(at.xMm), y: at.yMm + deep, w: along, h: away };
    case "bottom":
      return { x: on(at.xMm), y: at.yMm - deep - away, w: along, h: away };
    case "rear":
      return { x: at.xMm + deep, y: on(at.yMm), w: away, h: along };
    default:
      return { x: at.xMm - deep - away, y: on(at.yMm), w: away, h: along };
  }
}

const meet = (a: Rect, b: Rect) => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;

interface Box extends Rect {
  part: PartNode;
}

/** Fans inside the frame and level cards, as boxes of the side section in case millimetres. */
function boxesInside(graph: Graph): Box[] {
  const shell = partsOfKind(graph, "case")[0]?.type.body;
  const within = (n: number, size: number, most: number | undefined) => Math.min((most ?? 5000) - size, Math.max(0, n - size / 2));
  const fans = fanSeats(graph).flatMap((f): Box[] => {
    if (!f.inside || f.mount.region === "side") return [];
    const level = f.mount.region === "top" || f.mount.region === "bottom";
    const [w, h] = level ? [f.sizeMm, f.depthMm] : [f.depthMm, f.sizeMm];
    return [{ part: f.part, x: within(f.mount.at.xMm, w, shell?.widthMm), y: within(f.mount.at.yMm, h, shell?.heightMm), w, h }];
  });
  return [...fans, ...cardBoxes(graph)];
}

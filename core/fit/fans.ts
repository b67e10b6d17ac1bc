import { type Graph, kept, type PartNode, partsOfKind } from "../assembly";
import type { PartType } from "../catalogue";
import { FAN_MM, isOutside, radiatorSeats } from "./radiators";

type Mount = PartType["body"]["mounts"][number];

export interface FanSeat {
  part: PartNode;
  mount: Mount;
  sizeMm: number;
  depthMm: number;
  /** True where it stands in the room of the case, not behind the front. */
  inside: boolean;
  mayMoveOut: boolean;
}

/** Where a fan of the build sits, when the case's entry knows its mount. */
export function fanSeat(graph: Graph, part: PartNode): FanSeat | undefined {
  const shell = partsOfKind(graph, "case")[0];
  const mount = shell?.type.body.mounts.find((m) => m.id === part.part.mount);
  if (!mount?.takes.includes("fan")) return undefined;
  const inside = !isOutside(part, mount);
  return {
    part,
    mount,
    sizeMm: part.type.body.widthMm ?? mount.sizeMm ?? 120,
    depthMm: part.type.body.depthMm ?? FAN_MM,
    inside,
    mayMoveOut: inside && mount.frame === "either",
  };
}

export const fanSeats = (graph: Graph): FanSeat[] =>
  kept(graph, "fan-seats", ["case", "fan"], () => partsOfKind(graph, "fan").flatMap((f) => fanSeat(graph, f) ?? []));

/** What stands in the way of a card between two heights: front fans inside the frame, and a front radiator. */
export function inFrontOfCard(
  graph: Graph,
  fromMm: number,
  toMm: number,
): { part: PartNode; takesMm: number; mayMoveOut: boolean; radiator: boolean }[] {
  const front = fanSeats(graph).filter((f) => f.mount.region === "front" && overlaps(f.mount.at.yMm, f.sizeMm, fromMm, toMm));
  const hung = radiatorSeats(graph).filter((s) => s.place?.region === "front" && s.spanY && s.spanY[0] < toMm && s.spanY[1] > fromMm);
  const behind = new Set(hung.flatMap((s) => s.fans.map((f) => f.id)));
  return [
    ...front
      .filter((f) => !behind.has(f.part.id))
      .map((f) => ({ part: f.part, takesMm: f.inside ? f.depthMm : 0, mayMoveOut: f.mayMoveOut, radiator: false })),
    ...hung.map((s) => ({
      part: s.cooler,
      takesMm: s.radiator.thicknessMm + s.fanDepthMm,
      mayMoveOut: s.fans.length > 0 && s.fans.every((f) => fanSeat(graph, f)?.mayMoveOut),
      radiator: true,
    })),
  ];
}

const overlaps = (at: number, size: number, from: number, to: number) => at - size / 2 < to && at + size / 2 > from;

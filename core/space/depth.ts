import { type Graph, partsOfKind } from "../assembly";
import type { PartType } from "../catalogue";

// How far things reach off the tray: what every section, drawing and rule goes by.

/** From where to where something reaches off the tray's face, mm; behind the tray below nought. */
export type Depth = readonly [fromMm: number, toMm: number];
type Mount = PartType["body"]["mounts"][number];
const shellOf = (graph: Graph) => partsOfKind(graph, "case")[0];

/** How far the face of the board stands off the tray, standoff and board; and the lid of the CPU off that face: mm (common practice). */
export const BOARD_FACE_MM = 8;
export const SOCKET_MM = 7;
/** What stands off the tray and says nothing of it, mm (common practice). */
export const USUAL_MM = { pump: 55, hub: 15, cage: 102, card: 112, flat: 7, thick: 26, cooler: 160, behind: 20, landmark: 35, hangs: 30 };
/** A supply and the drives beside it begin at the panel behind the tray, with this between, mm. */
export const WALL_MM = 3;

/** From the tray's face to the side panel, mm. */
export const roomMm = (graph: Graph): number => BOARD_FACE_MM + SOCKET_MM + (shellOf(graph)?.type.body.maxCoolerMm ?? USUAL_MM.cooler);
/** From the panel behind the tray to the tray's face, mm: the deepest of what is there. */
export function behindMm(graph: Graph): number {
  const b = shellOf(graph)?.type.body;
  return Math.max(b?.behindTrayMm ?? USUAL_MM.behind, ...(b?.rooms ?? []).map((r) => r.depthMm));
}
export const inBay = (graph: Graph, wide: number): Depth => [WALL_MM - (shellOf(graph)?.type.body.behindTrayMm ?? USUAL_MM.behind), wide];
export const onBoard = (high: number, from = BOARD_FACE_MM): Depth => [from, from + high];
/** What is fixed to front or rear stands in the middle between tray and panel. */
export function middle(graph: Graph, wide: number): Depth {
  const from = Math.max(0, (roomMm(graph) - wide) / 2);
  return [from, from + wide];
}
/** What hangs from the top or stands on the floor, beside the board's face. */
export const hangs = (offsetMm: number | undefined, wide: number): Depth => onBoard(wide, BOARD_FACE_MM + (offsetMm ?? USUAL_MM.hangs));
export const isLevel = (region: string | undefined) => region === "top" || region === "bottom";

/** How far off the tray a fan reaches: with its radiator where it is on one. */
export function fanDepth(graph: Graph, mount: Mount, size: number, deep: number, off: number | undefined): Depth {
  if (mount.region === "side") return [roomMm(graph) - deep, roomMm(graph)];
  if (mount.region === "behind-tray") return [-deep, 0];
  return isLevel(mount.region) ? hangs(off, size) : middle(graph, size);
}

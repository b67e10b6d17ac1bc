import { boardPorts, type Graph, type PartNode, partsOfKind, type Rect } from "../assembly";
import { type Clearance, clearances, radiatorSeats } from "../fit";
import { routesOf } from "../routes";
import { BOARD_FACE_MM, behindMm, bodyOf, roomMm } from "../space";
import { type Scene, type SceneBox, sceneOf } from "./scene";

/** A module is 133.35 mm long (JEDEC, from memory) and stands in a slot along the tray's height. */
const MODULE_MM = 133.35;
/** A module that says nothing of its height, mm (common practice). */
const MEMORY_MM = 32;
/** How high the leads behind the tray are drawn where they are thickest, mm. */
const LEADS_MM = 36;

/** A part as it is seen from the front: how far off the tray, and between which heights. */
export interface FrontBox {
  part: string;
  name: string;
  label: string;
  kind: SceneBox["kind"] | "memory";
  /** `xMm` from the panel behind the tray, `yMm` as on the sheets. */
  rect: Rect;
  assumed?: boolean;
}

/** The case as it is seen from the front, the tray to the left: the heights of the sheets, and depths instead of lengths. */
export interface FrontView {
  view: Rect;
  /** From the panel behind the tray to the tray's face, mm. */
  trayMm: number;
  boxes: FrontBox[];
  /** The leads behind the tray where they lie thickest. */
  leads?: { rect: Rect; thicknessMm: number; roomMm: number };
  /** The CPU cooler against the side panel: from its top to the panel. */
  cooler?: { clearance: Clearance; from: { xMm: number; yMm: number }; toMm: number };
}

/** What a thing takes off the tray's face, mm from it: first, last, and whether that is only typical. What is behind the tray is below nought. */
type Depth = readonly [from: number, to: number, assumed?: boolean];

/** The front section of the machine, of the boxes that its sheets show; nothing of a build without a case. */
export function frontOf(graph: Graph): FrontView | undefined {
  const shell = partsOfKind(graph, "case")[0];
  const scene = sceneOf(graph);
  return shell && scene.hasCase ? madeOf(graph, scene) : undefined;
}

function madeOf(graph: Graph, scene: Scene): FrontView {
  const trayMm = behindMm(graph);
  const room = roomMm(graph);
  const boxes = [
    ...scene.boxes.flatMap((box): FrontBox[] => {
      const part = box.part === undefined ? undefined : graph.parts.get(box.part);
      const depth = part && depthOf(graph, box, part);
      if (!part || !depth) return [];
      return [{ part: part.id, name: box.name, label: box.label, kind: box.kind, ...placed(depth, box.rect.yMm, box.rect.heightMm, trayMm) }];
    }),
    ...memory(graph, trayMm),
  ];
  const height = clearances(graph, ["coolers"]).find((c) => c.id.startsWith("cooler-height"));
  const tall = boxes.find((x) => x.part === height?.parts[0] && (x.kind === "cooler" || x.kind === "pump"));
  const { behind } = routesOf(graph);
  return {
    view: { xMm: 0, yMm: 0, widthMm: trayMm + room, heightMm: scene.view.heightMm },
    trayMm,
    boxes,
    ...(behind
      ? {
          leads: {
            rect: { xMm: trayMm - behind.thicknessMm, yMm: behind.at.yMm - LEADS_MM / 2, widthMm: behind.thicknessMm, heightMm: LEADS_MM },
            thicknessMm: behind.thicknessMm,
            roomMm: behind.roomMm,
          },
        }
      : {}),
    ...(height && tall
      ? {
          cooler: {
            clearance: height,
            from: { xMm: tall.rect.xMm + tall.rect.widthMm, yMm: tall.rect.yMm + tall.rect.heightMm / 2 },
            toMm: trayMm + room,
          },
        }
      : {}),
  };
}

const placed = ([from, to, assumed]: Depth, yMm: number, heightMm: number, trayMm: number) => ({
  rect: { xMm: trayMm + from, yMm, widthMm: to - from, heightMm },
  ...(assumed ? { assumed } : {}),
});

/** As its body says; undefined for what a section behind the front fans does not show: fans, radiators and lights of front and rear, what hangs on leads. */
function depthOf(graph: Graph, box: SceneBox, part: PartNode): Depth | undefined {
  if (box.kind === "board") return [0, BOARD_FACE_MM];
  const body = box.kind === "radiator" ? bodyOf(graph, `${part.id}/radiator`) : bodyOf(graph, part.id);
  if (!body || !SHOWN.includes(box.kind)) return undefined;
  const shell = partsOfKind(graph, "case")[0]?.type.body;
  const region = (
    box.kind === "radiator" ? radiatorSeats(graph).find((r) => r.cooler.id === part.id)?.place : shell?.mounts.find((m) => m.id === part.part.mount)
  )?.region;
  if ((box.kind === "radiator" || box.kind === "fan") && (region === "front" || region === "rear" || region === undefined)) return undefined;
  return [...body.depth, isAssumed(graph, box, part)];
}

/** Kinds whose place is shown. */
const SHOWN: readonly SceneBox["kind"][] = ["cooler", "pump", "card", "radiator", "fan", "supply", "drive", "hub"];

/** Is how far it reaches off the tray only what is typical? */
function isAssumed(graph: Graph, box: SceneBox, part: PartNode): boolean {
  const b = part.type.body;
  switch (box.kind) {
    case "cooler":
    case "pump":
      return b.heightMm === undefined;
    case "card":
      return (part.part.vertical ? b.slots : b.depthMm) === undefined;
    case "supply":
      return b.widthMm === undefined;
    case "drive":
      return box.sheets[0] !== "behind";
    case "fan":
    case "radiator":
      return radiatorSeats(graph).find((r) => r.cooler.id === part.id || r.fans.includes(part))?.place?.offsetMm === undefined;
    default:
      return true;
  }
}

function memory(graph: Graph, trayMm: number): FrontBox[] {
  const slot = boardPorts(graph, "memory")[0];
  const module = partsOfKind(graph, "memory")[0];
  if (!slot || !module) return [];
  const high = module.type.body.heightMm;
  const name = module.part.label ?? module.type.name;
  const depth: Depth = [BOARD_FACE_MM, BOARD_FACE_MM + (high ?? MEMORY_MM), high === undefined];
  return [{ part: module.id, name, label: name, kind: "memory", ...placed(depth, slot.at.yMm - MODULE_MM / 2, MODULE_MM, trayMm) }];
}

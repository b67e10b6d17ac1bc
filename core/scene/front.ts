import { boardPorts, type Graph, type PartNode, partsOfKind, type Rect } from "../assembly";
import { type Clearance, clearances, radiatorSeats, SLOT_PITCH_MM } from "../fit";
import { routesOf } from "../routes";
import { type Scene, type SceneBox, sceneOf } from "./scene";

/** How far the face of the board stands off the tray, standoff and board; and the lid of the CPU off that face: mm (common practice). */
const BOARD_FACE_MM = 8;
const SOCKET_MM = 7;
/** A module is 133.35 mm long (JEDEC, from memory) and stands in a slot along the tray's height. */
const MODULE_MM = 133.35;
/** What stands off the tray and says nothing of it, mm (common practice). */
const USUAL_MM = { pump: 55, hub: 15, supply: 150, cage: 102, memory: 32, card: 112, flat: 7, thick: 26, cooler: 160, behind: 20 };
/** A supply and the drives beside it begin at the panel behind the tray, with this between, mm. */
const WALL_MM = 3;
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
  return shell && scene.hasCase ? madeOf(graph, shell, scene) : undefined;
}

function madeOf(graph: Graph, shell: PartNode, scene: Scene): FrontView {
  const b = shell.type.body;
  const trayMm = b.behindTrayMm ?? USUAL_MM.behind;
  const room = BOARD_FACE_MM + SOCKET_MM + (b.maxCoolerMm ?? USUAL_MM.cooler);
  const boxes = [
    ...scene.boxes.flatMap((box): FrontBox[] => {
      const part = box.part === undefined ? undefined : graph.parts.get(box.part);
      const depth = part && depthOf(graph, shell, box, part, -trayMm, room);
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

/** Undefined for what a section behind the front fans does not show: fans and lights of front and rear, what hangs on leads. */
function depthOf(graph: Graph, shell: PartNode, box: SceneBox, part: PartNode, panel: number, room: number): Depth | undefined {
  const b = part.type.body;
  switch (box.kind) {
    case "board":
      return [0, BOARD_FACE_MM];
    case "cooler":
      return [BOARD_FACE_MM + SOCKET_MM, BOARD_FACE_MM + SOCKET_MM + (b.heightMm ?? USUAL_MM.cooler), b.heightMm === undefined];
    case "pump":
      return [BOARD_FACE_MM + SOCKET_MM, BOARD_FACE_MM + SOCKET_MM + (b.heightMm ?? USUAL_MM.pump), b.heightMm === undefined];
    case "card": {
      if (!part.part.vertical) return [BOARD_FACE_MM, BOARD_FACE_MM + (b.depthMm ?? USUAL_MM.card), b.depthMm === undefined];
      const stands = shell.type.body.vertical?.thicknessMm ?? (b.slots ?? 2) * SLOT_PITCH_MM;
      return [room - stands, room - stands + (b.slots ?? 2) * SLOT_PITCH_MM, b.slots === undefined];
    }
    case "radiator": {
      const seat = radiatorSeats(graph).find((r) => r.cooler.id === part.id);
      return seat && level(seat.place?.region) ? hangs(seat.place?.offsetMm, seat.radiator.widthMm) : undefined;
    }
    case "fan":
      return fanDepth(graph, shell, part, box, room);
    case "supply":
      return [panel + WALL_MM, panel + WALL_MM + (b.widthMm ?? USUAL_MM.supply), b.widthMm === undefined];
    case "drive":
      if (box.sheets[0] === "behind") return [-(b.formFactor === "3.5" ? USUAL_MM.thick : USUAL_MM.flat), 0];
      return [panel + WALL_MM, panel + WALL_MM + USUAL_MM.cage, true];
    case "hub":
      return box.sheets[0] === "behind" ? [-USUAL_MM.hub, 0, true] : [0, USUAL_MM.hub, true];
    default:
      return undefined;
  }
}

const level = (region: string | undefined) => region === "top" || region === "bottom";
/** What hangs from the top or stands on the floor, beside the board's face. */
const hangs = (offsetMm: number | undefined, widthMm: number): Depth => [
  BOARD_FACE_MM + (offsetMm ?? 30),
  BOARD_FACE_MM + (offsetMm ?? 30) + widthMm,
  offsetMm === undefined,
];

function fanDepth(graph: Graph, shell: PartNode, part: PartNode, box: SceneBox, room: number): Depth | undefined {
  const mount = shell.type.body.mounts.find((m) => m.id === part.part.mount);
  const deep = part.type.body.depthMm ?? 25;
  if (mount?.region === "side") return [room - deep, room];
  if (mount?.region === "behind-tray") return [-deep, 0];
  if (!level(mount?.region)) return undefined;
  const seat = radiatorSeats(graph).find((r) => r.fans.some((f) => f.id === part.id));
  return hangs(seat?.place?.offsetMm, box.rect.widthMm);
}

function memory(graph: Graph, trayMm: number): FrontBox[] {
  const slot = boardPorts(graph, "memory")[0];
  const module = partsOfKind(graph, "memory")[0];
  if (!slot || !module) return [];
  const high = module.type.body.heightMm;
  const name = module.part.label ?? module.type.name;
  const depth: Depth = [BOARD_FACE_MM, BOARD_FACE_MM + (high ?? USUAL_MM.memory), high === undefined];
  return [{ part: module.id, name, label: name, kind: "memory", ...placed(depth, slot.at.yMm - MODULE_MM / 2, MODULE_MM, trayMm) }];
}

import { type Address, type Graph, kept, naturally, type PartNode, type PortNode, partsOfKind, portNodes, type Rect, wholeParts } from "../assembly";
import { isProvisional, type PartKind, type Point, shapeOf } from "../catalogue";
import { standoffsNow } from "../fit";
import { drawnNetwork, type Routes, routesOf } from "../routes";
import { type BodyKind, bodies, HANGING, HUNG_MM, hung, isHung, portRow, type Sheet, STANDING, spotOfPort } from "../space";

/** A thing that is drawn as an outline: the board, a part, what hangs on a lead. */
export interface SceneBox {
  id: string;
  kind: BodyKind | "board" | "hung" | "dock";
  name: string;
  /** What stands at it: the tag of its only lead, else its name. */
  label: string;
  part?: string;
  rect: Rect;
  sheets: readonly Sheet[];
  faceOn?: boolean;
  /** An air cooler that is low: its fan lies on top. */
  low?: boolean;
  /** It has no place of its own, or only a typical one. */
  assumed?: boolean;
  /** Its measures are only those of its kind: nobody has confirmed them. */
  provisional?: boolean;
  /** Something of it wants power and has none. */
  unfed?: boolean;
}

export interface ScenePort {
  address: Address;
  part: string;
  label: string;
  rect: Rect;
  sheets: readonly Sheet[];
  /** A port of the board, not of something in the case. */
  onBoard: boolean;
  landmark: boolean;
  /** A slot for memory: a module in it is seen. */
  memory?: boolean;
}

/** The machine in millimetres, both sides of the tray as seen from the front, rear sockets to the left. Same graph, same scene. */
export interface Scene {
  /** What there is to see: the case, or the board with room around it. */
  view: Rect;
  hasCase: boolean;
  board?: Rect;
  /** The sheet that the board is screwed to, as far as what is in it says. */
  tray?: Rect;
  boxes: SceneBox[];
  ports: ScenePort[];
  cutouts: { id: string; label: string; rect: Rect }[];
  ties: { id: string; label: string; at: Point; sheet: Sheet }[];
  /** Places that take a fan and have none. */
  free: { id: string; label: string; rect: Rect; faceOn: boolean }[];
  holes: { id: string; at: Point; is: "keep" | "add" | "remove" | "hole" }[];
  routes: Routes;
  /** What is not known and drawn as it usually is. */
  assumed: readonly string[];
}

const READS: readonly PartKind[] = [...STANDING, ...HANGING, "cable", "memory", "cpu"];
const FRONT: readonly Sheet[] = ["front"];
const BOTH: readonly Sheet[] = ["front", "behind"];
/** Room round a board that stands in no case, for what has no place. */
const ROUND_MM = 60;
const SMALL_PORT_MM = { w: 7, h: 5 };
/** From so high on an air cooler is a tower, its fan clipped to its side, mm (common practice). */
const TOWER_MM = 90;
const DOCK_MM = { w: 44, h: 20 };

export const sceneOf = (graph: Graph): Scene => kept(graph, "scene", READS, () => makeScene(graph));

function makeScene(graph: Graph): Scene {
  const shell = partsOfKind(graph, "case")[0];
  const b = shell?.type.body;
  const hasCase = b?.widthMm !== undefined && b.heightMm !== undefined;
  const routes = routesOf(graph);
  const { boxes, assumed } = boxesOf(graph, hasCase);
  const r = graph.boardRect;
  const view: Rect = hasCase
    ? { xMm: 0, yMm: 0, widthMm: b?.widthMm ?? 0, heightMm: b?.heightMm ?? 0 }
    : around([...(r ? [r] : []), ...boxes.map((x) => x.rect)], ROUND_MM);
  return {
    view,
    hasCase,
    ...(r ? { board: r } : {}),
    ...(hasCase && r
      ? {
          tray: trayOf(
            view,
            r,
            (drawnNetwork(graph)?.cutouts ?? []).map((c) => c.at),
          ),
        }
      : {}),
    boxes,
    ports: portsOf(graph, boxes),
    cutouts: (drawnNetwork(graph)?.cutouts ?? []).map((c) => ({
      id: c.id,
      label: c.label,
      rect: { xMm: c.at.xMm - c.widthMm / 2, yMm: c.at.yMm - c.heightMm / 2, widthMm: c.widthMm, heightMm: c.heightMm },
    })),
    ties: (b?.tiePoints ?? []).map((t) => ({ id: t.id, label: t.label, at: t.at, sheet: t.side === "front" ? "front" : "behind" })),
    free: freeMounts(graph, boxes),
    holes: holesOf(graph),
    routes,
    assumed: [...new Set([...(hasCase ? [] : ["the case"]), ...(hasCase ? routes.assumed : []), ...assumed, ...outlines(graph)])],
  };
}

/** Round board and cut-outs, with so much left round them. */
const TRAY_MM = 26;
function trayOf(view: Rect, board: Rect, cutouts: readonly Point[]): Rect {
  const xs = [board.xMm, board.xMm + board.widthMm, ...cutouts.map((c) => c.xMm)];
  const ys = [board.yMm, board.yMm + board.heightMm, ...cutouts.map((c) => c.yMm)];
  const x = Math.max(view.xMm + 6, Math.min(...xs) - TRAY_MM);
  const y = Math.max(view.yMm + 6, Math.min(...ys) - TRAY_MM);
  return {
    xMm: x,
    yMm: y,
    widthMm: Math.min(view.xMm + view.widthMm - 6, Math.max(...xs) + TRAY_MM) - x,
    heightMm: Math.min(view.yMm + view.heightMm - 6, Math.max(...ys) + TRAY_MM) - y,
  };
}

function around(rects: readonly Rect[], by: number): Rect {
  const x0 = Math.min(0, ...rects.map((r) => r.xMm)) - by;
  const y0 = Math.min(0, ...rects.map((r) => r.yMm)) - by;
  const x1 = Math.max(100, ...rects.map((r) => r.xMm + r.widthMm)) + by;
  const y1 = Math.max(100, ...rects.map((r) => r.yMm + r.heightMm)) + by;
  return { xMm: x0, yMm: y0, widthMm: x1 - x0, heightMm: y1 - y0 };
}

const nameOf = (p: PartNode) => p.part.label ?? p.type.name;

/** The tag of a part's only lead, else what it is called. */
function labelOf(graph: Graph, p: PartNode): string {
  const tags = p.type.leads.flatMap((l) => {
    const n = graph.leads.get(`${p.id}:${l.id}`);
    return n && n.loom !== "seat" && n.tag ? [n.tag] : [];
  });
  return tags.length === 1 && ["fan", "lighting"].includes(p.type.kind) ? (tags[0] ?? "") : nameOf(p);
}

const HUNG_WORD: Partial<Record<PartKind, string>> = { splitter: "splitter", extension: "extension", adapter: "adapter" };

/** What hangs on a splitter is what it is known by. */
function hungLabel(graph: Graph, p: PartNode): string {
  const tags = portNodes(p)
    .flatMap((q) => (graph.atPort.get(q.address) ?? []).map((c) => graph.leads.get(c.lead)?.tag ?? ""))
    .filter(Boolean)
    .sort(naturally);
  const word = HUNG_WORD[p.type.kind] ?? p.type.kind;
  return tags.length === 0 ? word : `${word} ${tags.slice(0, 3).join(" ")}${tags.length > 3 ? ` +${tags.length - 3}` : ""}`;
}

const isUnfed = (graph: Graph, p: PartNode) =>
  (p.type.kind === "hub" || p.type.kind === "usb-hub") && p.type.ports.some((q) => q.flow === "in" && !graph.atPort.get(`${p.id}:${q.id}`)?.length);

const ofItsKind = (p: PartNode | undefined) => (p && isProvisional(p.type) ? { provisional: true } : {});
/** Parts of which the outline is only that of their kind, in words. */
function outlines(graph: Graph): string[] {
  const names = wholeParts(graph).flatMap((p) => (isProvisional(p.type) && STANDING.includes(p.type.kind) ? [nameOf(p)] : []));
  return names.length === 0 ? [] : [names.length > 3 ? `the outlines of ${names.length} parts` : `the outline of ${names.join(" and of ")}`];
}

function boxesOf(graph: Graph, hasCase: boolean): { boxes: SceneBox[]; assumed: string[] } {
  const out: SceneBox[] = [];
  const r = graph.boardRect;
  const board = partsOfKind(graph, "board")[0];
  if (board && r)
    out.push({
      id: board.id,
      kind: "board",
      name: nameOf(board),
      label: board.type.name,
      part: board.id,
      rect: r,
      sheets: FRONT,
      ...ofItsKind(board),
    });
  const stand = new Set<string>();
  for (const body of hasCase ? bodies(graph) : bodies(graph).filter((x) => ["heatsink", "card", "cooler", "pump"].includes(x.kind))) {
    if (body.part) stand.add(body.part.id);
    out.push({
      id: body.id,
      kind: body.kind,
      name: body.name,
      label: body.part ? (body.kind === "radiator" ? "radiator" : labelOf(graph, body.part)) : body.name,
      ...(body.part ? { part: body.part.id } : {}),
      rect: body.rect,
      sheets: body.sheets,
      ...(body.faceOn ? { faceOn: true } : {}),
      ...(body.kind === "cooler" && (body.part?.type.body.heightMm ?? TOWER_MM) < TOWER_MM ? { low: true } : {}),
      ...(body.assumed ? { assumed: true } : {}),
      ...ofItsKind(body.part),
      ...(body.part && isUnfed(graph, body.part) ? { unfed: true } : {}),
    });
  }
  const hangs = hung(graph);
  const docks: PartNode[] = [];
  for (const p of wholeParts(graph)) {
    if (stand.has(p.id) || p.type.kind === "board" || p.type.kind === "case" || p.type.kind === "cable") continue;
    const at = hangs.get(p.id);
    if (isHung(p) && at && hasCase && graph.parts.get(p.id)) {
      out.push({
        id: p.id,
        kind: "hung",
        name: nameOf(p),
        label: hungLabel(graph, p),
        part: p.id,
        rect: at.rect,
        sheets: at.on === "both" ? BOTH : [at.on],
        assumed: true,
      });
      continue;
    }
    if (["memory", "cpu"].includes(p.type.kind) || p.type.body.formFactor === "M.2") continue;
    if (p.type.leads.every((l) => l.role === "seat") && p.type.ports.length === 0) continue;
    docks.push(p);
  }
  // What has no place stands in a column beside the board, and says so by its look.
  const left = hasCase ? (r ? r.xMm + r.widthMm + 50 : 60) : (r?.xMm ?? 0) + (r?.widthMm ?? 100) + 24;
  for (const [i, p] of docks.sort((a, b) => naturally(a.id, b.id)).entries()) {
    const column = Math.floor(i / 12);
    out.push({
      id: p.id,
      kind: "dock",
      name: nameOf(p),
      label: labelOf(graph, p),
      part: p.id,
      rect: { xMm: left + column * (DOCK_MM.w + 6), yMm: (r?.yMm ?? 0) + (i % 12) * (DOCK_MM.h + 4), widthMm: DOCK_MM.w, heightMm: DOCK_MM.h },
      sheets: FRONT,
      assumed: true,
      ...(isUnfed(graph, p) ? { unfed: true } : {}),
    });
  }
  return {
    boxes: out,
    assumed: docks.length > 0 && hasCase ? [`where ${docks.length === 1 ? nameOf(docks[0] as PartNode) : `${docks.length} parts`} will stand`] : [],
  };
}

function portsOf(graph: Graph, boxes: readonly SceneBox[]): ScenePort[] {
  const out: ScenePort[] = [];
  const boxOf = new Map(boxes.flatMap((x) => (x.part && x.kind !== "radiator" ? [[x.part, x] as const] : [])));
  for (const p of wholeParts(graph)) {
    if (p.type.kind === "case" || p.type.kind === "cable") continue;
    const nodes = portNodes(p);
    const box = boxOf.get(p.id);
    for (const [i, n] of nodes.entries()) {
      const made = p.type.kind === "board" ? boardPort(n) : box ? smallPort(graph, n, box, i, nodes.length) : undefined;
      if (made) out.push(made);
    }
  }
  return out;
}

function boardPort(n: PortNode): ScenePort {
  const shape = shapeOf(n.port.family);
  const [long, wide] = shape.drawnMm ?? [10, 6];
  const [w, h] = n.port.turned % 180 === 90 && !shape.lies ? [wide, long] : [long, shape.lies ? 7 : wide];
  return {
    address: n.address,
    part: n.part.id,
    label: n.port.label,
    rect: { xMm: n.at.xMm - w / 2, yMm: n.at.yMm - h / 2, widthMm: w, heightMm: h },
    sheets: FRONT,
    onBoard: true,
    landmark: shape.landmark === true,
    ...(n.port.family === "memory-slot" ? { memory: true } : {}),
  };
}

function smallPort(graph: Graph, n: PortNode, box: SceneBox, i: number, of: number): ScenePort {
  const row = box.kind === "hub" || box.kind === "supply" || box.kind === "hung" || box.kind === "dock";
  const at: Point =
    box.kind === "hung"
      ? { xMm: box.rect.xMm + (HUNG_MM.w * (i + 0.5)) / of, yMm: box.rect.yMm + HUNG_MM.h }
      : row
        ? portRow({ rect: box.rect, kind: box.kind === "supply" ? "supply" : "hub" }, i, of)
        : spotOfPort(graph, n);
  const w = row && box.kind !== "supply" ? Math.min(SMALL_PORT_MM.w, (box.rect.widthMm / of) * 0.8) : SMALL_PORT_MM.w;
  const h = box.kind === "supply" ? Math.min(SMALL_PORT_MM.h, (box.rect.heightMm / of) * 0.8) : SMALL_PORT_MM.h;
  return {
    address: n.address,
    part: n.part.id,
    label: n.port.label,
    rect: { xMm: at.xMm - w / 2, yMm: at.yMm - h / 2, widthMm: w, heightMm: h },
    sheets: box.sheets,
    onBoard: false,
    landmark: false,
  };
}

function freeMounts(graph: Graph, boxes: readonly SceneBox[]): Scene["free"] {
  const body = partsOfKind(graph, "case")[0]?.type.body;
  if (!body) return [];
  const held = boxes.filter((b) => b.kind === "fan" || b.kind === "radiator");
  return body.mounts
    .filter((m) => m.takes.includes("fan"))
    .flatMap((m) => {
      const size = m.sizeMm ?? 120;
      const faceOn = m.region === "side" || m.region === "behind-tray";
      const level = m.region === "top" || m.region === "bottom";
      const [w, h] = faceOn ? [size, size] : level ? [size, 25] : [25, size];
      const rect = {
        xMm: Math.min((body.widthMm ?? 450) - w, Math.max(0, m.at.xMm - w / 2)),
        yMm: Math.min((body.heightMm ?? 450) - h, Math.max(0, m.at.yMm - h / 2)),
        widthMm: w,
        heightMm: h,
      };
      const inside = (b: SceneBox) =>
        m.at.xMm > b.rect.xMm - 15 &&
        m.at.xMm < b.rect.xMm + b.rect.widthMm + 15 &&
        m.at.yMm > b.rect.yMm - 15 &&
        m.at.yMm < b.rect.yMm + b.rect.heightMm + 15;
      return held.some(inside) ? [] : [{ id: m.id, label: m.label, rect, faceOn }];
    });
}

function holesOf(graph: Graph): Scene["holes"] {
  const r = graph.boardRect;
  const board = partsOfKind(graph, "board")[0];
  if (!r || !board) return [];
  const at = (p: Point): Point => ({ xMm: r.xMm + p.xMm, yMm: r.yMm + p.yMm });
  const s = standoffsNow(graph);
  if (!s) return board.type.body.holes.map((h) => ({ id: h.id, at: at(h.at), is: "hole" as const }));
  return [
    ...s.keep.map((h) => ({ id: h.id, at: at(h.at), is: "keep" as const })),
    ...s.add.map((h) => ({ id: h.id, at: at(h.at), is: "add" as const })),
    ...s.remove.map((h) => ({ id: h.id, at: at(h.at), is: "remove" as const })),
  ];
}

/** A point as it is seen on a sheet: what is behind is mirrored. */
export const seenAt = (scene: Scene, sheet: Sheet, p: Point): Point =>
  sheet === "front" ? p : { xMm: 2 * scene.view.xMm + scene.view.widthMm - p.xMm, yMm: p.yMm };

export const seenRect = (scene: Scene, sheet: Sheet, r: Rect): Rect =>
  sheet === "front" ? r : { ...r, xMm: 2 * scene.view.xMm + scene.view.widthMm - r.xMm - r.widthMm };

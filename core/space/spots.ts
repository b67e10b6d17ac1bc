import { type Graph, kept, type LeadNode, type PartNode, type PortNode, partsOfKind, type Rect } from "../assembly";
import type { PartKind, Point } from "../catalogue";
import { type Body, bodies, passesOn, type Sheet, STANDING } from "./stand";

/** Where an end is: a point of the case, and the side or sides of the tray from which it can be reached. */
export interface Spot extends Point {
  on: Sheet | "both";
}

/** How far outside an outline a lead is free to turn, mm. */
export const CLEAR_MM = 4;

/** Splitters, extensions and adapters: they have no place of their own, and neither has a hub that only passes on. */
export const HANGING: readonly PartKind[] = ["splitter", "extension", "adapter"];
export const isHung = (part: PartNode): boolean => !part.cable && (HANGING.includes(part.type.kind) || passesOn(part));

export const bodyOf = (graph: Graph, partId: string): Body | undefined =>
  kept(graph, "body-by-id", STANDING, () => new Map(bodies(graph).map((b) => [b.id, b]))).get(partId);

const sheetOf = (b: Body): Spot["on"] => (b.sheets.length > 1 ? "both" : (b.sheets[0] ?? "front"));
const mid = (r: Rect): Point => ({ xMm: r.xMm + r.widthMm / 2, yMm: r.yMm + r.heightMm / 2 });

/** The middle of the room: where leads come from and go to. */
function heart(graph: Graph): Point {
  if (graph.boardRect) return mid(graph.boardRect);
  const b = partsOfKind(graph, "case")[0]?.type.body;
  return { xMm: (b?.widthMm ?? 400) / 2, yMm: (b?.heightMm ?? 400) / 2 };
}

/** The corner of an outline that is nearest to a point, a little outside it. */
function cornerTo(r: Rect, to: Point, on: Spot["on"]): Spot {
  const c = mid(r);
  return {
    xMm: to.xMm < c.xMm ? r.xMm - CLEAR_MM : r.xMm + r.widthMm + CLEAR_MM,
    yMm: to.yMm < c.yMm ? r.yMm - CLEAR_MM : r.yMm + r.heightMm + CLEAR_MM,
    on,
  };
}

/** Where the wires of a part leave it, if nothing more is known of the one in question. */
export function spotOfPart(graph: Graph, part: PartNode): Spot {
  const id = part.cable?.owner ?? part.id;
  const owner = graph.parts.get(id) ?? part;
  // A card is where it is plugged; everything else stands still whatever the connections are.
  if (owner.type.kind === "card") return kept(graph, `spot:${id}`, STANDING, () => placePart(graph, owner));
  const mine = spots.get(graph.parts) ?? new Map<string, Spot>();
  spots.set(graph.parts, mine);
  const spot = mine.get(id) ?? placePart(graph, owner);
  mine.set(id, spot);
  return spot;
}

const spots = new WeakMap<Graph["parts"], Map<string, Spot>>();

function placePart(graph: Graph, part: PartNode): Spot {
  const b = bodyOf(graph, part.id);
  const at = part.origin;
  if (part.type.kind === "case") return { ...(part.type.body.frontIoAt ?? at), on: "both" };
  if (!b) return { xMm: at.xMm, yMm: at.yMm, on: part.type.kind === "lighting" || part.type.kind === "drive" ? "both" : "front" };
  const r = b.rect;
  switch (b.kind) {
    case "fan":
      return b.faceOn ? cornerTo(r, heart(graph), "both") : fanSpot(graph, b);
    case "supply":
      // Its own leads come out of the face that looks into the case.
      return r.xMm + r.widthMm / 2 < widthOf(graph) / 2
        ? { xMm: r.xMm + r.widthMm + CLEAR_MM, yMm: r.yMm + r.heightMm / 2, on: "both" }
        : { xMm: r.xMm + r.widthMm / 2, yMm: r.yMm + r.heightMm + CLEAR_MM, on: "both" };
    case "drive":
      // Behind the tray it is turned so that its plugs look to the board.
      return b.sheets[0] === "behind"
        ? { xMm: r.xMm + r.widthMm / 2, yMm: heart(graph).yMm < mid(r).yMm ? r.yMm - CLEAR_MM : r.yMm + r.heightMm + CLEAR_MM, on: "behind" }
        : { xMm: r.xMm - CLEAR_MM, yMm: r.yMm + r.heightMm / 2, on: "both" };
    case "hub": {
      // One whose plate nobody has named is judged from the first, whichever of several it will be.
      const x = b.assumed ? at.xMm : r.xMm + r.widthMm / 2;
      const y = b.assumed ? at.yMm + r.heightMm / 2 : r.yMm + r.heightMm;
      return { xMm: x, yMm: y + CLEAR_MM, on: sheetOf(b) };
    }
    case "light":
      return { xMm: at.xMm, yMm: at.yMm, on: "both" };
    case "cooler":
    case "pump":
      return cornerTo(r, { xMm: r.xMm + r.widthMm, yMm: 0 }, "front");
    case "card":
      return { xMm: r.xMm + r.widthMm * 0.75, yMm: r.yMm + r.heightMm / 2, on: "front" };
    default:
      return { ...mid(r), on: sheetOf(b) };
  }
}

const widthOf = (graph: Graph) => partsOfKind(graph, "case")[0]?.type.body.widthMm ?? 450;

/**
 * The lead of a fan leaves its frame at the corner nearest to the board, towards the room of the case; at the other end where something
 * solid sits there.
 */
function fanSpot(graph: Graph, b: Body): Spot {
  const r = b.rect;
  const to = heart(graph);
  const c = mid(r);
  const level = r.widthMm > r.heightMm;
  const half = b.part?.type.body.leadLeaves === "middle" ? 0 : (level ? r.widthMm : r.heightMm) / 2 - 8;
  const at = (side: number): Spot =>
    level
      ? { xMm: c.xMm + side * half, yMm: to.yMm < c.yMm ? r.yMm - CLEAR_MM : r.yMm + r.heightMm + CLEAR_MM, on: "both" }
      : { xMm: to.xMm < c.xMm ? r.xMm - CLEAR_MM : r.xMm + r.widthMm + CLEAR_MM, yMm: c.yMm + side * half, on: "both" };
  const near = Math.sign(level ? to.xMm - c.xMm : to.yMm - c.yMm) || 1;
  const solid = bodies(graph).filter((x) => x.id !== b.id && x.lets === "nothing" && !x.assumed && x.sheets.includes("front"));
  const free = (s: Spot) => solid.every((x) => !holds(x.rect, s));
  return [at(near), at(-near)].find(free) ?? at(near);
}

const holds = (r: Rect, p: Point) => p.xMm > r.xMm && p.xMm < r.xMm + r.widthMm && p.yMm > r.yMm && p.yMm < r.yMm + r.heightMm;

/** Ports of a hub stand in a row along its lower edge, as they are listed; so do the outlets of a supply, down its inner face. */
export function portRow(b: Pick<Body, "kind" | "rect">, index: number, of: number): Point {
  const r = b.rect;
  if (b.kind === "supply") return { xMm: r.xMm + r.widthMm, yMm: r.yMm + (r.heightMm * (index + 0.5)) / of };
  return { xMm: r.xMm + (r.widthMm * (index + 0.5)) / of, yMm: r.yMm + r.heightMm };
}

/** Where a plug goes in. */
export function spotOfPort(graph: Graph, p: PortNode): Spot {
  const { part, port } = p;
  if (part.type.kind === "board") return { xMm: p.at.xMm, yMm: p.at.yMm, on: "front" };
  if (isHung(part)) return spotOfHung(graph, part);
  const b = bodyOf(graph, part.id);
  if (!b || (b.kind !== "hub" && b.kind !== "supply")) return spotOfPart(graph, part);
  const row = portRow(b, part.type.ports.indexOf(port), part.type.ports.length);
  return b.kind === "hub" ? { xMm: row.xMm, yMm: row.yMm + CLEAR_MM, on: sheetOf(b) } : { xMm: row.xMm + CLEAR_MM, yMm: row.yMm, on: "both" };
}

/** Where a lead begins. */
export function spotOfLead(graph: Graph, l: LeadNode): Spot {
  if (isHung(l.part)) return spotOfHung(graph, l.part);
  return spotOfPart(graph, l.part);
}

/** What a splitter, an extension or an adapter hangs on: the port that its own plug is in, followed up to something that stands. */
export function hangsOn(graph: Graph, part: PartNode): { port: PortNode; through: PartNode[] } | undefined {
  const through: PartNode[] = [];
  let at: PartNode = part;
  for (let i = 0; i < 20; i++) {
    const input = at.type.leads.map((l) => graph.ofLead.get(`${at.id}:${l.id}`)).find((c) => c !== undefined);
    const up = input && graph.ports.get(input.port);
    if (!up) return undefined;
    if (!isHung(up.part)) return { port: up, through };
    through.push(up.part);
    at = up.part;
  }
  return undefined;
}

/** What a short lead wants beyond the straight distance to lie without pull, mm. */
const SPARE_MM = 30;

/** The outline that a splitter, an extension or an adapter is drawn with, mm. */
export const HUNG_MM = { w: 20, h: 12 };

const meets = (a: Rect, b: Rect, gap: number) =>
  a.xMm < b.xMm + b.widthMm + gap && b.xMm < a.xMm + a.widthMm + gap && a.yMm < b.yMm + b.heightMm + gap && b.yMm < a.yMm + a.heightMm + gap;

/** The outline of something that hangs, as near to a point as it lies on nothing else: looked for in rings of a few mm, below first. */
function freeNear(graph: Graph, base: Point, on: Spot["on"], others: readonly { rect: Rect; on: Spot["on"] }[]): Rect {
  const b = partsOfKind(graph, "case")[0]?.type.body;
  const side = (s: Spot["on"]) => (x: Spot["on"]) => x === "both" || s === "both" || x === s;
  const inWay = [
    ...bodies(graph)
      .filter((x) => x.lets === "nothing" && x.sheets.some((s) => on === "both" || on === s) && !(x.kind === "fan" && on !== "front"))
      .map((x) => x.rect),
    ...others.filter((o) => side(on)(o.on)).map((o) => o.rect),
  ];
  const at = (dx: number, dy: number): Rect => ({
    xMm: base.xMm - HUNG_MM.w / 2 + dx,
    yMm: base.yMm - HUNG_MM.h / 2 + dy,
    widthMm: HUNG_MM.w,
    heightMm: HUNG_MM.h,
  });
  for (let d = 0; d <= 160; d += 8)
    for (const [x, y] of d === 0
      ? [[0, 0]]
      : [
          [0, 1],
          [1, 0],
          [1, 1],
          [-1, 1],
          [-1, 0],
          [0, -1],
          [1, -1],
          [-1, -1],
        ]) {
      const r = at((x ?? 0) * d, (y ?? 0) * d);
      const inside = r.xMm > 4 && r.yMm > 4 && r.xMm + r.widthMm < (b?.widthMm ?? 9999) - 4 && r.yMm + r.heightMm < (b?.heightMm ?? 9999) - 4;
      if (inside && inWay.every((w) => !meets(r, w, 6))) return r;
    }
  return at(0, 0);
}

/**
 * Where they hang: at the cut-out nearest to what they are plugged into, several in one place side by side in the order of their names;
 * on the same side as a hub. What is plugged nowhere lies in the middle of the case.
 */
export function hung(graph: Graph): ReadonlyMap<string, { rect: Rect; on: Spot["on"]; cutout?: string }> {
  return kept(graph, "hung", [...STANDING, ...HANGING], () => {
    const out = new Map<string, { rect: Rect; on: Spot["on"]; cutout?: string }>();
    const cuts = partsOfKind(graph, "case")[0]?.type.body.cutouts ?? [];
    const all = [...graph.parts.values()].filter(isHung).sort((a, b) => (a.id < b.id ? -1 : 1));
    for (const part of all) {
      const up = hangsOn(graph, part);
      const at = up ? spotOfPort(graph, up.port) : undefined;
      const far = (c: { at: Point }) => Math.abs(c.at.xMm - (at?.xMm ?? 0)) + Math.abs(c.at.yMm - (at?.yMm ?? 0));
      const own = Math.max(0, ...part.type.leads.map((l) => l.lengthMm));
      // Where its own lead is too short for any cut-out it hangs right below the header.
      const near = at && at.on !== "behind" ? cuts.filter((c) => far(c) + SPARE_MM <= own) : [];
      const cut = near.reduce<(typeof cuts)[number] | undefined>((b, c) => (b && far(b) <= far(c) ? b : c), undefined);
      const base: Point = cut ? { xMm: cut.at.xMm + 22, yMm: cut.at.yMm } : at ? { xMm: at.xMm, yMm: at.yMm + 26 } : part.origin;
      const on: Spot["on"] = cut ? "both" : (at?.on ?? "front");
      const rect = freeNear(graph, base, on, [...out.values()]);
      out.set(part.id, { rect, on, ...(cut ? { cutout: cut.id } : {}) });
    }
    return out;
  });
}

function spotOfHung(graph: Graph, part: PartNode): Spot {
  const h = hung(graph).get(part.id);
  return h ? { ...mid(h.rect), on: h.on } : { xMm: part.origin.xMm, yMm: part.origin.yMm, on: "front" };
}

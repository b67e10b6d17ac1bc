import type { Address, Rect } from "../assembly";
import type { Loom, Point } from "../catalogue";
import type { Sheet } from "../space";
import { artOf, type Detail, memoryArt, type Tone, toneOf } from "./art";
import { type Box, type LabelWish, type PlacedLabel, placeLabels } from "./labels";
import { type Scene, type SceneBox, type ScenePort, seenAt, seenRect } from "./scene";
import { type Bundle, type Strand, strandsOf } from "./strands";

/** What a line or fill stands for; screens and paper give each its own ink. */
export type Ink = "case" | "tray" | "board" | "part" | "ghost" | "free" | "landmark" | "cutout" | "port" | "hung" | "dock" | "overlay";

/** What is drawn, back to front, in the units of the look. `of` is a port's address or a part's id. */
export type Item =
  | { kind: "rect"; box: Box; ink: Ink; tone?: Tone; of?: string; title?: string; round?: number; unfed?: boolean; dashed?: boolean }
  | ({ kind: "detail" } & Detail)
  | { kind: "tick"; points: readonly [number, number][]; ink: Ink }
  | { kind: "hole"; x: number; y: number; r: number; id: string; is: Scene["holes"][number]["is"] }
  | { kind: "lead"; lead: Address; loom: Loom; points: readonly [number, number][]; dim: boolean; done: boolean }
  | { kind: "count"; x: number; y: number; words: string; leads: Address[] }
  | { kind: "port"; box: Box; port: ScenePort; state: PortState; chosen: boolean; open: boolean }
  | { kind: "label"; label: PlacedLabel; strong: boolean; mono: boolean };

export type PortState = "free" | "planned" | "done" | "wrong";

/** How a sheet of the scene is looked at. */
export interface Look {
  /** Units of the drawing (px, or mm on paper) for one mm of the machine. */
  scale: number;
  /** Height of a line of words, width of a letter as a share of it, distance of strands, least side of a port: in units. */
  line: number;
  letter: number;
  pitch: number;
  least: number;
  /** Leads whose way is drawn; the rest is a stub at its port. */
  shown: (lead: Address) => "whole" | "dim" | "stub" | "none";
  isDone: (lead: Address) => boolean;
  port: (address: Address) => { state: PortState; chosen?: boolean; open?: boolean };
  /** In which order things are named; undefined: not at all. A box of negative rank is named only where its words fit into it. */
  nameOfPort: (p: ScenePort) => number | undefined;
  nameOfBox: (b: SceneBox) => number | undefined;
  /** Parts that are not in yet: an outline where they will be, so that what is worked at is seen. */
  later?: (part: string) => boolean;
  /** Only this much of the machine is shown: words stay within it. */
  region?: Rect;
  /** No word stands here: what lies over the drawing, in its units. */
  clear?: readonly Box[];
}

const STUB = 14;

export interface Drawn {
  /** Where the drawing begins and how large it is, in units. */
  frame: Box;
  items: Item[];
}

/** One sheet of the scene as a list of things to draw. Same scene and look, same list. */
export function drawSheet(scene: Scene, sheet: Sheet, look: Look): Drawn {
  const s = look.scale;
  const { view } = scene;
  const at = (p: Point): [number, number] => {
    const q = seenAt(scene, sheet, p);
    return [(q.xMm - view.xMm) * s, (q.yMm - view.yMm) * s];
  };
  const box = (r: Rect): Box => {
    const q = seenRect(scene, sheet, r);
    return { x: (q.xMm - view.xMm) * s, y: (q.yMm - view.yMm) * s, w: q.widthMm * s, h: q.heightMm * s };
  };
  const frame = box(view);
  const items: Item[] = [];
  if (scene.hasCase) items.push({ kind: "rect", box: frame, ink: "case", tone: 0 });
  if (scene.tray) items.push({ kind: "rect", box: box(scene.tray), ink: "tray", tone: 1, round: 4 });
  for (const f of scene.free) {
    if (f.faceOn && sheet === "behind") continue;
    items.push({ kind: "rect", box: box(f.rect), ink: "free", title: `${f.label}: no fan` });
  }
  if (sheet === "behind" && scene.board) items.push({ kind: "rect", box: box(scene.board), ink: "ghost", title: "the board, in front" });
  const here = scene.boxes.filter((b) => b.sheets.includes(sheet));
  if (sheet === "behind")
    for (const b of scene.boxes)
      if (b.kind === "supply" && !b.sheets.includes("behind"))
        items.push({ kind: "rect", box: box(b.rect), ink: "ghost", title: `${b.name}, in front` });
  const isLater = (part: string | undefined) => part !== undefined && look.later?.(part) === true;
  const board = here.find((b) => b.kind === "board");
  if (board) {
    const ahead = isLater(board.part ?? board.id);
    items.push({
      kind: "rect",
      box: box(board.rect),
      ...(ahead ? { ink: "ghost" } : { ink: "board", tone: 2 }),
      of: board.id,
      title: board.name,
      ...(board.provisional ? { dashed: true } : {}),
    });
  }
  for (const c of scene.cutouts) {
    const b = box(c.rect);
    const round = Math.min(Math.min(b.w, b.h) / 2, 8 * s);
    // A hole with the edge of its grommet.
    items.push({ kind: "rect", box: b, ink: "cutout", tone: 0, round, title: `cut-out, ${c.label}` });
    const e = Math.min(3, Math.min(b.w, b.h) * 0.16);
    if (Math.min(b.w, b.h) > 10)
      items.push({ kind: "rect", box: { x: b.x + e, y: b.y + e, w: b.w - 2 * e, h: b.h - 2 * e }, ink: "cutout", round: Math.max(0, round - e) });
  }
  for (const t of scene.ties) {
    if (t.sheet !== sheet) continue;
    const [x, y] = at(t.at);
    items.push({
      kind: "tick",
      points: [
        [x - 4 * Math.min(1, s), y],
        [x + 4 * Math.min(1, s), y],
      ],
      ink: "landmark",
    });
  }
  if (sheet === "front")
    for (const h of scene.holes) {
      const [x, y] = at(h.at);
      items.push({ kind: "hole", x, y, r: Math.max(2, 2.2 * s), id: h.id, is: h.is });
    }
  const ports = scene.ports
    .filter((p) => p.sheets.includes(sheet) && (!isLater(p.part) || look.port(p.address).chosen === true))
    .map((p) => ({ p, box: atLeast(box(p.rect), p.landmark ? 0 : look.least * (p.onBoard ? 1 : 0.7)) }))
    .sort((a, b) => Number(b.p.landmark) - Number(a.p.landmark));
  // Slots and sockets of the board lie under what stands before it, but for the one that is asked about.
  const flat = ports.filter(({ p }) => p.landmark && !look.port(p.address).chosen && !look.port(p.address).open);
  const lay = (list: typeof ports) => {
    for (const { p, box: b } of list) {
      const l = look.port(p.address);
      if (p.memory) for (const d of memoryArt(b, l.state === "planned" || l.state === "done")) items.push({ kind: "detail", ...d });
      items.push({ kind: "port", box: b, port: p, state: l.state, chosen: l.chosen === true, open: l.open === true });
    }
  };
  const order = [...here].sort((a, z) => BACK_TO_FRONT.indexOf(a.kind) - BACK_TO_FRONT.indexOf(z.kind) || (a.id < z.id ? -1 : 1));
  const firstOver = order.find((b) => BACK_TO_FRONT.indexOf(b.kind) > BACK_TO_FRONT.indexOf("heatsink"));
  for (const b of order) {
    if (b.kind === "board") continue;
    if (b.kind === firstOver?.kind && b.id === firstOver.id) lay(flat);
    if (isLater(b.part)) {
      items.push({ kind: "rect", box: box(b.rect), ink: "ghost", title: `${b.name}, not in yet` });
      continue;
    }
    items.push(...outline(b, box(b.rect)));
    for (const d of artOf(b, box(b.rect), s)) items.push({ kind: "detail", ...d });
  }
  if (!firstOver) lay(flat);
  items.push(...leadItems(scene, sheet, look, at));
  lay(ports.filter((p) => !flat.includes(p)));
  items.push(
    ...labelItems(
      here.filter((b) => !isLater(b.part)),
      ports,
      look,
      box,
      frame,
    ),
  );
  return { frame, items };
}

const BACK_TO_FRONT: readonly SceneBox["kind"][] = [
  "cover",
  "cage",
  "heatsink",
  "cooler",
  "pump",
  "fan",
  "radiator",
  "light",
  "supply",
  "drive",
  "hub",
  "card",
  "dock",
  "hung",
];

function outline(b: SceneBox, at: Box): Item[] {
  const title = b.name === b.label || b.label === "radiator" ? b.name : `${b.label}, ${b.name}`;
  const ink: Ink =
    b.kind === "hung"
      ? "hung"
      : b.kind === "dock"
        ? "dock"
        : ["heatsink", "cooler", "pump", "cover", "cage"].includes(b.kind)
          ? "landmark"
          : b.kind === "card"
            ? "overlay"
            : "part";
  const rect: Item = {
    kind: "rect",
    box: at,
    ink,
    tone: toneOf(b),
    title,
    ...(b.part ? { of: b.part } : {}),
    // Square is to scale; what has no place of its own, or only a typical one, is round.
    ...(b.assumed ? { round: 8 } : b.kind === "pump" || b.kind === "card" ? { round: 4 } : {}),
    ...(b.unfed ? { unfed: true } : {}),
    ...(b.provisional ? { dashed: true } : {}),
  };
  return [rect];
}

const atLeast = (b: Box, least: number): Box => {
  const [w, h] = [Math.max(least, b.w), Math.max(least * 0.6, b.h)];
  const short = Math.min(w, h) < least ? least / Math.min(w, h) : 1;
  return {
    x: b.x + b.w / 2 - (w * Math.min(short, 1.7)) / 2,
    y: b.y + b.h / 2 - (h * Math.min(short, 1.7)) / 2,
    w: w * Math.min(short, 1.7),
    h: h * Math.min(short, 1.7),
  };
};

function leadItems(scene: Scene, sheet: Sheet, look: Look, at: (p: Point) => [number, number]): Item[] {
  const out: Item[] = [];
  const drawn = scene.routes.routes.filter((r) => r.way && ["whole", "dim"].includes(look.shown(r.lead)));
  const { strands, bundles } = strandsOf(drawn, look.pitch / look.scale);
  const add = (s: Strand) =>
    out.push({ kind: "lead", lead: s.lead, loom: s.loom, points: s.points.map(at), dim: look.shown(s.lead) === "dim", done: look.isDone(s.lead) });
  // What is chosen lies on top.
  for (const s of strands.filter((x) => x.sheet === sheet && look.shown(x.lead) === "dim")) add(s);
  for (const s of strands.filter((x) => x.sheet === sheet && look.shown(x.lead) === "whole")) add(s);
  for (const r of scene.routes.routes) {
    if (look.shown(r.lead) !== "stub" || !r.way) continue;
    const last = r.way.stretches.at(-1);
    if (last?.sheet !== sheet) continue;
    const stub = endOf(last.points.map(at), STUB);
    if (stub.length > 1) out.push({ kind: "lead", lead: r.lead, loom: r.loom, points: stub, dim: false, done: look.isDone(r.lead) });
  }
  for (const b of bundles) if (b.sheet === sheet) out.push(countOf(b, at));
  return out;
}

function countOf(b: Bundle, at: (p: Point) => [number, number]): Item {
  const [x1, y1] = at(b.from);
  const [x2, y2] = at(b.to);
  return { kind: "count", x: (x1 + x2) / 2, y: (y1 + y2) / 2, words: `${b.leads.length}`, leads: b.leads };
}

/** The last so many units of a line, from its end backwards. */
function endOf(points: readonly [number, number][], long: number): [number, number][] {
  const out: [number, number][] = [];
  let left = long;
  for (let i = points.length - 1; i > 0 && left > 0; i--) {
    const [x1, y1] = points[i] as [number, number];
    const [x2, y2] = points[i - 1] as [number, number];
    const d = Math.hypot(x2 - x1, y2 - y1);
    if (out.length === 0) out.push([x1, y1]);
    if (d === 0) continue;
    const t = Math.min(1, left / d);
    out.push([x1 + (x2 - x1) * t, y1 + (y2 - y1) * t]);
    left -= d;
  }
  return out.reverse();
}

const isBefore = (o: SceneBox, b: SceneBox) =>
  BACK_TO_FRONT.indexOf(o.kind) > BACK_TO_FRONT.indexOf(b.kind) && toneOf(o) >= toneOf(b) && o.kind !== "hung";
const holdsMiddle = (o: Box, b: Box) => {
  const [x, y] = [b.x + b.w / 2, b.y + b.h / 2];
  return x > o.x && x < o.x + o.w && y > o.y && y < o.y + o.h;
};

function labelItems(here: readonly SceneBox[], ports: readonly { p: ScenePort; box: Box }[], look: Look, box: (r: Rect) => Box, frame: Box): Item[] {
  const bounds = look.region ? box(look.region) : frame;
  const mono = new Set<string>();
  const strong = new Set<string>();
  const wishes: LabelWish[] = [];
  const inView = (b: Box) => b.x + b.w > bounds.x && b.x < bounds.x + bounds.w && b.y + b.h > bounds.y && b.y < bounds.y + bounds.h;
  for (const { p, box: b } of ports) {
    const rank = look.nameOfPort(p);
    if (rank === undefined || !inView(b)) continue;
    wishes.push({ id: p.address, text: p.label, at: b, rank, ...(p.landmark ? { inside: "may" as const } : {}) });
    mono.add(p.address);
    if (rank < 1) strong.add(p.address);
  }
  for (const b of here) {
    const rank = look.nameOfBox(b);
    const at = box(b.rect);
    if (rank === undefined || !inView(at)) continue;
    // What lies behind something else is named there only where it was asked for.
    if (Math.abs(rank) >= 1 && here.some((o) => isBefore(o, b) && holdsMiddle(box(o.rect), at))) continue;
    wishes.push({ id: `${b.id}#${b.kind}`, text: b.label, at, rank: Math.abs(rank), inside: rank < 0 ? "only" : "may" });
    if (/^[A-Z]{2}-\d/.test(b.label)) mono.add(`${b.id}#${b.kind}`);
    if (rank < 1) strong.add(`${b.id}#${b.kind}`);
  }
  const clear = [...ports.filter((x) => !x.p.landmark).map((x) => x.box), ...(look.clear ?? [])];
  const wished = new Map(wishes.map((w) => [w.id, w.at]));
  const outlines = here.map((b) => wished.get(`${b.id}#${b.kind}`) ?? box(b.rect));
  return placeLabels(wishes, { bounds, keepClear: clear, outlines, line: look.line, letter: look.letter }).map((label) => ({
    kind: "label",
    label,
    strong: strong.has(label.id),
    mono: mono.has(label.id),
  }));
}

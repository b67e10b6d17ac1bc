import { boardPorts, cpuCoolers, type Graph, kept, naturally, type PartNode, partsOfKind, type Rect } from "../assembly";
import { fanOutline, isFaceOn, isLiquid, noRoomBehind, type PartKind, PartType, type Point, SUPPLY_MM, supplyOutline } from "../catalogue";
import { cardBoxes, fanSeats, radiatorSeats, SLOT_PITCH_MM, slotsTaken } from "../fit";
import { BOARD_FACE_MM, type Depth, fanDepth, hangs, inBay, isLevel, middle, onBoard, roomMm, SOCKET_MM, USUAL_MM, WALL_MM } from "./depth";
import { stacks } from "./stacks";

/** The two sides of the tray. What is on `behind` is kept as seen from the front; drawings of it are mirrored. */
export type Sheet = "front" | "behind";

export type BodyKind = "fan" | "radiator" | "supply" | "drive" | "hub" | "card" | "cooler" | "pump" | "light" | "cage" | "cover" | "heatsink";

/** Something solid in the case, as a rectangle in case millimetres. */
export interface Body {
  id: string;
  kind: BodyKind;
  /** What it is called. */
  name: string;
  part?: PartNode;
  sheets: readonly Sheet[];
  rect: Rect;
  /** Leads never go through it; or they can lie under, over or behind it, at a price. */
  lets: "nothing" | "at a price";
  /** Its outline is seen from its broad side: a fan as a ring. */
  faceOn?: boolean;
  /** From where to where it reaches off the tray's face, mm; behind the tray below nought. */
  depth: Depth;
  /** Only known by what is typical. */
  assumed?: boolean;
}

const BOTH: readonly Sheet[] = ["front", "behind"];
const FRONT: readonly Sheet[] = ["front"];
const BEHIND: readonly Sheet[] = ["behind"];

/** Outline of a drive seen from the side, and of one that lies flat behind the tray, mm (SFF-8201 and SFF-8301, rounded, from memory). */
const DRIVE_MM = { edge: { w: 100, h: 22 }, "2.5": { w: 70, h: 100 }, "3.5": { w: 102, h: 147 } } as const;
/** Outline of a hub that says nothing of its size, and of a pump on its socket, mm (common practice). */
const HUB_MM = { w: 90, h: 28 };
const PUMP_MM = 62;
/** Between the wall and what is assumed to stand at it. */
const EDGE_MM = 4;
/** A supply stands this far from the wall. */
const GAP_MM = 3;
/** Where there is no case at all. */
const NO_CASE = PartType.shape.body.parse(undefined);
const STRIP_MM = { long: 300, thick: 6 };
/** From the middle of a fan on a wall to its face, and the ring on it. */
const FAN_FACE_MM = 17;

const centred = (at: Point, w: number, h: number): Rect => ({ xMm: at.xMm - w / 2, yMm: at.yMm - h / 2, widthMm: w, heightMm: h });
const within = (v: number, least: number, most: number) => Math.max(least, Math.min(most, v));

type Mount = PartType["body"]["mounts"][number];

const shellOf = (graph: Graph) => partsOfKind(graph, "case")[0];
const mountOf = (graph: Graph, p: PartNode): Mount | undefined => shellOf(graph)?.type.body.mounts.find((m) => m.id === p.part.mount);
const nameOf = (p: PartNode) => p.part.label ?? p.type.name;

/** Kinds of parts that have a place of their own. */
export const STANDING: readonly PartKind[] = ["case", "board", "supply", "drive", "hub", "usb-hub", "card", "cooler", "fan", "lighting"];

/** What is only assumed of where a thing stands never leads out of the case. */
function inCase(graph: Graph, b: Body): Body {
  const { widthMm, heightMm } = shellOf(graph)?.type.body ?? {};
  if (!b.assumed || widthMm === undefined || heightMm === undefined) return b;
  const { rect: r } = b;
  const xMm = within(r.xMm, EDGE_MM, widthMm - EDGE_MM - r.widthMm);
  const yMm = within(r.yMm, EDGE_MM, heightMm - EDGE_MM - r.heightMm);
  return xMm === r.xMm && yMm === r.yMm ? b : { ...b, rect: { ...r, xMm, yMm } };
}

/** Every fixed body of the case: parts where they stand, cages, covers and heatsinks. Splitters and the like hang on what is plugged (`hung`). */
export const bodies = (graph: Graph): readonly Body[] =>
  kept(graph, "bodies", STANDING, () =>
    [
      ...ofCase(graph),
      ...ofBoard(graph),
      ...fans(graph),
      ...radiators(graph),
      ...supplies(graph),
      ...drives(graph),
      ...hubs(graph),
      ...cards(graph),
      ...coolers(graph),
      ...lights(graph),
    ].map((b) => inCase(graph, b)),
  );

function ofCase(graph: Graph): Body[] {
  const shell = shellOf(graph);
  return (shell?.type.body.bodies ?? []).map(
    (b): Body => ({
      id: `${shell?.id}/${b.id}`,
      kind: b.kind,
      name: b.label,
      depth: b.side === "rear" ? [-(shell?.type.body.behindTrayMm ?? USUAL_MM.behind), 0] : inBay(graph, USUAL_MM.cage),
      sheets: b.side === "rear" ? BEHIND : FRONT,
      rect: { xMm: b.at.xMm, yMm: b.at.yMm, widthMm: b.widthMm, heightMm: b.heightMm },
      lets: b.kind === "cover" ? "at a price" : "nothing",
    }),
  );
}

function ofBoard(graph: Graph): Body[] {
  const board = partsOfKind(graph, "board")[0];
  const at = graph.boardRect;
  if (!board || !at) return [];
  return board.type.body.landmarks.map(
    (m, i): Body => ({
      id: `${board.id}/${i + 1}`,
      kind: "heatsink",
      name: m.label,
      depth: onBoard(USUAL_MM.landmark),
      sheets: FRONT,
      rect: { xMm: at.xMm + m.at.xMm, yMm: at.yMm + m.at.yMm, widthMm: m.widthMm, heightMm: m.heightMm },
      lets: "nothing",
    }),
  );
}

/** A fan on a wall is seen edge-on, one on the side panel or the tray from its broad side. */
function fans(graph: Graph): Body[] {
  const b = shellOf(graph)?.type.body;
  // A radiator and its fans hang off the tray: leads go behind them.
  const gapped = new Set(radiatorSeats(graph).flatMap((r) => (letsOf(r.place) === "at a price" ? r.fans.map((f) => f.id) : [])));
  const offOf = new Map(radiatorSeats(graph).flatMap((r) => r.fans.map((f) => [f.id, r.place?.offsetMm] as const)));
  const stacked = stacks(graph).fans;
  return fanSeats(graph).flatMap((seat): Body[] => {
    if (!b) return [];
    const { mount, sizeMm: size, depthMm: deep, inside, part } = seat;
    return [
      {
        id: part.id,
        kind: "fan",
        name: nameOf(part),
        part,
        sheets: mount.region === "behind-tray" ? BEHIND : BOTH,
        rect: stacked.get(part.id) ?? fanOutline(b, mount, size, deep, inside),
        depth: fanDepth(graph, mount, size, deep, offOf.get(part.id)),
        ...(isFaceOn(mount)
          ? { lets: "at a price" as const, faceOn: true }
          : { lets: gapped.has(part.id) ? ("at a price" as const) : ("nothing" as const) }),
      },
    ];
  });
}

/** From here on leads pass between the tray and what hangs off it, mm. */
const GAP_LETS_MM = 20;
const letsOf = (place: { offsetMm?: number | undefined } | undefined): Body["lets"] =>
  (place?.offsetMm ?? 30) >= GAP_LETS_MM ? "at a price" : "nothing";

function radiators(graph: Graph): Body[] {
  const { radiators: rects } = stacks(graph);
  return radiatorSeats(graph).flatMap((r): Body[] => {
    const rect = rects.get(r.cooler.id);
    if (!r.place || !rect) return [];
    return [
      {
        id: `${r.cooler.id}/radiator`,
        kind: "radiator",
        name: `Radiator of ${nameOf(r.cooler)}`,
        part: r.cooler,
        sheets: FRONT,
        rect,
        depth: isLevel(r.place.region) ? hangs(r.place.offsetMm, r.radiator.widthMm) : middle(graph, r.radiator.widthMm),
        lets: letsOf(r.place),
      },
    ];
  });
}

/** Where a supply stands: at the mount that it names, else at the first that takes one. Behind the tray, in front of it, or over the board. */
function supplies(graph: Graph): Body[] {
  const b = shellOf(graph)?.type.body;
  const first = b?.mounts.find((m) => m.takes.includes("supply"));
  return partsOfKind(graph, "supply").map((part): Body => {
    const mount = mountOf(graph, part) ?? first;
    const { depthMm: long, heightMm: high = SUPPLY_MM.high, widthMm: wide = SUPPLY_MM.wide } = part.type.body;
    const behind = mount?.region === "behind-tray";
    return {
      id: part.id,
      kind: "supply",
      name: nameOf(part),
      part,
      sheets: behind ? BEHIND : FRONT,
      rect: supplyOutline(b ?? NO_CASE, { at: part.origin, region: mount?.region ?? "bottom", offMm: mount?.offMm }, long, high),
      depth: behind ? [-high - WALL_MM, -WALL_MM] : mount?.offMm === undefined ? inBay(graph, wide) : onBoard(high, mount.offMm),
      // Over the board leads run under it.
      lets: mount?.offMm === undefined ? "nothing" : "at a price",
    };
  });
}

function drives(graph: Graph): Body[] {
  return partsOfKind(graph, "drive").flatMap((part): Body[] => {
    const form = part.type.body.formFactor;
    if (form === "M.2") return [];
    const behind = mountOf(graph, part)?.region === "behind-tray";
    const size = behind ? DRIVE_MM[form === "3.5" ? "3.5" : "2.5"] : DRIVE_MM.edge;
    return [
      {
        id: part.id,
        kind: "drive",
        name: nameOf(part),
        part,
        sheets: behind ? BEHIND : FRONT,
        rect: centred(part.origin, size.w, size.h),
        depth: behind ? [-(form === "3.5" ? USUAL_MM.thick : USUAL_MM.flat), 0] : inBay(graph, USUAL_MM.cage),
        lets: "nothing",
        ...(mountOf(graph, part) ? {} : { assumed: true }),
      },
    ];
  });
}

/** A hub that only passes on what its one plug takes from a header, as a splitter does: it hangs where the leads meet, and has no plate. */
export const passesOn = (part: PartNode): boolean => part.type.kind === "hub" && part.type.leads.some((l) => l.role === "splitter-in");

/** Hubs on the mounts that they name, else on those that nothing does: plates that take only hubs first, then others, from the first. */
function hubs(graph: Graph): Body[] {
  const all = [...partsOfKind(graph, "hub").filter((p) => !passesOn(p)), ...partsOfKind(graph, "usb-hub")];
  const mounts = (shellOf(graph)?.type.body.mounts ?? []).filter((m) => m.takes.includes("hub"));
  const taken = new Set(STANDING.flatMap((kind) => partsOfKind(graph, kind)).flatMap((p) => p.part.mount ?? []));
  const left = mounts.filter((m) => !taken.has(m.id));
  const free = [...left.filter((m) => m.takes.length === 1), ...left.filter((m) => m.takes.length > 1)];
  const last = mounts.at(-1);
  const shell = shellOf(graph)?.type.body;
  // Where nothing says, it is stuck behind the tray, if there is room for anything at all.
  const isBehind = (m: Mount | undefined) => (m ? m.region === "behind-tray" : !shell || !noRoomBehind(shell));
  let beyond = 0;
  return [...all]
    .sort((a, z) => naturally(a.id, z.id))
    .map((part): Body => {
      const mount = mountOf(graph, part) ?? free.shift();
      const w = part.type.body.widthMm ?? HUB_MM.w;
      const h = part.type.body.heightMm ?? HUB_MM.h;
      // More hubs than plates: one below the other from the last plate on.
      const at = mount?.at ?? { xMm: (last?.at ?? part.origin).xMm, yMm: (last?.at ?? part.origin).yMm + ++beyond * (h + 12) };
      return {
        id: part.id,
        kind: "hub",
        name: nameOf(part),
        part,
        sheets: isBehind(mount ?? last) ? BEHIND : FRONT,
        rect: centred(at, w, h),
        depth: isBehind(mount ?? last) ? [-USUAL_MM.hub, 0] : [0, USUAL_MM.hub],
        lets: "nothing",
        ...(mountOf(graph, part) ? {} : { assumed: true }),
      };
    });
}

function cards(graph: Graph): Body[] {
  const stand = shellOf(graph)?.type.body.vertical;
  return [
    ...cardBoxes(graph).map(
      ({ part, x, y, w, h }): Body => ({
        id: part.id,
        kind: "card",
        name: nameOf(part),
        part,
        sheets: FRONT,
        rect: { xMm: x, yMm: y, widthMm: w, heightMm: h },
        depth: onBoard(part.type.body.depthMm ?? USUAL_MM.card),
        lets: "at a price",
      }),
    ),
    ...partsOfKind(graph, "card").flatMap((part): Body[] =>
      part.part.vertical && stand?.at
        ? [
            {
              id: part.id,
              kind: "card",
              name: nameOf(part),
              part,
              sheets: FRONT,
              rect: {
                xMm: stand.at.xMm,
                yMm: stand.at.yMm - (part.type.body.depthMm ?? 112) / 2,
                widthMm: part.type.body.widthMm ?? 200,
                heightMm: part.type.body.depthMm ?? USUAL_MM.card,
              },
              depth: standsFrom(graph, stand, part),
              lets: "at a price",
              faceOn: true,
            },
          ]
        : [],
    ),
  ];
}

/** A card on the vertical mount stands as far from the side panel as its place leaves room. */
function standsFrom(graph: Graph, stand: { thicknessMm: number }, card: PartNode): Depth {
  const from = roomMm(graph) - stand.thicknessMm;
  return [from, from + slotsTaken(card) * SLOT_PITCH_MM];
}

function coolers(graph: Graph): Body[] {
  const cpu = boardPorts(graph, "cpu")[0];
  if (!cpu) return [];
  return cpuCoolers(graph).map((part): Body => {
    const pump = isLiquid(part.type);
    const [w, h] = pump ? [PUMP_MM, PUMP_MM] : [part.type.body.depthMm ?? 75, part.type.body.widthMm ?? 120];
    return {
      id: part.id,
      kind: pump ? "pump" : "cooler",
      name: nameOf(part),
      part,
      sheets: FRONT,
      rect: centred(cpu.at, w, h),
      depth: onBoard(part.type.body.heightMm ?? (pump ? USUAL_MM.pump : USUAL_MM.cooler), BOARD_FACE_MM + SOCKET_MM),
      lets: "nothing",
      faceOn: true,
    };
  });
}

/** A strip along its wall; a ring or frame on a fan's mount lies on that fan. */
function lights(graph: Graph): Body[] {
  const b = shellOf(graph)?.type.body;
  const [w, h] = [b?.widthMm ?? 450, b?.heightMm ?? 450];
  return partsOfKind(graph, "lighting").flatMap((part): Body[] => {
    const mount = mountOf(graph, part);
    if (!mount) return [];
    const onFan = mount.takes.includes("fan");
    const level = mount.region !== "front" && mount.region !== "rear";
    const long = Math.min(part.type.body.widthMm ?? (onFan ? (mount.sizeMm ?? 120) - 20 : STRIP_MM.long), (level ? w : h) - 2 * GAP_MM);
    const size = level ? { w: long, h: STRIP_MM.thick } : { w: STRIP_MM.thick, h: long };
    const inwards = onFan ? FAN_FACE_MM : 0;
    const at = {
      xMm: within(mount.at.xMm + (mount.region === "front" ? -inwards : mount.region === "rear" ? inwards : 0), size.w / 2, w - size.w / 2),
      yMm: within(mount.at.yMm + (mount.region === "top" ? inwards : mount.region === "bottom" ? -inwards : 0), size.h / 2, h - size.h / 2),
    };
    return [
      {
        id: part.id,
        kind: "light",
        name: nameOf(part),
        part,
        sheets: BOTH,
        rect: centred(at, size.w, size.h),
        depth: middle(graph, STRIP_MM.thick),
        lets: "at a price",
      },
    ];
  });
}

import {
  type Address,
  type Graph,
  kept,
  type LeadNode,
  manhattanMm,
  naturally,
  type PortNode,
  partsOfKind,
  runLengthMm,
  SLACK_MM,
} from "../assembly";
import type { Loom, Point } from "../catalogue";
import { HANGING, hangsOn, hung, isHung, type Sheet, type Spot, STANDING, spotOfLead, spotOfPart, spotOfPort } from "../space";
import { type Cutout, drawnNetwork, type Network } from "./network";
import { cableNeeds, leadNeeds } from "./reach";
import { areaMm2, flatMm, leadMm } from "./thickness";
import { type Needs, needs, straightMm, type Way, wayThrough } from "./way";

/** Where what is too long of a lead goes. */
export interface Fold {
  sheet: Sheet;
  at: Point;
  words: string;
}

export interface Route {
  lead: Address;
  tag: string;
  loom: Loom;
  port: Address;
  /** Ends of the drawn line, in case mm. */
  from: Spot;
  to: Spot;
  /** Undefined: the case's channels are not known, or there is no way. */
  way?: Way;
  /** What it needs, bends and service loop included, against what it has, mm. */
  needMm: number;
  hasMm: number;
  /** Laid along edges and behind the tray; false: only as short as it goes. */
  tidy: boolean;
  fold?: Fold;
  /** Tie points it comes by, by id. */
  ties: string[];
  /** Why it is not tied. */
  untied?: string;
  /** The cut-out through which the technician leads it, by id. */
  asked?: string;
  /** What it hangs through: splitters and the like, by part. */
  through: string[];
}

export interface CutoutFill {
  id: string;
  label: string;
  leads: Address[];
  percent: number;
}

export interface Behind {
  thicknessMm: number;
  roomMm: number;
  leads: number;
  /** Something is folded there too. */
  folded?: boolean;
  at: Point;
}

/** A plug into something that is not fixed, which has to be held. */
export interface Joint {
  lead: Address;
  /** Which plug into what. */
  plug: string;
  how: "tied" | "taped";
  words: string;
}

export interface Routes {
  routes: readonly Route[];
  byLead: ReadonlyMap<Address, Route>;
  fill: CutoutFill[];
  behind?: Behind;
  /** Joints to secure: plugs that meet in the air, with what holds them. */
  joints: Joint[];
  assumed: readonly string[];
}

/** A fold is worth naming from this much on, mm. */
const FOLD_MM = 40;
const NEAR_TIE_MM = 14;
/** One layer of a fold takes so much of a lead, mm, and more than so many are laid side by side (common practice). */
const FOLDED_MM = 160;
const MOST_LAYERS = 4;
/** Ports of one hub, drive or supply are judged from one spot: so far may they really be from it, mm. */
const ONE_SPOT_MM = 45;

interface Wanted {
  lead: LeadNode;
  port: PortNode;
  from: Spot;
  to: Spot;
  hasMm: number;
  through: string[];
  /** From plug to plug of one cable no loop is wanted. */
  loop?: false;
  /** How far it has to go, by the same spots as the planner and the checks judge it: to its own port, or to that of the splitter that it is in. */
  judged: () => Needs;
}

/** Each lead that is in a port, with both its ends; cables of several plugs run from plug to plug. */
function wanted(graph: Graph): Wanted[] {
  const out: Wanted[] = [];
  for (const l of graph.leads.values()) {
    const c = graph.ofLead.get(l.address);
    const p = c && graph.ports.get(c.port);
    if (!p || l.loom === "seat" || l.lead.lengthMm === 0 || l.lead.role === "cable-root") continue;
    if (l.part.cable) {
      const one = ofCable(graph, l, p);
      if (one) out.push(one);
      continue;
    }
    const from = spotOfLead(graph, l);
    const to = spotOfPort(graph, p);
    const up = isHung(p.part) ? hangsOn(graph, p.part) : undefined;
    if (!up) {
      const hasMm = l.lead.lengthMm + p.port.tailMm;
      out.push({ lead: l, port: p, from, to, hasMm, through: [], judged: () => leadNeeds(graph, l, p, hasMm) });
      continue;
    }
    const through = [p.part, ...up.through];
    const more = through.reduce(
      (n, x) => n + Math.max(0, ...x.type.leads.filter((i) => graph.ofLead.has(`${x.id}:${i.id}`)).map((i) => i.lengthMm)),
      0,
    );
    const hasMm = l.lead.lengthMm + more + up.port.port.tailMm;
    out.push({ lead: l, port: p, from, to, hasMm, through: through.map((x) => x.id), judged: () => leadNeeds(graph, l, up.port, hasMm) });
  }
  return out.sort((a, b) => naturally(a.lead.tag, b.lead.tag) || naturally(a.lead.address, b.lead.address));
}

function ofCable(graph: Graph, l: LeadNode, p: PortNode): Wanted | undefined {
  const ends = l.part.type.leads
    .filter((x) => x.role !== "cable-root")
    .flatMap((x) => {
      const node = graph.leads.get(`${l.part.id}:${x.id}`);
      const at = graph.ports.get(graph.ofLead.get(`${l.part.id}:${x.id}`)?.port ?? "");
      return node && at ? [{ node, at }] : [];
    })
    .sort((a, b) => a.node.lead.lengthMm - b.node.lead.lengthMm || naturally(a.node.address, b.node.address));
  const root = graph.ports.get(graph.ofLead.get(`${l.part.id}:root-1`)?.port ?? "");
  const i = ends.findIndex((e) => e.node === l);
  const to = spotOfPort(graph, p);
  if (l.lead.role === "data") {
    const other = ends.find((e) => e.node !== l);
    // One cable, one line: it is the first of its two plugs that has it.
    if (!other || i !== 0) return undefined;
    const hasMm = Math.max(l.lead.lengthMm, other.node.lead.lengthMm);
    const from = spotOfPort(graph, other.at);
    return { lead: l, port: p, from, to, hasMm, through: [], judged: () => cableNeeds(graph, other.at, p, hasMm, false) };
  }
  const before = ends[i - 1];
  const owner = graph.parts.get(l.part.cable?.owner ?? "") ?? l.part;
  const from = before ? spotOfPort(graph, before.at) : root ? spotOfPort(graph, root) : spotOfPart(graph, l.part);
  const hasMm = l.lead.lengthMm + p.port.tailMm + (before ? before.at.port.tailMm - before.node.lead.lengthMm : 0);
  return {
    lead: l,
    port: p,
    from,
    to,
    hasMm,
    through: [],
    ...(before ? { loop: false } : {}),
    judged: () => cableNeeds(graph, before?.at ?? owner, p, hasMm, before !== undefined),
  };
}

/** The way of every lead that is in a port, and what follows from all of them together. */
export const routesOf = (graph: Graph): Routes => kept(graph, "routes", [...STANDING, ...HANGING, "cable"], () => routeAll(graph));

function routeAll(graph: Graph): Routes {
  const net = drawnNetwork(graph);
  const asked = new Map((graph.build.ways ?? []).map((w) => [w.lead, w.cutout]));
  const routes = wanted(graph).map((w) => routeOf(graph, net, w, asked));
  return {
    routes,
    byLead: new Map(routes.map((r) => [r.lead, r])),
    fill: fillOf(graph, net, routes),
    ...behindOf(graph, net, routes),
    joints: jointsOf(graph, routes),
    assumed: net ? net.assumed : ["channels"],
  };
}

function routeOf(graph: Graph, net: Network | undefined, w: Wanted, asked: ReadonlyMap<Address, string>): Route {
  // The figure is the planner's and the checks': from the part to the header it hangs on, whichever of a hub's ports it is in.
  const judged = w.judged();
  // Too short to be laid tidily, it is drawn as short as it goes.
  const drawn: Needs = (net && needs(net, w.from, w.to, judged.tidy ? w.hasMm + ONE_SPOT_MM : 0, w.loop === false ? 0 : undefined)) ?? {
    needMm: runLengthMm(w.from, w.to, graph.cutouts, graph.boardRect),
    tidy: true,
  };
  const cutout = net?.cutouts.findIndex((c) => c.id === asked.get(w.lead.address)) ?? -1;
  const through = net && cutout >= 0 ? wayThrough(net, w.from, w.to, cutout) : undefined;
  const way = through ?? (drawn.way?.blocked ? undefined : drawn.way);
  // Led elsewhere, it needs what that way takes.
  const needMm = through ? through.lengthMm + SLACK_MM : judged.needMm;
  const folds = w.hasMm - needMm >= FOLD_MM && w.lead.lead.role !== "splitter-in";
  const data = w.lead.lead.family === "sata-data";
  return {
    lead: w.lead.address,
    tag: w.lead.tag,
    loom: w.lead.loom,
    port: w.port.address,
    from: w.from,
    to: w.to,
    ...(way ? { way } : {}),
    needMm: Math.round(needMm),
    hasMm: Math.round(w.hasMm),
    tidy: through !== undefined || judged.tidy,
    ...(way && folds ? { fold: foldOf(graph, net, way, w.hasMm - needMm) } : {}),
    ...(through ? { asked: net?.cutouts[cutout]?.id } : {}),
    ties: way && !data ? tiesAlong(graph, way) : [],
    ...(data ? { untied: "SATA data cables are left untied: a tight tie bends them" } : {}),
    through: w.through,
  };
}

/** The cut-outs through which a lead that is in a port could be led. */
export function cutoutsFor(graph: Graph, lead: Address): Cutout[] {
  const net = drawnNetwork(graph);
  const r = routesOf(graph).byLead.get(lead);
  return net && r ? net.cutouts.filter((_, i) => wayThrough(net, r.from, r.to, i)) : [];
}

const along = (p: Point, a: Point, b: Point) => {
  const x = Math.max(Math.min(p.xMm, Math.max(a.xMm, b.xMm)), Math.min(a.xMm, b.xMm));
  const y = Math.max(Math.min(p.yMm, Math.max(a.yMm, b.yMm)), Math.min(a.yMm, b.yMm));
  return straightMm(p, { xMm: x, yMm: y });
};

const sidesOf = (way: Way, sheet: Sheet): [Point, Point][] =>
  way.stretches.filter((s) => s.sheet === sheet).flatMap((s) => s.points.slice(1).map((p, i): [Point, Point] => [s.points[i] as Point, p]));

type Tie = { id: string; label: string; at: Point; side: "front" | "rear" };
const tiesOfCase = (graph: Graph): readonly Tie[] => partsOfKind(graph, "case")[0]?.type.body.tiePoints ?? [];

function tiesAlong(graph: Graph, way: Way): string[] {
  return tiesOfCase(graph)
    .filter((t) => sidesOf(way, t.side === "front" ? "front" : "behind").some(([a, b]) => along(t.at, a, b) <= NEAR_TIE_MM))
    .map((t) => t.id);
}

/**
 * What is too long is folded behind the tray, between the two tie points nearest to the longest straight of the way there; where the way
 * never goes behind, it is pushed back through the cut-out nearest to it, if what is left gets there and back; else it is folded beside its port. Never in front of a fan or under the supply's way in: both are in front.
 */
function foldOf(graph: Graph, net: Network | undefined, way: Way, leftMm: number): Fold {
  const rear = tiesOfCase(graph).filter((t) => t.side === "rear");
  const longest = sidesOf(way, "behind").reduce<[Point, Point] | undefined>(
    (b, s) => (b && manhattanMm(b[0], b[1]) >= manhattanMm(s[0], s[1]) ? b : s),
    undefined,
  );
  if (longest) {
    const [a, b] = longest;
    const middle = { xMm: (a.xMm + b.xMm) / 2, yMm: (a.yMm + b.yMm) / 2 };
    const near = [...rear]
      .sort((x, y) => along(x.at, a, b) - along(y.at, a, b) || manhattanMm(x.at, middle) - manhattanMm(y.at, middle) || naturally(x.id, y.id))
      .slice(0, 2);
    const [one, two] = near.sort((x, y) => x.at.yMm - y.at.yMm || x.at.xMm - y.at.xMm);
    return {
      sheet: "behind",
      at: middle,
      words:
        one && two ? `behind the tray, between the tie points ${plain(one.label)} and ${plain(two.label)}` : "behind the tray, tied to what is there",
    };
  }
  const points = way.stretches.flatMap((s) => s.points);
  const far = (at: Point) => Math.min(...points.map((p) => manhattanMm(p, at)));
  const [firstCut, ...otherCuts] = net?.cutouts ?? [];
  const cut = firstCut && otherCuts.reduce((b, c) => (far(c.at) < far(b.at) ? c : b), firstCut);
  return cut && 2 * far(cut.at) <= leftMm
    ? { sheet: "behind", at: cut.at, words: `behind the tray, pushed back through the cut-out ${cut.label}` }
    : { sheet: "front", at: points[0] as Point, words: "beside its port" };
}

const plain = (label: string) => `“${label}”`;

function fillOf(graph: Graph, net: Network | undefined, routes: readonly Route[]): CutoutFill[] {
  return (net?.cutouts ?? []).map((c, i): CutoutFill => {
    const through = routes.filter((r) => r.way?.cutouts.includes(i));
    const area = through.reduce((n, r) => n + areaMm2(leadMm(graph.leads.get(r.lead) as LeadNode)), 0);
    return {
      id: c.id,
      label: c.label,
      leads: through.map((r) => r.lead),
      percent: Math.round((100 * area) / (c.widthMm * c.heightMm * (c.grommet ? 0.8 : 1))),
    };
  });
}

/** What lies on one place behind the tray. */
interface Pile {
  mm: number[];
  leads: Set<Address>;
  folded: boolean;
  at: Point;
}

/** The thickest place behind the tray, against the room to the panel there. */
function behindOf(graph: Graph, net: Network | undefined, routes: readonly Route[]): { behind?: Behind } {
  const body = partsOfKind(graph, "case")[0]?.type.body;
  if (!net || body?.behindTrayMm === undefined) return {};
  const at = new Map<string, Pile>();
  for (const r of routes) {
    const mm = leadMm(graph.leads.get(r.lead) as LeadNode);
    for (const [a, b] of r.way ? sidesOf(r.way, "behind") : [])
      for (const p of passes(net, a, b)) {
        const key = `${p.xMm},${p.yMm}`;
        const there = at.get(key);
        if (there) {
          there.mm.push(mm);
          there.leads.add(r.lead);
        } else at.set(key, { mm: [mm], leads: new Set([r.lead]), folded: false, at: p });
      }
  }
  // What is folded lies there again and again, one layer on the other.
  for (const r of routes) {
    if (r.fold?.sheet !== "behind") continue;
    const mm = leadMm(graph.leads.get(r.lead) as LeadNode);
    const near = [...at.values()].reduce<Pile | undefined>(
      (b, x) => (b && manhattanMm(b.at, r.fold?.at as Point) <= manhattanMm(x.at, r.fold?.at as Point) ? b : x),
      undefined,
    );
    if (!near) continue;
    const layers = Math.min(MOST_LAYERS, Math.ceil((r.hasMm - r.needMm) / FOLDED_MM));
    for (let i = 0; i < layers; i++) near.mm.push(mm);
    near.leads.add(r.lead);
    near.folded = true;
  }
  let worst: Behind | undefined;
  for (const { mm, leads, folded, at: p } of at.values()) {
    const room = body.rooms?.find((x) => p.xMm >= x.at.xMm && p.xMm <= x.at.xMm + x.widthMm && p.yMm >= x.at.yMm && p.yMm <= x.at.yMm + x.heightMm);
    const one: Behind = {
      thicknessMm: flatMm(mm),
      roomMm: room?.depthMm ?? body.behindTrayMm,
      leads: leads.size,
      ...(folded ? { folded: true } : {}),
      at: p,
    };
    if (!worst || one.roomMm - one.thicknessMm < worst.roomMm - worst.thicknessMm) worst = one;
  }
  return worst ? { behind: { ...worst, thicknessMm: Math.round(worst.thicknessMm * 10) / 10 } } : {};
}

/** The middles of the grid's stretches under a straight line. */
function passes(net: Network, a: Point, b: Point): Point[] {
  const level = a.yMm === b.yMm;
  const lines = level ? net.xs : net.ys;
  const [lo, hi] = level ? [Math.min(a.xMm, b.xMm), Math.max(a.xMm, b.xMm)] : [Math.min(a.yMm, b.yMm), Math.max(a.yMm, b.yMm)];
  const out: Point[] = [];
  for (let i = 0; i + 1 < lines.length; i++) {
    const m = ((lines[i] as number) + (lines[i + 1] as number)) / 2;
    if (m > lo && m < hi) out.push(level ? { xMm: m, yMm: Math.round(a.yMm) } : { xMm: Math.round(a.xMm), yMm: m });
  }
  return out;
}

const HOW = { tied: "tie the joint to the tray", taped: "secure the joint, tape or clip" } as const;

function jointsOf(graph: Graph, routes: readonly Route[]): Joint[] {
  const joint = (lead: Address, plug: string, how: Joint["how"]): Joint => ({ lead, plug, how, words: `${plug}: ${HOW[how]}` });
  const hangs = hung(graph);
  return routes.flatMap((r) => {
    const p = graph.ports.get(r.port);
    if (!p || p.part.cable) return [];
    const name = p.part.part.label ?? p.part.type.name;
    if (hangs.has(p.part.id)) return [joint(r.lead, `${r.tag} into ${name}`, "tied")];
    const chained =
      ["light", "case-fan", "radiator-fan"].includes(graph.leads.get(r.lead)?.lead.role ?? "") &&
      p.part.type.leads.some((l) => l.id === p.port.fedBy);
    return chained ? [joint(r.lead, `${r.tag} into ${name}`, "taped")] : [];
  });
}

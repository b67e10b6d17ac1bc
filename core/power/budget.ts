import { type Graph, kept, type PartNode, partsOfKind, wholeParts } from "../assembly";
import { family, PART_KINDS, type PartType, passesPower, startingCurrentA } from "../catalogue";
import { efficiencyPercent } from "./draw";
import { peakW } from "./peak";

export const RAILS = ["v12", "v5", "v33"] as const;
export type Rail = (typeof RAILS)[number];
export const RAIL_V: Record<Rail, number> = { v12: 12, v5: 5, v33: 3.3 };
export const RAIL_NAME: Record<Rail, string> = { v12: "12 V", v5: "5 V", v33: "3.3 V" };

/** Which rails a part draws from where its entry does not say. Common practice. */
const SHARE: Partial<Record<PartNode["type"]["kind"], Record<Rail, number>>> = {
  board: { v12: 0.4, v5: 0.35, v33: 0.25 },
  memory: { v12: 0, v5: 1, v33: 0 },
  lighting: { v12: 0, v5: 1, v33: 0 },
  "usb-hub": { v12: 0, v5: 1, v33: 0 },
};
const ALL_12: Record<Rail, number> = { v12: 1, v5: 0, v33: 0 };
/** Typical over peak draw where the entry gives none; idle likewise. Common practice. */
const TYPICAL = 0.7;
const IDLE = 0.15;

export interface PartDraw {
  part: PartNode;
  idleW: number;
  typicalW: number;
  peakW: number;
  startW: number;
  rails: Record<Rail, number>;
}

/** A moment of the machine's life against its supply. */
export interface Moment {
  name: "idle" | "typical" | "peak" | "start";
  dcW: number;
  /** Share of the supply's rating. */
  share: number;
  efficiencyPercent?: number;
  mainsW?: number;
  heatW?: number;
}

export interface Budget {
  parts: PartDraw[];
  moments: Moment[];
  rails: { rail: Rail; peakA: number; limitA?: number }[];
  supply?: PartNode;
  supplyW: number;
  headroomW: number;
  headroomAfterUpgradeW: number;
  /** What practitioners fit for such a machine, W. */
  usual: { fromW: number; toW: number; because: string };
  connectors: { family: string; name: string; needed: number; there: number }[];
}

export function partDraw(p: PartNode): PartDraw {
  p.once ??= {};
  p.once.draw ??= work(p);
  return p.once.draw as PartDraw;
}

function work(p: PartNode): PartDraw {
  const r = p.type.ratings;
  const peak = peakW(p);
  const share = p.type.leads.some((l) => l.family === "light-12v") ? ALL_12 : (SHARE[p.type.kind] ?? ALL_12);
  const rails = r.railsW ?? { v12: peak * share.v12, v5: peak * share.v5, v33: peak * share.v33 };
  return {
    part: p,
    idleW: r.idleW ?? peak * IDLE,
    typicalW: r.typicalW ?? peak * TYPICAL,
    peakW: peak,
    startW: startW(p),
    rails,
  };
}

/** What a part draws in the first second: spinning drives and fans far more than later, processors and cards near idle. */
function startW(p: PartNode): number {
  const r = p.type.ratings;
  if (r.startW !== undefined) return r.startW;
  const fans = p.type.leads.filter((l) => family(l.family).loom === "fans" && l.load.currentA > 0);
  if (fans.length > 0) return fans.reduce((s, l) => s + startingCurrentA(l.load) * 12, 0);
  if (p.type.kind === "cpu" || p.type.kind === "card") return Math.max(r.idleW ?? 0, peakW(p) * 0.35);
  return peakW(p);
}

/** Draw by moment, rail and connector against the supply of the build. */
export function powerBudget(graph: Graph): Budget {
  return kept(graph, "budget", PART_KINDS, () => budget(graph));
}

function budget(graph: Graph): Budget {
  const supplies = partsOfKind(graph, "supply");
  const supply = supplies[0];
  const supplyW = supplies.reduce((s, p) => s + (p.type.ratings.powerW ?? 0), 0);
  const parts = wholeParts(graph)
    .filter((p) => p.type.kind !== "supply")
    .map(partDraw);
  const total = { idleW: 0, typicalW: 0, peakW: 0, startW: 0, v12: 0, v5: 0, v33: 0 };
  for (const d of parts) {
    total.idleW += d.idleW;
    total.typicalW += d.typicalW;
    total.peakW += d.peakW;
    total.startW += d.startW;
    total.v12 += d.rails.v12;
    total.v5 += d.rails.v5;
    total.v33 += d.rails.v33;
  }
  const moment = (name: Moment["name"], dcW: number): Moment => {
    const share = supplyW > 0 ? dcW / supplyW : 0;
    const eff = supplyW > 0 ? efficiencyPercent(supply?.type.ratings.efficiency, share, graph.build.policy.mainsV) : undefined;
    if (eff === undefined) return { name, dcW, share };
    const mainsW = dcW / (eff / 100);
    return { name, dcW, share, efficiencyPercent: eff, mainsW, heatW: mainsW - dcW };
  };
  const headroomW = supplyW - total.peakW;
  return {
    parts,
    moments: [moment("idle", total.idleW), moment("typical", total.typicalW), moment("peak", total.peakW), moment("start", total.startW)],
    rails: RAILS.map((rail) => {
      const limitA = supply?.type.ratings.railsA?.[rail];
      return { rail, peakA: total[rail] / RAIL_V[rail], ...(limitA === undefined ? {} : { limitA }) };
    }),
    ...(supply ? { supply } : {}),
    supplyW,
    headroomW,
    headroomAfterUpgradeW: headroomW - graph.build.wishes.upgradeW,
    usual: usualSupply(graph),
    connectors: connectors(graph),
  };
}

/** The parts that draw anything, those that draw most first. */
export const byDraw = (b: Budget): PartDraw[] =>
  b.parts.filter((d) => d.peakW > 0).sort((a, c) => c.peakW - a.peakW || (a.part.id < c.part.id ? -1 : 1));

/** What people fit: about 500 W without a card, 550 to 650 for a middling one, 850 for a large one, 1000 and more for the largest. Common practice. */
export function usualSupply(graph: Graph): Budget["usual"] {
  const cards = partsOfKind(graph, "card").filter((c) => peakW(c) > 30);
  const largest = Math.max(0, ...cards.map(peakW));
  const all = cards.reduce((s, c) => s + peakW(c), 0);
  if (cards.length === 0) return { fromW: 400, toW: 550, because: "no graphics card" };
  if (cards.length > 1 || largest > 400)
    return { fromW: 1000, toW: 1600, because: cards.length > 1 ? `${cards.length} cards, ${all} W` : `a card of ${largest} W` };
  if (largest > 280) return { fromW: 750, toW: 1000, because: `a card of ${largest} W` };
  if (largest > 100) return { fromW: 550, toW: 750, because: `a card of ${largest} W` };
  return { fromW: 450, toW: 650, because: `a card of ${largest} W` };
}

/** Plugs that the supply's cables carry against sockets that want one. A first look: the wiring plan proves it. */
function connectors(graph: Graph): Budget["connectors"] {
  const needed = new Map<string, number>();
  const there = new Map<string, number>();
  for (const p of wholeParts(graph)) {
    const c = countsOf(p.type);
    if (c === NOTHING) continue;
    for (const [k, n] of c.needed) needed.set(k, (needed.get(k) ?? 0) + n);
    for (const [k, n] of c.there) there.set(k, (there.get(k) ?? 0) + n);
  }
  return GROUPS.flatMap((g) => {
    const n = needed.get(g.family) ?? 0;
    return n === 0 ? [] : [{ family: g.family, name: g.name, needed: n, there: there.get(g.family) ?? 0 }];
  });
}

const GROUPS: readonly { family: string; name: string; sockets: readonly string[]; plugs: readonly string[] }[] = [
  { family: "cpu-8", name: "CPU power", sockets: ["cpu-8", "cpu-4"], plugs: ["cpu-4+4", "cpu-8", "cpu-4"] },
  { family: "gfx-8", name: "8-pin and 6-pin graphics", sockets: ["gfx-8", "gfx-6"], plugs: ["gfx-6+2", "gfx-8", "gfx-6"] },
  { family: "gfx-16", name: "16-pin graphics", sockets: ["gfx-16"], plugs: ["gfx-16"] },
  { family: "sata-power", name: "SATA power", sockets: ["sata-power"], plugs: ["sata-power"] },
  { family: "peripheral-4", name: "4-pin peripheral", sockets: ["peripheral-4"], plugs: ["peripheral-4"] },
];

interface Counts {
  needed: [string, number][];
  there: [string, number][];
}
/** A catalogue entry never changes: its sockets and plugs are counted once. */
const NOTHING: Counts = { needed: [], there: [] };
const counted = new WeakMap<PartType, Counts>();

function countsOf(type: PartType): Counts {
  const known = counted.get(type);
  if (known) return known;
  const made: Counts = { needed: [], there: [] };
  for (const g of GROUPS) {
    const sockets = type.ports.filter((p) => p.flow === "in" && g.sockets.includes(p.family) && (p.role !== "cpu-power" || p.rank === 0)).length;
    const plugs = type.cables.reduce((s, c) => s + c.count * c.ends.filter((e) => g.plugs.includes(e.family)).length, 0);
    if (sockets > 0 && !passesPower(type)) made.needed.push([g.family, sockets]);
    if (plugs > 0 && type.kind === "supply") made.there.push([g.family, plugs]);
  }
  const kept = made.needed.length + made.there.length === 0 ? NOTHING : made;
  counted.set(type, kept);
  return kept;
}

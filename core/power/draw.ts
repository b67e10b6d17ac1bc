import { type Graph, kept, type LeadNode, type PartNode, type PortNode, partsOfKind, wholeParts } from "../assembly";
import { hungByRoot } from "../brings";
import { family, type Limit, loadCurrentA, PART_KINDS, PRACTICE, passesPower } from "../catalogue";
import { cpuShareFilled, cpuShareWanted, hasCpu } from "./cpu";
import { peakW } from "./peak";

/** What the slot itself may carry. PCI Express CEM, published (from memory). */
const SLOT_W = 75;
/** A hub whose entry gives a draw this near to all that it may pass on names its full load, not its own draw. */
const FULL_LOAD = 0.9;

/** Volts of what a port passes on: 5 V for addressable lights and USB, 12 V else. */
const voltsOf = (familyId: string) => (familyId === "light-5v" || family(familyId).loom === "front-panel" ? 5 : 12);

/** What a hub or controller draws by itself in W, without anything on it. */
export function ownDrawW(node: PortNode): number {
  const given = node.port.load?.powerW ?? (node.port.load?.currentA ? node.port.load.currentA * 12 : peakW(node.part));
  const passed = node.part.type.ports.find((p) => p.flow === "out" && p.fedBy === node.port.id);
  const mostW = (node.port.limit.currentA ?? Number.POSITIVE_INFINITY) * (passed ? voltsOf(passed.family) : 12);
  return passed && given >= mostW * FULL_LOAD ? 0 : given;
}

/** True for a power socket that feeds ports of its own part: a hub, or a cooler with outlets. */
export const feedsPorts = (node: PortNode): boolean => node.part.type.ports.some((p) => p.flow === "out" && p.fedBy === node.port.id);

/** What a lead on a hub takes from the hub's own plug, in W. */
export const hungW = (lead: LeadNode): number => loadCurrentA(lead.lead) * voltsOf(lead.lead.family);

/** Watts of everything that hangs on a hub by its own current. */
const carriedW = (graph: Graph, node: PortNode): number => (hungByRoot(graph).get(node.part.id)?.leads ?? []).reduce((s, l) => s + hungW(l), 0);

/** What a card draws through its cables in W, at peak: the slot carries its share. */
export const throughCablesW = (card: PartNode): number => Math.max(0, peakW(card) - SLOT_W);

/** Sockets of an adapter that share what its plug feeds. */
export const adapterIns = (part: PartNode) => part.type.ports.filter((p) => p.flow === "in" && family(p.family).loom === "power");

/**
 * Power in W that comes in through a socket, as the graph is connected: a hub's own draw and what hangs on it, an adapter's share
 * of what it feeds, the CPU's draw over its filled sockets, a card's over its sockets less the slot's 75 W.
 */
export function portDrawW(graph: Graph, node: PortNode, depth = 0): number {
  if (passesPower(node.part.type) && depth < 10) {
    const out = node.part.type.leads.find((l) => l.flow === "out");
    const fed = out && graph.ports.get(graph.ofLead.get(`${node.part.id}:${out.id}`)?.port ?? "");
    return fed ? portDrawW(graph, fed, depth + 1) / Math.max(1, adapterIns(node.part).length) : 0;
  }
  if (node.port.role === "cpu-power" && hasCpu(graph)) return cpuShareFilled(graph, node);
  return feedsPorts(node) ? ownDrawW(node) + carriedW(graph, node) : wantedDrawW(graph, node);
}

/** The same before anything is connected: hubs by their own draw alone, the CPU over the sockets that its draw asks for. */
export function wantedDrawW(graph: Graph, node: PortNode): number {
  if (feedsPorts(node)) return ownDrawW(node);
  if (node.port.role === "cpu-power" && hasCpu(graph)) return cpuShareWanted(graph, node);
  if (node.port.load?.powerW !== undefined) return node.port.load.powerW;
  if (node.port.role === "graphics-power") {
    const sockets = node.part.type.ports.filter((p) => p.role === "graphics-power").length;
    return throughCablesW(node.part) / sockets;
  }
  if (node.port.load?.currentA) return node.port.load.currentA * 12;
  return node.port.role === "device-power" ? peakW(node.part) : 0;
}

/**
 * What a 16-pin plug allows by its sense pins in W (PCI Express 5.0 CEM, ATX 3.0 guide: 600, 450, 300, 150). Both open is
 * 150 W there and nothing in the 5.1 revision, where 150 W is the two tied together: the lower counts.
 */
export const SENSE_W: Record<NonNullable<Limit["sense"]>, number> = { "gnd gnd": 600, "open gnd": 450, "gnd open": 300, tied: 150, "open open": 0 };

/** What one plug of a cable may carry in W; a 16-pin plug no more than its sense pins allow. */
export function plugLimitW(familyId: string, limit: Limit): number {
  const carries = limit.powerW ?? family(familyId).rating?.powerW ?? Number.POSITIVE_INFINITY;
  return limit.sense === undefined ? carries : Math.min(carries, SENSE_W[limit.sense]);
}

/** What a whole cable may carry in W: its own figure, else the practice value for its kind. */
export function cableLimitW(ends: readonly { family: string }[], limit: Limit): number {
  if (limit.powerW !== undefined) return limit.powerW;
  if (limit.currentA !== undefined) return limit.currentA * 12;
  if (ends.some((e) => e.family === "sata-power" || e.family === "peripheral-4")) return PRACTICE.sataStringA * 12;
  if (ends.filter((e) => e.family.startsWith("gfx-6")).length > 1) return PRACTICE.graphicsCableW;
  return Number.POSITIVE_INFINITY;
}

export interface Draw {
  idleW: number;
  typicalW: number;
  peakW: number;
  supplyW: number;
  loadShare: number;
}

/** Draw of the whole build in W against what the supply gives. Typical: seven tenths of peak, common practice. */
export const wholeDraw = (graph: Graph): Draw => kept(graph, "whole-draw", PART_KINDS, () => draw(graph));

function draw(graph: Graph): Draw {
  let peak = 0;
  let idle = 0;
  for (const p of wholeParts(graph)) {
    if (p.type.kind === "supply") continue;
    peak += peakW(p);
    idle += p.type.ratings.idleW ?? peakW(p) * 0.15;
  }
  const supplyW = partsOfKind(graph, "supply").reduce((s, p) => s + (p.type.ratings.powerW ?? 0), 0);
  return {
    idleW: idle,
    typicalW: Math.round(peak * 0.7),
    peakW: peak,
    supplyW,
    loadShare: supplyW > 0 ? peak / supplyW : 0,
  };
}

/**
 * Efficiency points at load shares, percent. 80 PLUS, published (from memory): 115 V internal, and 230 V EU internal
 * non-redundant. Titanium has a point at 10 % as well.
 */
const EFFICIENCY: Record<115 | 230, Record<string, readonly [share: number, percent: number][]>> = {
  115: {
    base: points(80, 80, 80),
    bronze: points(82, 85, 82),
    silver: points(85, 88, 85),
    gold: points(87, 90, 87),
    platinum: points(90, 92, 89),
    titanium: [[0.1, 90], ...points(92, 94, 90)],
  },
  230: {
    base: points(82, 85, 82),
    bronze: points(85, 88, 85),
    silver: points(87, 90, 87),
    gold: points(90, 92, 89),
    platinum: points(92, 94, 90),
    titanium: [[0.1, 90], ...points(94, 96, 94)],
  },
};
function points(a: number, b: number, c: number): [number, number][] {
  return [
    [0.2, a],
    [0.5, b],
    [1, c],
  ];
}

/** The class's own points, share against percent; empty for a supply of no class. */
export const efficiencyPoints = (rating: string | undefined, mainsV: 115 | 230) => EFFICIENCY[mainsV][rating ?? ""] ?? [];

/**
 * Efficiency in percent at a load share (0 to 1), on straight lines between the class's points. Below the first point
 * it falls with the supply's own standing loss, taken from the first point: an estimate, not a promise of the class.
 * `undefined` for a supply of no class.
 */
export function efficiencyPercent(rating: string | undefined, loadShare: number, mainsV: 115 | 230): number | undefined {
  const list = efficiencyPoints(rating, mainsV);
  const first = list[0];
  const last = list.at(-1);
  if (!first || !last) return undefined;
  if (loadShare >= last[0]) return last[1];
  if (loadShare === first[0]) return first[1];
  if (loadShare < first[0]) {
    // Half of the loss at the first point stands whatever the load (common practice).
    const loss = first[0] * (100 / first[1] - 1);
    const now = loss / 2 + (loss / 2) * (loadShare / first[0]);
    return loadShare <= 0 ? 0 : (100 * loadShare) / (loadShare + now);
  }
  const above = list.findIndex(([s]) => s >= loadShare);
  const [b, a] = [list[above], list[above - 1]];
  return a && b ? a[1] + ((b[1] - a[1]) * (loadShare - a[0])) / (b[0] - a[0]) : undefined;
}

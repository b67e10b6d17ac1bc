import { type Graph, type PartNode, type PortNode, partsOfKind } from "../build";
import { family, type Limit, PRACTICE } from "../catalogue";

/** What the slot itself may carry. PCI Express CEM, published (from memory). */
const SLOT_W = 75;

/** Peak draw of a part in W. */
export const peakW = (p: PartNode) => p.type.ratings.peakW ?? p.type.ratings.powerW ?? 0;

/** CPU plugs that the calculated draw needs: draw over what one plug carries, at least one. */
export function cpuPlugsNeeded(graph: Graph): number {
  const cpu = partsOfKind(graph, "cpu")[0];
  return Math.max(1, Math.ceil((cpu ? peakW(cpu) : 0) / graph.build.policy.cpuPlugW));
}

/** Power in W that comes in through a port: its own entry, else worked out from the part. */
export function portDrawW(graph: Graph, node: PortNode): number {
  if (node.port.load?.powerW !== undefined) return node.port.load.powerW;
  if (node.port.role === "graphics-power") {
    const sockets = node.part.type.ports.filter((p) => p.role === "graphics-power").length;
    return Math.max(0, peakW(node.part) - SLOT_W) / sockets;
  }
  if (node.port.role === "cpu-power") {
    const cpu = partsOfKind(graph, "cpu")[0];
    return (cpu ? peakW(cpu) : 0) / cpuPlugsNeeded(graph);
  }
  if (node.port.load?.currentA) return node.port.load.currentA * 12;
  return node.port.role === "device-power" ? peakW(node.part) : 0;
}

/** What one plug of a cable may carry in W. */
export function plugLimitW(familyId: string, limit: Limit): number {
  return limit.powerW ?? family(familyId).rating?.powerW ?? Number.POSITIVE_INFINITY;
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
export function wholeDraw(graph: Graph): Draw {
  const consumers = [...graph.parts.values()].filter((p) => !p.cable && p.type.kind !== "supply");
  const sum = (of: (p: PartNode) => number) => consumers.reduce((s, p) => s + of(p), 0);
  const peak = sum(peakW);
  const supplyW = partsOfKind(graph, "supply").reduce((s, p) => s + (p.type.ratings.powerW ?? 0), 0);
  return {
    idleW: sum((p) => p.type.ratings.idleW ?? peakW(p) * 0.15),
    typicalW: Math.round(peak * 0.7),
    peakW: peak,
    supplyW,
    loadShare: supplyW > 0 ? peak / supplyW : 0,
  };
}

/** Efficiency points at 20, 50 and 100 % load. 80 PLUS, published (from memory). */
const EFFICIENCY: Record<115 | 230, Record<string, [number, number, number]>> = {
  115: { base: [80, 80, 80], bronze: [82, 85, 82], silver: [85, 88, 85], gold: [87, 90, 87], platinum: [90, 92, 89], titanium: [92, 94, 90] },
  230: { base: [82, 85, 82], bronze: [81, 85, 81], silver: [85, 89, 85], gold: [88, 92, 88], platinum: [90, 94, 91], titanium: [94, 96, 94] },
};

/**
 * Efficiency in percent at a load share (0 to 1), on straight lines between the class's points.
 * Below 20 % the first line's value at 20 % holds. `undefined` for a supply of no class.
 */
export function efficiencyPercent(rating: string | undefined, loadShare: number, mainsV: 115 | 230): number | undefined {
  const points = rating === undefined ? undefined : EFFICIENCY[mainsV][rating];
  if (!points) return undefined;
  const load = Math.min(1, Math.max(0.2, loadShare)) * 100;
  return load <= 50 ? points[0] + ((points[1] - points[0]) * (load - 20)) / 30 : points[1] + ((points[2] - points[1]) * (load - 50)) / 50;
}

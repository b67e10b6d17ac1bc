import type { Graph, PartNode, PortNode } from "../assembly";
import { naturally, wholeParts } from "../assembly";
import type { Lead } from "../catalogue";
import { peakW } from "../power";

/** PCI Express lanes that a filled slot has, with what shares them filled as it is; undefined where the board's entry does not say. */
export function lanesAt(graph: Graph, slot: PortNode): { lanes: number; full: number; sharedWith: PortNode[] } | undefined {
  const full = slot.port.link?.lanes;
  if (full === undefined) return undefined;
  let lanes: number = full;
  const sharedWith: PortNode[] = [];
  for (const s of slot.port.sharesLanes ?? []) {
    const other = graph.ports.get(`${slot.part.id}:${s.with}`);
    if (!other || !graph.atPort.get(other.address)?.length) continue;
    sharedWith.push(other);
    lanes = Math.min(lanes, s.lanes);
  }
  return { lanes, full, sharedWith };
}

/** Lanes that a card or drive is short of; 0 where nothing is lost or nothing is known. */
export function lanesLost(lead: Lead, lanes: number | undefined): number {
  return lanes === undefined || lead.link === undefined ? 0 : Math.max(0, lead.link.lanes - lanes);
}

/** Too few lanes to work at all: fewer than its entry says it can live with, or none. */
export const tooFewLanes = (lead: Lead, lanes: number | undefined): boolean =>
  lanes !== undefined && (lanes === 0 || lanes < (lead.link?.leastLanes ?? 1));

/** Cards in the order in which they choose a slot: those that give the picture first, then by the lanes they want, then by draw. */
export function cardOrder(graph: Graph): PartNode[] {
  const wants = (p: PartNode) => Math.max(0, ...p.type.leads.map((l) => l.link?.lanes ?? 0));
  return wholeParts(graph)
    .filter((p) => p.type.leads.some((l) => l.family === "pcie-slot"))
    .sort(
      (a, b) =>
        Number(b.type.ratings.hasGraphics === true) - Number(a.type.ratings.hasGraphics === true) ||
        wants(b) - wants(a) ||
        peakW(b) - peakW(a) ||
        naturally(a.id, b.id),
    );
}

/** Slots of a board in the order in which cards want them: by the board's rank, then the most lanes, then from the CPU down. */
export const slotsInOrder = (slots: readonly PortNode[]): PortNode[] =>
  [...slots].sort(
    (a, b) =>
      a.port.rank - b.port.rank ||
      (b.port.link?.lanes ?? 0) - (a.port.link?.lanes ?? 0) ||
      (b.port.link?.generation ?? 0) - (a.port.link?.generation ?? 0) ||
      a.at.yMm - b.at.yMm ||
      naturally(a.address, b.address),
  );

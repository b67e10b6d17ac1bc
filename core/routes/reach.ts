import { type Graph, type LeadNode, type PartNode, type PortNode, runCostCm as thumbCm, runLengthMm as thumbMm } from "../assembly";
import type { Point } from "../catalogue";
import { hangsOn, isHung, type Spot, spotOfPart, spotOfPort } from "../space";
import { networkOf } from "./network";
import { leastMm, type Needs, needs, wayCostCm } from "./way";

/** The ports of one hub, drive or card are judged from one spot, so that it does not matter which of them it is; a board's are far apart. */
function plugSpot(graph: Graph, p: PortNode): Spot {
  if (p.part.type.kind === "board") return spotOfPort(graph, p);
  if (!isHung(p.part)) return spotOfPart(graph, p.part);
  const up = hangsOn(graph, p.part)?.port;
  return up ? plugSpot(graph, up) : { xMm: p.part.origin.xMm, yMm: p.part.origin.yMm, on: "front" };
}

/** A splitter, an extension or an adapter hangs at what it is plugged into, so its own lead begins there. */
const startSpot = (graph: Graph, l: LeadNode, end: Spot): Spot => (isHung(l.part) ? end : spotOfPart(graph, l.part));

/** The rule of thumb where the case's cut-outs are not known: through nothing but air, between the places that mounts and ports name. */
const byThumb = (graph: Graph, a: Point, b: Point): number => thumbMm(a, b, graph.cutouts, graph.boardRect);

/** The least that a lead needs to reach a port, service loop included, mm. */
export function leadToPortMm(graph: Graph, l: LeadNode, p: PortNode): number {
  if (!networkOf(graph)) return byThumb(graph, l.origin, p.at);
  const end = plugSpot(graph, p);
  return leastMm(graph, startSpot(graph, l, end), end);
}

/** What a lead of `hasMm` needs to a port, and how it then lies. */
export function leadNeeds(graph: Graph, l: LeadNode, p: PortNode, hasMm: number, slackMm?: number): Needs {
  if (!networkOf(graph)) return { needMm: byThumb(graph, l.origin, p.at), tidy: true };
  const end = plugSpot(graph, p);
  return needs(graph, startSpot(graph, l, end), end, hasMm, slackMm);
}

/** The least that a cable out of a part's bag needs to a port, mm. */
export const partToPortMm = (graph: Graph, part: PartNode, p: PortNode): number =>
  networkOf(graph) ? leastMm(graph, spotOfPart(graph, part), plugSpot(graph, p)) : byThumb(graph, part.origin, p.at);

export const portToPortMm = (graph: Graph, a: PortNode, b: PortNode): number =>
  networkOf(graph) ? leastMm(graph, plugSpot(graph, a), plugSpot(graph, b)) : byThumb(graph, a.at, b.at);

/** What a lead to a port costs a plan, in whole cm: as it is laid tidily, over the board's face counted twice. */
export function leadToPortCm(graph: Graph, l: LeadNode, p: PortNode): number {
  if (!networkOf(graph)) return thumbCm(l.origin, p.at, graph.cutouts, graph.boardRect);
  const end = plugSpot(graph, p);
  return wayCostCm(graph, startSpot(graph, l, end), end);
}

export const portToPortCm = (graph: Graph, a: PortNode, b: PortNode): number =>
  networkOf(graph) ? wayCostCm(graph, plugSpot(graph, a), plugSpot(graph, b)) : thumbCm(a.at, b.at, graph.cutouts, graph.boardRect);

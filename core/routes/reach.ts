import {
  type Graph,
  type LeadNode,
  manhattanMm,
  type PartNode,
  type PortNode,
  SLACK_MM,
  runCostCm as thumbCm,
  runLengthMm as thumbMm,
} from "../assembly";
import type { Point } from "../catalogue";
import { hangsOn, isHung, type Spot, spotOfPart, spotOfPort } from "../space";
import { type Network, networkOf } from "./network";
import { leastMm, type Needs, needs, wayCostCm } from "./way";

/** The ports of one hub, drive or card are judged from one spot, so that it does not matter which of them it is; a board's are far apart. */
function plugSpot(graph: Graph, p: PortNode): Spot {
  if (p.part.type.kind === "board") return spotOfPort(graph, p);
  if (!isHung(p.part)) return spotOfPart(graph, p.part);
  const up = hangsOn(graph, p.part)?.port;
  return up ? plugSpot(graph, up) : { xMm: p.part.origin.xMm, yMm: p.part.origin.yMm, on: "front" };
}

/** Where something begins that is led to a port: a part, another port, or a lead. */
interface Start {
  /** The place that mounts and ports name, for the rule of thumb. A splitter, an extension or an adapter hangs at what it is plugged into, so its own lead begins at the end. */
  at: (end: Point) => Point;
  spot: (end: Spot) => Spot;
}

const ofLead = (graph: Graph, l: LeadNode): Start => ({
  at: (end) => (isHung(l.part) ? end : l.origin),
  spot: (end) => (isHung(l.part) ? end : spotOfPart(graph, l.part)),
});
const ofPart = (graph: Graph, part: PartNode): Start => ({ at: () => part.origin, spot: () => spotOfPart(graph, part) });
const ofPort = (graph: Graph, p: PortNode): Start => ({ at: () => p.at, spot: () => plugSpot(graph, p) });

/** By the ways of the case, or, where its cut-outs are not known, by the rule of thumb: through nothing but air. */
function asked<T>(
  graph: Graph,
  from: Start,
  to: PortNode,
  byWays: (net: Network, a: Spot, b: Spot) => T | undefined,
  byThumb: (a: Point, b: Point, cutouts: Graph["cutouts"], board: Graph["boardRect"]) => T,
): T {
  const net = networkOf(graph);
  const end = net && plugSpot(graph, to);
  return (net && end && byWays(net, from.spot(end), end)) ?? byThumb(from.at(to.at), to.at, graph.cutouts, graph.boardRect);
}

/** The least that a lead needs to reach a port, service loop included, mm. */
export const leadToPortMm = (graph: Graph, l: LeadNode, p: PortNode): number => asked(graph, ofLead(graph, l), p, leastMm, thumbMm);

/** The least that a cable out of a part's bag needs to a port, mm. */
export const partToPortMm = (graph: Graph, part: PartNode, p: PortNode): number => asked(graph, ofPart(graph, part), p, leastMm, thumbMm);

export const portToPortMm = (graph: Graph, a: PortNode, b: PortNode): number => asked(graph, ofPort(graph, a), b, leastMm, thumbMm);

/** The least of one cable that two of its plugs need between them, mm: they hang in their ports, so no loop is wanted. */
export const plugToPlugMm = (graph: Graph, a: PortNode, b: PortNode): number =>
  asked(
    graph,
    ofPort(graph, a),
    b,
    (net, from, to) => {
      const mm = leastMm(net, from, to);
      return mm === undefined ? undefined : mm - SLACK_MM;
    },
    manhattanMm,
  );

/** What a lead to a port costs a plan, in whole cm: as it is laid tidily, over the board's face counted twice. */
export const leadToPortCm = (graph: Graph, l: LeadNode, p: PortNode): number => asked(graph, ofLead(graph, l), p, wayCostCm, thumbCm);

export const portToPortCm = (graph: Graph, a: PortNode, b: PortNode): number => asked(graph, ofPort(graph, a), b, wayCostCm, thumbCm);

/** What a lead of `hasMm` needs to a port, and how it then lies. */
export const leadNeeds = (graph: Graph, l: LeadNode, p: PortNode, hasMm: number): Needs =>
  asked<Needs>(
    graph,
    ofLead(graph, l),
    p,
    (net, a, b) => needs(net, a, b, hasMm),
    (...thumb) => ({ needMm: thumbMm(...thumb), tidy: true }),
  );

/**
 * What a cable of several plugs needs to one of them, and how it then lies: from the plug before, or from the part that it comes out of.
 * `hasMm`: what there is of it up to there.
 */
export const cableNeeds = (graph: Graph, from: PortNode | PartNode, p: PortNode, hasMm: number, between: boolean): Needs =>
  asked<Needs>(
    graph,
    "port" in from ? ofPort(graph, from) : ofPart(graph, from),
    p,
    (net, a, b) => needs(net, a, b, hasMm, between ? 0 : undefined),
    (...thumb) => ({ needMm: between ? manhattanMm(thumb[0], thumb[1]) : thumbMm(...thumb), tidy: true }),
  );

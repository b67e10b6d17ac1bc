import { type Address, type Graph, type LeadNode, mateOf, naturally, type PortNode, withConnections } from "../assembly";
import { hungOn } from "../brings";
import { usable } from "../catalogue";
import { leadToPortMm, plugToPlugMm } from "../routes";

/** Another place for what is plugged in a port, to see whether it is the port. */
export interface Elsewhere {
  /** What hands do, without what comes before and after. */
  action: string;
  /** Which leads are then in which ports. */
  moves: readonly { lead: Address; port: Address }[];
  /** What it means where everything works then. */
  ifGood: string;
  ifBad: string;
}

/** Where the other plug of a data cable is. */
function otherEnd(graph: Graph, l: LeadNode): PortNode | undefined {
  const other = l.part.type.leads.find((x) => x.id !== l.lead.id && x.role === "data");
  return graph.ports.get(graph.ofLead.get(`${l.part.id}:${other?.id}`)?.port ?? "");
}

/** It may go there, and reaches. What sits in a slot has no length. */
function goes(graph: Graph, l: LeadNode, q: PortNode): boolean {
  if (!usable(mateOf(l, q))) return false;
  if (l.loom === "seat") return true;
  const far = l.part.cable && l.lead.role === "data" ? otherEnd(graph, l) : undefined;
  const needMm = far ? plugToPlugMm(graph, far, q) : leadToPortMm(graph, l, q);
  return needMm <= Math.max(l.lead.lengthMm, ...(far ? l.part.type.leads.map((x) => x.lengthMm) : [])) + q.port.tailMm;
}

/** As hands call it: a lead by its tag, what sits in a slot by its name. */
const called = (l: LeadNode) => (l.loom === "seat" ? l.name : l.tag);

/** With these leads elsewhere nothing carries more than it may. */
function carries(graph: Graph, moves: Elsewhere["moves"]): boolean {
  const to = new Map(moves.map((m) => [m.lead, m.port]));
  const moved = withConnections(
    graph,
    graph.connections.map((c) => ({ ...c, port: to.get(c.lead) ?? c.port })),
  );
  return moves.every((m) => {
    const q = moved.ports.get(m.port);
    const on = q && hungOn(moved, q);
    return on?.limitA === undefined || on.currentA <= on.limitA + 1e-9;
  });
}

/**
 * Where what is plugged in a port could go: onto a free port of its kind, else in exchange with something of its kind that was seen to work.
 * It follows the lead: the device. It stays: the position (common practice). Undefined where there is neither, and on a panel's pins.
 * @param works leads of things that were seen to work
 */
export function elsewhere(graph: Graph, port: Address, works: ReadonlySet<Address>): Elsewhere | undefined {
  const p = graph.ports.get(port);
  const [c] = graph.atPort.get(port) ?? [];
  const l = c && graph.leads.get(c.lead);
  if (!p || !l || c.place) return undefined;
  // Its own ports hang on it, and go with it.
  const others = [...graph.ports.values()].filter(
    (q) =>
      q !== p && q.port.role === p.port.role && q.part.id !== l.part.id && (q.part === p.part || q.part.type.kind === "board") && goes(graph, l, q),
  );
  const nearest = (a: PortNode, b: PortNode) => leadToPortMm(graph, l, a) - leadToPortMm(graph, l, b) || naturally(a.address, b.address);
  for (const q of others.filter((o) => (graph.atPort.get(o.address) ?? []).length === 0).sort(nearest)) {
    const moves = [{ lead: l.address, port: q.address }];
    if (carries(graph, moves))
      return {
        action: `Put ${called(l)} into ${q.name}, which is free`,
        moves,
        ifGood: `${p.name} is dead. Leave ${called(l)} there and say so at the bench.`,
        ifBad: `No change: it follows ${l.loom === "seat" ? "the part" : "the lead"}, so ${p.name} is cleared. Put ${called(l)} back.`,
      };
  }
  for (const q of [...others].sort(nearest)) {
    const m = graph.leads.get((graph.atPort.get(q.address) ?? [])[0]?.lead ?? "");
    const moves = [
      { lead: l.address, port: q.address },
      { lead: m?.address ?? "", port: p.address },
    ];
    if (m && m !== l && works.has(m.address) && goes(graph, m, p) && carries(graph, moves))
      return {
        action: `Exchange ${called(l)} with ${called(m)}, which works in ${q.name}`,
        moves,
        ifGood: `${p.name} is dead, and ${m.name} does not work in it.`,
        ifBad: `No change: it follows ${l.loom === "seat" ? "the part" : "the lead"}, so ${p.name} is cleared. Put both back.`,
      };
  }
  return undefined;
}

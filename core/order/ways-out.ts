import { type Graph, type PortNode, withConnections } from "../assembly";
import { mate } from "../catalogue";
import { cardsOver } from "../space";
import { arranged } from "./arrange";
import type { Precedence } from "./model";
import { titleOf, withoutRings } from "./rings";
import { type Asked, stepsFor } from "./steps";

/** At most so many other ports are tried for one lead. */
const MOST_PORTS = 6;

/**
 * What would resolve steps that each need the other first. Each way is tried: the steps are made anew with it, and it is named only when
 * no step of the ring is in a ring any more.
 */
export function waysOut(graph: Graph, asked: Asked, ring: readonly string[], inside: readonly Precedence[]): { words: string; turns: number }[] {
  const out: { words: string; turns: number }[] = [];
  const tryWith = (words: string, changed: Graph, without: (e: Precedence) => boolean = () => false) => {
    const { works, edges } = stepsFor(changed, asked);
    const tried = withoutRings(
      works,
      edges.filter((e) => !without(e)),
    );
    if (ring.some((id) => tried.rings.flat().includes(id))) return;
    out.push({ words, turns: arranged([...works.values()], tried.precedences).turns });
  };
  for (const e of inside)
    if (e.before === e.after)
      tryWith("Correct its entry: nothing lies under what is plugged into it.", graph, (x) => x.before === e.before && x.after === e.after);
  const covers = inside.filter((e) => e.kind === "covers" && e.before !== e.after);
  for (const e of covers) {
    const lead = e.before.startsWith("plug:") ? e.before.slice("plug:".length) : undefined;
    const here = lead ? graph.ports.get(graph.ofLead.get(lead)?.port ?? "") : undefined;
    if (!lead || !here) continue;
    for (const p of others(graph, lead, here))
      tryWith(
        `Plug it into ${p.port.label} instead, which is not covered.`,
        withConnections(
          graph,
          graph.connections.map((c) => (c.lead === lead ? { lead, port: p.address, state: c.state } : c)),
        ),
      );
  }
  const reach = inside.filter((e) => e.kind === "reach");
  for (const e of reach)
    tryWith(
      "Lengthen its lead with an extension: the far end is plugged first, the joint is made later.",
      graph,
      (x) => x.kind === "reach" && x.after === e.after,
    );
  for (const e of covers)
    tryWith(
      `Do ${titleOf(stepsFor(graph, asked).works, e.after)} with two screws only, plug what lies under it, then fix it: it takes two more hands.`,
      graph,
      (x) => x.before === e.before && (x.after === `gate:${e.after}` || (x.kind === "covers" && x.after === e.after)),
    );
  const seen = new Set<string>();
  return out.filter((w) => !seen.has(w.words) && seen.add(w.words));
}

/** Free ports that take the lead where nothing covers them. */
function others(graph: Graph, lead: string, here: PortNode): PortNode[] {
  const node = graph.leads.get(lead);
  if (!node) return [];
  return [...graph.ports.values()]
    .filter(
      (p) =>
        p.address !== here.address &&
        p.part.id === here.part.id &&
        p.port.coveredBy.every((by) => by === "card") &&
        cardsOver(graph, p).length === 0 &&
        (graph.atPort.get(p.address) ?? []).length === 0 &&
        p.port.flow === here.port.flow &&
        mate(node.lead.family, p.port.family).outcome === "fits",
    )
    .slice(0, MOST_PORTS);
}

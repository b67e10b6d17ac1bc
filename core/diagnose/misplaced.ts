import { type Address, buildGraph, type Graph, isDone, type TypeLookup } from "../assembly";
import { powerOn } from "../machine";

/** A plug that is on record elsewhere than planned, and what of the sheet is not as wanted because of it: a certain fault, whose action is a move. */
export interface Misplaced {
  lead: Address;
  from: Address;
  to: Address;
  /** What to do, in a sentence. */
  action: string;
  /** The same in a few words. */
  words: string;
  /** Lines of the sheet that are as wanted once it is moved. */
  lines: string[];
}

/** What the record itself explains: plugs that hands have put elsewhere than planned, where that is why something will not be as wanted. */
export function misplaced(graph: Graph, planned: ReadonlyMap<Address, Address>, types: TypeLookup): Misplaced[] {
  const there = graph.build.connections.filter(
    (c) => isDone(c) && planned.has(c.lead) && planned.get(c.lead) !== c.port && graph.ports.has(planned.get(c.lead) ?? ""),
  );
  if (there.length === 0) return [];
  const wrong = linesOff(graph);
  if (wrong.size === 0) return [];
  const without = (leads: ReadonlySet<Address>) =>
    linesOff(
      buildGraph(
        { ...graph.build, connections: graph.build.connections.map((c) => (leads.has(c.lead) ? { ...c, port: planned.get(c.lead) ?? c.port } : c)) },
        types,
      ),
    );
  // Two that sit in each other's ports are moved together: either alone would stand in a port that is taken.
  const groups = there.map((c) => {
    const partner = there.find((o) => o.port === planned.get(c.lead));
    return new Set(partner ? [c.lead, partner.lead] : [c.lead]);
  });
  return there.flatMap((c, i) => {
    const left = without(groups[i] ?? new Set());
    const lines = [...wrong].filter((l) => !left.has(l));
    const [lead, from, to] = [graph.leads.get(c.lead), graph.ports.get(c.port), graph.ports.get(planned.get(c.lead) ?? "")];
    if (lines.length === 0 || !lead || !from || !to) return [];
    const action = `Supply off, mains out, press the button once. Move ${lead.tag} (${lead.name}) from ${from.name} to ${to.name}, as planned, then start.`;
    const words = `${lead.tag} sits in ${from.name}: move it to ${to.name}.`;
    return [{ lead: c.lead, from: c.port, to: to.address, action, words, lines }];
  });
}

/** Lines that will not be as wanted. */
const linesOff = (graph: Graph): ReadonlySet<string> =>
  new Set(powerOn(graph).lines.flatMap((l) => (l.expected !== l.wanted || !l.works ? [l.id] : [])));

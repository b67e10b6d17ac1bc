import { type Address, type Connection, type Graph, isConstant, mateOf, type PortNode, withConnections } from "../assembly";
import { closesRing } from "../brings";
import { usable } from "../catalogue";
import { problemOf, undoOf } from "../order";
import { type Finding, isEmpty, type Remedy } from "./rule";
import { checkAll } from "./run";

/** Ports that are tried for one lead, and leads for one finding. */
const MOST_PORTS = 8;
const MOST_LEADS = 6;

/** What pulling a plug that is in costs, in words. */
function undoWords(graph: Graph, lead: Address): string {
  const undo = undoOf(problemOf(graph), `plug:${lead}`);
  const others = undo?.out.filter((o) => o.step !== undo.step).length ?? 0;
  if (!undo || others === 0) return "Nothing else comes out for it.";
  return `${others === 1 ? "One more step comes" : `${others} more steps come`} out for it: about ${Math.round(undo.minutes.whole)} min in all.`;
}

const stopsAndWarns = (list: readonly Finding[]): Map<string, number> => {
  const out = new Map<string, number>();
  for (const f of list) if (f.severity !== "note") out.set(`${f.rule} ${f.severity}`, (out.get(`${f.rule} ${f.severity}`) ?? 0) + 1);
  return out;
};

/** Is the finding gone with these connections, and nothing there that was not before? */
function mends(graph: Graph, before: readonly Finding[], f: Finding, connections: Connection[]): boolean {
  const after = checkAll(withConnections(graph, connections));
  if (after.some((x) => x.id === f.id)) return false;
  const had = stopsAndWarns(before);
  return [...stopsAndWarns(after)].every(([key, n]) => n <= (had.get(key) ?? 0));
}

const moved = (graph: Graph, lead: Address, port: Address, place?: number[]): Connection[] =>
  graph.connections.map((c) => (c.lead === lead ? { lead, port, state: c.state, ...(place ? { place } : {}) } : c));

/**
 * What each finding about the wiring offers to press, judged by every rule: a move that would make something else wrong is none, and
 * nothing that is plugged or fixed is planned again, for it would not move: there it is the move by hand, where one does.
 */
export function withJudgedRemedies(graph: Graph, findings: readonly Finding[]): Finding[] {
  if (!findings.some((f) => f.remedy?.kind === "plan" || f.remedy?.kind === "move")) return [...findings];
  let all: readonly Finding[] | undefined;
  const before = () => {
    all ??= checkAll(graph);
    return all;
  };
  return findings.map((f) => {
    const r = f.remedy;
    if (r?.kind === "move") {
      if (mends(graph, before(), f, moved(graph, r.lead, r.port, r.place))) return f;
      const { remedy: _, ...rest } = f;
      return rest;
    }
    if (r?.kind !== "plan" || !staysWhatever(graph, f)) return f;
    const { remedy: _, ...rest } = f;
    const by = byHand(graph, before(), f);
    return by ? { ...rest, remedy: by, ways: [...(f.ways ?? []), `${by.label}. ${undoWords(graph, by.lead)}`] } : rest;
  });
}

/** All that a finding is about is plugged or fixed: a plan leaves it where it is. */
function staysWhatever(graph: Graph, f: Finding): boolean {
  const mine = concerned(graph, f);
  return mine.length > 0 && mine.every(isConstant);
}

function concerned(graph: Graph, f: Finding): Connection[] {
  const ends = new Set(f.ends);
  return graph.connections.filter((c) => ends.has(c.lead) || ends.has(c.port));
}

function byHand(graph: Graph, before: readonly Finding[], f: Finding): Extract<Remedy, { kind: "move" }> | undefined {
  for (const c of concerned(graph, f).slice(0, MOST_LEADS)) {
    const lead = graph.leads.get(c.lead);
    if (!lead || lead.loom === "seat" || lead.lead.role === "cable-root") continue;
    const takes = (p: PortNode) =>
      p.address !== c.port && p.port.flow !== lead.lead.flow && isEmpty(graph, p) && usable(mateOf(lead, p)) && !closesRing(graph, lead, p);
    for (const p of [...graph.ports.values()].filter(takes).slice(0, MOST_PORTS))
      if (mends(graph, before, f, moved(graph, c.lead, p.address)))
        return { kind: "move", label: `Move ${lead.tag} to ${p.name}`, lead: c.lead, port: p.address };
  }
  return undefined;
}

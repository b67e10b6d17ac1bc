import { type Graph, partsOfKind } from "../assembly";
import { type Cause, causesOf, nameOf } from "./causes";
import { placeOfLead, powerSwitch } from "./deeds";
import { mends } from "./inference";
import { type DeedKind, repairsOf } from "./repairs";
import { resultsOf } from "./results";

/** A deed by its id, without the machine worked out: what it is about, and what it would mend. */
export interface KnownDeed {
  id: string;
  kind: DeedKind;
  target: string;
  /** In a few words: "FN-02 in SYS_FAN1, pressed home". */
  words: string;
  /** What it would mend, the one that it is done for first. */
  causes: readonly Cause[];
  results: readonly string[];
}

const PAST: Readonly<Record<DeedKind, string>> = {
  look: "looked at",
  measure: "measured",
  bridge: "its pins bridged",
  "spare beside": "replaced by a spare beside the case",
  minimal: "alone with what it needs",
  "swap leads": "put elsewhere",
  "set right": "set right",
  "reset settings": "reset",
  "press home": "pressed home",
  "lead aside": "leads out of its reach",
  tighten: "drawn down evenly",
  "another port": "another port",
  "another cable": "another cable",
  "seat anew": "seated anew",
  swap: "swapped",
  update: "firmware updated",
  "open the cooler": "taken off, cleaned and pasted",
  "lift the board": "lifted, looked under",
};

/** A test by its id: what it is about; undefined: it is none, or not of this machine. */
function testOf(graph: Graph, id: string): { kind: DeedKind; target: string } | undefined {
  const [word, target] = id.includes(":") ? [id.slice(0, id.indexOf(":")), id.slice(id.indexOf(":") + 1)] : [id, ""];
  if (word === "beside") return graph.parts.has(target) ? { kind: "spare beside", target } : undefined;
  if (word === "exchange") return graph.ofLead.has(target) ? { kind: "swap leads", target } : undefined;
  const at = id === "bridge" ? powerSwitch(graph)?.address : id === "minimal" ? partsOfKind(graph, "board")[0]?.id : undefined;
  return at === undefined ? undefined : { kind: id === "bridge" ? "bridge" : "minimal", target: at };
}

/** The deed of an id at this machine; undefined: nothing of that name can be done here. */
export function deedById(graph: Graph, id: string): KnownDeed | undefined {
  const test = testOf(graph, id);
  if (test) {
    const lead = test.kind === "swap leads" ? graph.leads.get(test.target) : undefined;
    const causes = lead ? causesOf(graph).filter((c) => placeOfLead(graph, lead)(c.element)) : [];
    return { id, ...test, words: `${lead?.tag ?? nameOf(graph, test.target)}, ${PAST[test.kind]}`, causes, results: resultsOf(test.kind) };
  }
  // What has a gentler repair was hardly it: who swaps a module found a dead one rather than one that was not seated.
  const mended = causesOf(graph)
    .flatMap((c) => repairsOf(graph, c).flatMap((r, rank) => (r.id === id ? [{ c, r, rank }] : [])))
    .sort((a, b) => a.rank - b.rank || b.c.perTenThousand - a.c.perTenThousand);
  const first = mended[0];
  if (!first) return undefined;
  return {
    id,
    kind: first.r.kind,
    target: first.r.target,
    words: `${nameOf(graph, first.r.target)}, ${PAST[first.r.kind]}`,
    causes: mended.map((m) => m.c),
    results: resultsOf(first.r.kind),
  };
}

/** Does this result of a deed mean that it is mended? */
export const isMended = (deed: KnownDeed, result: string): boolean => mends(result, deed.causes.length > 0);

/** As strong as so many findings is what is usual: a shop's own record counts once there are dozens of machines (common practice). */
const STRONG = 2;

/**
 * How many times the usual each kind of thing goes wrong in this shop, by what was found (`kind mode` and how often) in so many machines
 * such as this one: few findings hardly move it.
 */
export function priorsFrom(graph: Graph, found: Readonly<Record<string, number>>, machines: number): Record<string, number> {
  const usual = new Map<string, number>();
  for (const c of causesOf(graph)) {
    const key = `${c.kind} ${c.mode}`;
    usual.set(key, (usual.get(key) ?? 0) + (c.perTenThousand / 10_000) * machines);
  }
  return Object.fromEntries([...usual].map(([key, n]) => [key, (STRONG + (found[key] ?? 0)) / (STRONG + n)]));
}

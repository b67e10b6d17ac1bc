import { buildGraph, type Graph, naturally, typeLookup } from "../../assembly";
import type { PartType } from "../../catalogue";
import { LEVEL_WORDS, LEVELS, type Level } from "../cost/cost";
import type { Plan } from "../planner";

export interface LevelRow {
  level: Level;
  words: string;
  before: number;
  after: number;
  way: "better" | "worse";
}

export interface Move {
  lead: string;
  tag: string;
  name: string;
  /** Names of the ports; undefined: free. */
  from?: string;
  to?: string;
}

/** Two plans side by side: which level decides, what moves, what becomes free or finds a port, which accessories come and go. */
export interface PlanDifference {
  levels: LevelRow[];
  /** The first level that differs says which plan is better. */
  better: "before" | "after" | "neither";
  moves: Move[];
  accessories: { come: string[]; gone: string[] };
  inBag: { come: string[]; gone: string[] };
  leads: { before: number; after: number };
  proved: boolean;
}

/** What of a plan is compared. */
type Compared = Pick<Plan, "build" | "cost" | "status" | "accessories" | "cables" | "leads">;

const graphOf = (plan: Compared, types: readonly PartType[]): Graph => buildGraph(plan.build, typeLookup(plan.build, types));

/**
 * What differs from one plan to another. `types` are looked up where a build does not carry its own. Length and the
 * order of names decide nothing here: a centimetre more is said, not counted as worse on its own.
 */
export function comparePlans(before: Compared, after: Compared, types: readonly PartType[] = []): PlanDifference {
  const levels = LEVELS.filter((l) => l !== "canonical" && l !== "changes" && before.cost[l] !== after.cost[l]).map(
    (level): LevelRow => ({
      level,
      words: LEVEL_WORDS[level],
      before: before.cost[level],
      after: after.cost[level],
      way: after.cost[level] < before.cost[level] ? "better" : "worse",
    }),
  );
  const first = levels.find((l) => l.level !== "lengthCm");
  const [a, b] = [graphOf(before, types), graphOf(after, types)];
  const counts = (plan: Compared) => {
    const out = new Map<string, number>();
    for (const x of plan.accessories) out.set(x.type, (out.get(x.type) ?? 0) + 1);
    return out;
  };
  const [had, has] = [counts(before), counts(after)];
  const nameOf = (type: string) => [...a.parts.values(), ...b.parts.values()].find((p) => p.type.id === type)?.type.name ?? type;
  const more = (x: Map<string, number>, y: Map<string, number>) =>
    [...x].flatMap(([t, n]) => (n > (y.get(t) ?? 0) ? [`${n - (y.get(t) ?? 0)} × ${nameOf(t)}`] : [])).sort(naturally);
  const bag = (x: Compared, y: Compared, g: Graph) =>
    x.cables.inBag.filter((c) => !y.cables.inBag.includes(c)).map((c) => g.parts.get(c)?.part.label ?? c);
  return {
    levels,
    better: first === undefined ? "neither" : first.way === "better" ? "after" : "before",
    moves: moves(a, b),
    accessories: { come: more(has, had), gone: more(had, has) },
    inBag: { come: bag(after, before, b), gone: bag(before, after, a) },
    leads: { before: before.leads, after: after.leads },
    proved: before.status === "proved" && after.status === "proved",
  };
}

/** Leads of the parts themselves, in natural order; plugs of cables are the same where a cable of that kind is. */
function moves(a: Graph, b: Graph): Move[] {
  const at = (g: Graph, lead: string) => {
    const port = g.ofLead.get(lead)?.port;
    return port === undefined ? undefined : (g.ports.get(port)?.name ?? port);
  };
  const own = (g: Graph, address: string) => {
    const l = g.leads.get(address);
    return l && l.part.part.from === "client" && !l.part.cable;
  };
  return [...new Set([...a.leads.keys(), ...b.leads.keys()])]
    .filter((l) => own(a, l) || own(b, l))
    .flatMap((address): Move[] => {
      const [from, to] = [at(a, address), at(b, address)];
      const node = b.leads.get(address) ?? a.leads.get(address);
      if (from === to || !node) return [];
      return [{ lead: address, tag: node.tag, name: node.name, ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) }];
    })
    .sort((x, y) => naturally(x.lead, y.lead));
}

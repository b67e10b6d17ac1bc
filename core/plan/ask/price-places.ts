import { type Address, type Build, buildGraph, type Connection, type TypeLookup } from "../../assembly";
import { type Verdict, verify } from "../answer/verify";
import { type Cost, compareCost, LEVEL_WORDS, LEVELS } from "../cost/cost";
import { type Plan, type PlanOptions, plan } from "../planner";
import { SolvedPieces } from "../solve/cache";

export interface Place {
  port: Address;
  place?: number[] | undefined;
}

export interface PlaceCost extends Place {
  /** What it would cost against the best plan, the first levels that differ; "nothing more" when it is as good. */
  words: string;
  /** False where the plug does not reach, or a limit breaks. */
  holds: boolean;
  /** The best place of all, or as good. */
  best: boolean;
  /** Against the best of the others; smaller is better. */
  rank: number;
  proved: boolean;
  /** What a whole plan with the lead there costs. */
  cost: Cost;
}

/** Two costs in plain words: the first two levels in which they differ. */
export function costWords(base: Cost, other: Cost): string {
  const said = LEVELS.filter((l) => l !== "canonical" && base[l] !== other[l])
    .slice(0, 2)
    .map((l) => {
      const d = other[l] - base[l];
      if (l === "lengthCm") return `${Math.abs(d)} cm ${d > 0 ? "longer" : "shorter"}`;
      if (l === "changes") return d > 0 ? `${d} ${d === 1 ? "plug moves" : "plugs move"}` : `${-d} fewer plugs move`;
      return `${LEVEL_WORDS[l]}: ${Math.abs(d)} ${d > 0 ? "more" : "fewer"}`;
    });
  return said.length === 0 ? "nothing more" : said.join(", ");
}

/**
 * What each place of one lead would cost: the lead is fixed there and all that hangs together with it is planned again,
 * proved where the deadline allows; places that it leaves no time for are left out. `build` is as planned; the lead must be neither plugged nor checked.
 */
export async function costsOfPlaces(
  build: Build,
  types: TypeLookup,
  lead: Address,
  places: readonly Place[],
  options: PlanOptions = {},
): Promise<PlaceCost[]> {
  const solved = options.solved ?? new SolvedPieces();
  // One deadline for all: places that it leaves no time for are left out of the answer.
  const until = performance.now() + (options.deadlineS ?? 60) * 1000;
  const left = () => (until - performance.now()) / 1000;
  const others = build.connections.filter((c) => c.lead !== lead);
  const own = build.connections.find((c) => c.lead === lead);
  const open = (c: Connection | undefined): Connection[] => (c ? [{ ...c, state: "planned" }] : []);
  const base = await plan({ ...build, connections: [...others, ...open(own)] }, types, { ...options, solved, deadlineS: left() });
  const before = buildGraph(build, types);
  // A fixed lead is a constant and costs the planner nothing: looked at again as planned, it costs what it costs.
  const whole = (made: Plan): Verdict => {
    const connections = made.build.connections.map((c) => (c.lead === lead ? { ...c, state: "planned" as const } : c));
    return verify(buildGraph({ ...made.build, connections }, types), before);
  };
  const baseCost = whole(base).cost;
  const out: { place: Place; cost: Cost; proved: boolean; holds: boolean }[] = [];
  for (const p of places) {
    if (left() < 1) break;
    const fixed: Connection = { lead, port: p.port, state: "fixed", ...(p.place ? { place: p.place } : {}) };
    // Planned neighbours make room; what is fixed or plugged there stays, and the plan says that it is broken.
    const made = await plan({ ...build, connections: [...others.filter((c) => !inTheWay(c, fixed)), fixed] }, types, {
      ...options,
      solved,
      deadlineS: left(),
    });
    const verdict = whole(made);
    const holds = verdict.broken.length + made.broken.length === 0;
    out.push({ place: p, cost: verdict.cost, proved: made.status === "proved", holds });
  }
  const order = [...out].sort((a, b) => Number(b.holds) - Number(a.holds) || compareCost(a.cost, b.cost));
  const best = order[0];
  return out.map((o) => ({
    ...o.place,
    words: !o.holds ? "out of reach, or over a limit" : costWords(baseCost, o.cost),
    holds: o.holds,
    best: best !== undefined && o.holds && compareCost(o.cost, best.cost) === 0,
    rank: order.indexOf(o),
    proved: o.proved && base.status === "proved",
    cost: o.cost,
  }));
}

const inTheWay = (c: Connection, fixed: Connection) =>
  c.state === "planned" && c.port === fixed.port && (!c.place || !fixed.place || c.place.some((x) => fixed.place?.includes(x)));

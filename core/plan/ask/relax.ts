import type { Build, TypeLookup } from "../../assembly";
import { isConstant, partIdOf } from "../../assembly";
import type { Loosening, Ways } from "../../wiring";
import { FREE_LEVELS, type Level, type PartCost } from "../cost/cost";
import { layOut } from "../model/lay-out";
import { unitParts } from "../model/offer";
import { Relaxed } from "../model/relaxed";
import { begin, type Plan, type PlanOptions, plan, settle } from "../planner";

/** More fixed connections than this are not tried one by one. */
const MOST_RELEASED = 12;
/** Accessories of one kind that may be thought of beyond those that are there: hubs and adapters. */
const MOST_MORE = 2;
/** First what stays free, then how much is loosened; what is on the shelf breaks ties. */
const WHAT_COUNTS: readonly Level[] = [...FREE_LEVELS, "toOrder", "fromShelf"];

const missing = (made: Plan) => made.free.filter((f) => f.need !== "optional").map((f) => f.end);

/**
 * What would let in what a plan leaves free though it is wanted: a fixed connection that is let go, accessories that are not
 * there, longer leads, limits. `undefined` where nothing wanted is free. Priced in one model with the plan's own rules, so that
 * the set is the smallest, not one that is merely minimal.
 */
export async function waysIn(made: Plan, types: TypeLookup, options: PlanOptions = {}): Promise<Ways | undefined> {
  const free = missing(made);
  if (free.length === 0) return undefined;
  const run = begin(withTaken(made), types, options);
  const released = await release(made, run.start, types, options);
  if (released) return released;
  const { graph } = layOut(run.start, run.before, types, []);
  const familyOf = (end: string) => graph.leads.get(end)?.lead.family ?? graph.ports.get(end)?.port.family ?? [];
  const taken = new Set(made.accessories.map((a) => a.id));
  // What the plan has on its accessories needs one again.
  const onTaken = made.connections.flatMap((c) => (taken.has(partIdOf(c.port)) ? c.lead : taken.has(partIdOf(c.lead)) ? c.port : []));
  const families = new Set([...free, ...onTaken].flatMap(familyOf));
  const loose = new Relaxed();
  const laid = layOut(run.start, run.before, types, unitParts(run.start, types, families, MOST_MORE), loose);
  for (const [v, cost] of laid.model.costs.entries())
    laid.model.costs[v] = Object.fromEntries(WHAT_COUNTS.flatMap((l) => (cost[l] === undefined ? [] : [[l, cost[l]]])));
  const stays = new Map([...laid.nets.free, ...laid.direct.free, ...laid.direct.driveFree, ...laid.supply.free]);
  stay(laid.model.costs, stays, free);
  const { chosen, unproved } = await settle(run, laid, WHAT_COUNTS, new Map());
  const lets = free.filter((end) => stays.has(end) && chosen(stays.get(end) ?? -1) === 0);
  const counts = new Map<string, number>();
  const count = (type: string | undefined, n: number) => type !== undefined && n > 0 && counts.set(type, (counts.get(type) ?? 0) + n);
  for (const u of laid.units) if (u.from === "order" && laid.used.has(u.id)) count(u.type, chosen(laid.used.get(u.id) ?? -1));
  for (const a of laid.supply.adapters) if (a.adapter.part.from === "order") count(a.adapter.type.id, chosen(a.variable));
  for (const s of laid.nets.splitters) if (s.from === "order") count(s.splitter.type.id, chosen(s.variable));
  for (const c of laid.nets.choices) if (c.via?.from === "order") count(c.via.splitter.type.id, chosen(c.variable));
  const needs: Loosening[] = [
    ...[...counts].sort(([a], [b]) => (a < b ? -1 : 1)).map(([type, n]): Loosening => ({ kind: "accessory", type, count: n })),
    ...loose.of(chosen),
  ];
  return { lets, needs: lets.length === 0 ? [] : needs, left: free.filter((end) => !lets.includes(end)), proved: unproved.size === 0 };
}

/** What the plan orders anyway, and what is ordered for it already, lies on the shelf: it is no news. */
function withTaken(made: Plan): Build {
  const { build } = made;
  const ordered = made.accessories.filter((a) => a.from === "order").map((a) => a.type);
  const count = (type: string) => ordered.filter((t) => t === type).length;
  const listed = new Set(build.accessories.map((a) => a.type));
  return {
    ...build,
    accessories: [
      ...build.accessories.map(({ ordered: coming = 0, ...a }) => ({ ...a, count: a.count + Math.max(coming, count(a.type)) })),
      ...[...new Set(ordered)].filter((t) => !listed.has(t)).map((type) => ({ type, count: count(type) })),
    ],
  };
}

/** Nothing that the plan connects goes out for what it leaves free: that would cost more than all of it gains. */
function stay(costs: PartCost[], stays: ReadonlyMap<string, number>, free: readonly string[]): void {
  for (const [end, v] of stays) {
    const cost = costs[v] ?? {};
    if (free.includes(end) || !FREE_LEVELS.some((l) => cost[l])) continue;
    costs[v] = { ...cost, mandatoryFree: (cost.mandatoryFree ?? 0) + free.length + 1 };
  }
}

/** Would it do to let go of one connection that somebody fixed? */
async function release(made: Plan, start: Build, types: TypeLookup, options: PlanOptions): Promise<Ways | undefined> {
  const fixed = start.connections.filter((c) => c.state === "fixed");
  if (fixed.length === 0 || fixed.length > MOST_RELEASED) return undefined;
  const without = (leads: ReadonlySet<string>) =>
    plan(
      {
        ...made.build,
        connections: made.build.connections.map((c) => (isConstant(c) && leads.has(c.lead) ? { ...c, state: "planned" as const } : c)),
      },
      types,
      { ...options, deadlineS: Math.min(options.deadlineS ?? 60, 5) },
    );
  // If letting all of them go does not do, none of them alone does.
  if (missing(await without(new Set(fixed.map((c) => c.lead)))).length > 0) return undefined;
  for (const c of fixed) {
    const other = await without(new Set([c.lead]));
    if (missing(other).length === 0)
      return { lets: missing(made), needs: [{ kind: "release", lead: c.lead }], left: [], proved: made.status === "proved" };
  }
  return undefined;
}

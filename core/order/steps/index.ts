import type { Graph, Policy } from "../../assembly";
import { BY_HAND, type Minutes, type Precedence, type Problem, type Work } from "../model";
import { bundleSteps } from "./bundles";
import { caseSteps } from "./case";
import { cardsInTurn, finishSteps, gates, riserSteps, supportSteps } from "./finish";
import { loopSteps, mountSteps } from "./mounts";
import { coverPlugs, plugSteps } from "./plugs";
import { newSite, type Site } from "./site";
import { tableSteps } from "./table";

export { measureOfPlug } from "./plugs";

/** What the shop itself has measured: minutes of hands by measure, and how many times; or only said of itself (`said`, no times yet). */
export type History = ReadonlyMap<string, { minutes: number; times: number; said?: number }>;

/** So many times of its own, and the shop's figure counts instead of the practice value. */
export const ENOUGH_TIMES = 5;

export interface Asked {
  /** Steps done that make no connection. */
  done?: ReadonlySet<string>;
  /** The machine was powered: every plug carries the mains caution. */
  powered?: boolean;
  /** Schools to follow instead of the build's own. */
  policy?: Policy;
  history?: History;
}

/** All makers in their turn; without `ways` none that asks for the ways of leads, whose steps and reach are left out then. */
function gather(site: Site, ways: boolean): void {
  caseSteps(site);
  mountSteps(site);
  plugSteps(site);
  tableSteps(site);
  riserSteps(site);
  supportSteps(site);
  cardsInTurn(site);
  if (ways) bundleSteps(site);
  coverPlugs(site, ways);
  loopSteps(site);
  finishSteps(site);
  gates(site);
}

/** Everything that is to be done at a build, whole, and what must come before what; in no order yet. */
export function stepsFor(graph: Graph, asked: Asked = {}): { works: Map<string, Work>; edges: Precedence[]; late: Problem["late"] } {
  const done = asked.done ?? new Set(graph.build.done ?? []);
  const site = newSite(graph, asked.policy ?? graph.build.policy, done, asked.powered ?? false);
  gather(site, true);
  const isDone = (id: string) => site.works.get(id)?.done === true;
  const works = new Map([...site.works].filter(([, w]) => w.done || !w.mootOnce.some(isDone)));
  for (const p of graph.build.pulled ?? []) site.edge("school", p.step, p.before, BY_HAND);
  if (asked.history) for (const [id, w] of works) works.set(id, withHistory(w, asked.history));
  const said = new Set<string>();
  const edges = site.edges.filter((e) => {
    const key = `${e.kind} ${e.before} ${e.after}`;
    return works.has(e.before) && works.has(e.after) && !said.has(key) && said.add(key);
  });
  const late = [...site.works.values()]
    .filter((w) => !works.has(w.id))
    .map(({ id, title, measure, parts, kind }) => ({ id, title, measure, parts, kind }));
  return { works, edges, late };
}

/** What leads are led and dressed by: the only steps that follow from the ways of leads. */
const FROM_WAYS = /^((route|dress):.*|tie)$/;

/**
 * The steps of a build by their ids, also those for which it is too late: what every entry of a bench asks. Without the ways of leads until a
 * step is asked for that follows from them: that takes a third of the time. Each is worked out once.
 */
export function stepsByName(graph: Graph): (id: string) => Pick<Work, "id" | "title" | "measure" | "parts" | "kind"> | undefined {
  const made = (ways: boolean) => {
    const site = newSite(graph, graph.build.policy, new Set(graph.build.done ?? []), false);
    gather(site, ways);
    return site.works;
  };
  let plain: ReadonlyMap<string, Work> | undefined;
  let whole: ReadonlyMap<string, Work> | undefined;
  return (id) => {
    if (whole || FROM_WAYS.test(id)) whole ??= made(true);
    else plain ??= made(false);
    return (whole ?? plain)?.get(id);
  };
}

function withHistory(w: Work, history: History): Work {
  const own = history.get(w.measure);
  if (!own) return w;
  if (own.times < ENOUGH_TIMES) return own.said === undefined ? w : { ...w, minutes: { ...w.minutes, handsOn: own.said }, minutesFrom: "said" };
  const minutes: Minutes = { ...w.minutes, handsOn: Math.round(own.minutes * 2) / 2 || 0.5 };
  return { ...w, minutes, minutesFrom: own.times };
}

import { buildGraph, type Graph, typeLookup } from "../../../core/assembly";
import { headerLines, NOISE, SHEET, simulate } from "../../../core/machine";
import { leadsNear } from "../../../core/routes";
import { type Curve, curvesOf } from "../../../core/setup";
import type { JobView } from "../job-view";

/** The curves that a soak's highest asks for; none before one. */
function nextRound(graph: Graph, hottestC: number | undefined): Curve[] {
  if (hottestC === undefined) return [];
  return curvesOf(graph, Object.fromEntries(curvesOf(graph).map((c) => [c.header, { maxC: hottestC }])));
}

/** What First boot shows of a job. */
export const bootSlice = ({ power, misplaced, faults, photos, steps, plan, free, leads, seen, head, build, progress, after }: JobView) => {
  const graph = buildGraph(build, typeLookup(build, []));
  const named = new Set(free.map((f) => f.end));
  // Without a plan nobody has decided that anything stays free.
  const unplugged = plan === null ? [] : leads.filter((l) => l.port === undefined || named.has(l.address)).map((l) => l.address);
  const { sequence, heat } = simulate(graph);
  return {
    power,
    misplaced,
    /** The latest fault of each line that had one. */
    faultOf: Object.fromEntries(
      faults.flatMap((f) =>
        f.lines
          .filter((l) => !f.simulated || seen[l]?.simulated)
          .map((l) => [l, { number: f.number, isOpen: f.state === "open", finding: f.finding ?? "" }] as const),
      ),
    ),
    headers: headerLines(graph),
    sequence,
    heat: heat ?? null,
    curves: curvesOf(graph),
    nextCurves: nextRound(graph, after.hottestC),
    near: Object.fromEntries(
      power.lines.flatMap((l) => {
        const part = seen[l.id]?.value === NOISE ? graph.leads.get(l.id.slice(l.id.indexOf(":") + 1))?.part.id : undefined;
        return part === undefined ? [] : [[l.id, leadsNear(graph, part).map((n) => ({ ...n, name: graph.leads.get(n.lead)?.name ?? n.tag }))]];
      }),
    ),
    photos: photos.flatMap((p) => (p.step?.startsWith(SHEET) ? [{ id: p.id, line: p.step.slice(SHEET.length), by: p.by, at: p.at }] : [])),
    stepsLeft: steps.filter((x) => !x.done).length,
    free: unplugged,
    seen,
    head,
    settings: build.settings,
    progress,
    after,
  };
};
export type BootSlice = ReturnType<typeof bootSlice>;

import { buildGraph, typeLookup } from "../../../core/assembly";
import { headerLines, simulate } from "../../../core/machine";
import { curvesOf } from "../../../core/setup";
import type { JobView } from "../job-view";

/** What First boot shows of a job. */
export const bootSlice = ({ power, seen, head, build, progress, after }: JobView) => {
  const graph = buildGraph(build, typeLookup(build, []));
  const { sequence, heat } = simulate(graph);
  return {
    power,
    headers: headerLines(graph),
    sequence,
    heat: heat ?? null,
    curves: curvesOf(graph),
    seen,
    head,
    settings: build.settings,
    progress,
    after,
  };
};
export type BootSlice = ReturnType<typeof bootSlice>;

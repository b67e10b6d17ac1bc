import { buildGraph, typeLookup } from "../../../core/assembly";
import { headerLines, otherLines } from "../../../core/machine";
import type { JobView } from "../job-view";
import { own } from "./own";

/** A line that something can be said of. */
export interface Line {
  id: string;
  what: string;
  unit?: string;
  expected: string;
  /** What it may be seen to do; empty where a value is typed. */
  values: string[];
}

/** What Faults shows of a job. */
export const faultsSlice = ({ faults, misplaced, head, seen, build, power, progress }: JobView) => {
  const graph = buildGraph(build, typeLookup(build, []));
  return {
    faults,
    misplaced,
    head,
    seen,
    progress,
    build: own(build),
    /** Whatever can be seen, heard or read of this machine. */
    lines: [...power.lines, ...headerLines(graph), ...otherLines(graph)].map(
      (l): Line => ({
        id: l.id,
        what: l.what,
        ...(l.unit ? { unit: l.unit } : {}),
        expected: l.expected,
        values: l.otherwise.length > 0 ? [l.expected, ...l.otherwise] : [],
      }),
    ),
  };
};
export type FaultsSlice = ReturnType<typeof faultsSlice>;

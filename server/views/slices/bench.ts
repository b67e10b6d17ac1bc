import type { JobView } from "../job-view";
import { own } from "./own";

/** Of what would not work a bench shows the first. */
const MOST_LINES = 12;

/** What a bench shows of a job. */
export const benchSlice = ({ build, steps, order, skipped, notHere, away, photos, head, leads, power, findings, starts, plan }: JobView) => ({
  build: own(build),
  // Hands are told what comes first, not why.
  steps: steps.map((s) => ({ ...s, after: s.after.map(({ step, kind }) => ({ step, kind })) })),
  order,
  skipped,
  notHere,
  away,
  photos,
  head,
  leads: leads.map(({ address, tag, name, loom, port, portName, place, state }) => ({ address, tag, name, loom, port, portName, place, state })),
  power: {
    verdict: power.verdict,
    lines: power.lines.flatMap(({ id, works, what, expected, because }) => (works ? [] : [{ id, what, expected, because }])).slice(0, MOST_LINES),
  },
  starts,
  /** No plug is on any card yet. */
  unplanned: plan === null && build.connections.length === 0,
  // What stops a step; the rest is a desk's.
  findings: findings.filter((f) => f.severity === "stop" || (f.holds && f.severity === "warn")),
});
export type BenchSlice = ReturnType<typeof benchSlice>;

import type { JobView } from "../job-view";

/** What stands around every screen of a job: its stages, what stops it, findings and log beside it. */
export const frameSlice = ({ head, progress, findings, setAside, log, leads }: JobView) => ({
  head,
  progress,
  findings,
  setAside,
  log,
  leads: leads.map(({ address, state, port }) => ({ address, state, ...(port ? { port } : {}) })),
});
export type FrameSlice = ReturnType<typeof frameSlice>;

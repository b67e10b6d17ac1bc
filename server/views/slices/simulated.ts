import { isDone } from "../../../core/assembly";
import type { JobView } from "../job-view";
import { own } from "./own";

/** What stands beside a simulated machine: the job as it is built. */
export const simulatedSlice = ({ build, head }: JobView) => ({
  head,
  build: { ...own(build), connections: build.connections.filter(isDone) },
});
export type SimulatedSlice = ReturnType<typeof simulatedSlice>;

import type { JobView } from "../job-view";
import { own } from "./own";

/** What Faults shows of a job. */
export const faultsSlice = ({ faults, diagnosis, misplaced, head, seen, build }: JobView) => ({
  faults,
  diagnosis,
  misplaced,
  head,
  seen,
  build: own(build),
});

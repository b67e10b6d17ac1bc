import type { JobView } from "../job-view";
import { own } from "./own";

/** What Order shows of a job. */
export const orderSlice = ({ build, steps, order, skipped, notHere, photos, head, plan }: JobView) => ({
  build: own(build),
  steps,
  order,
  skipped,
  notHere,
  photos,
  head,
  plan: plan !== null,
});
export type OrderSlice = ReturnType<typeof orderSlice>;

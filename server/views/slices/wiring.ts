import type { JobView } from "../job-view";
import { own } from "./own";

/** What Wiring shows of a job. */
export const wiringSlice = ({ build, leads, findings, plan, head, free }: JobView) => {
  // What would let in what stays free is called by its name.
  const named = plan?.ways?.needs.flatMap((n) => (n.kind === "accessory" ? [n.type] : [])) ?? [];
  return { build: own(build, named), leads, findings, plan, head, free };
};

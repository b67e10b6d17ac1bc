import type { JobView } from "../job-view";
import { own } from "./own";

/** What Parts shows of a job. */
export const partsSlice = ({ build, head, plan, leads, findings, photos, steps }: JobView) => {
  const partsOf = new Map(steps.map((s) => [s.id, s.parts]));
  return {
    build: own(build),
    head,
    plan,
    leads,
    findings,
    photos: photos.map((p) => ({ id: p.id, by: p.by, at: p.at, parts: p.part ? [p.part] : (partsOf.get(p.step ?? "") ?? []) })),
  };
};
export type PartsSlice = ReturnType<typeof partsSlice>;

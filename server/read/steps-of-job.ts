import { stepsOf } from "../../core/order";
import { type EntityManager, Observation, StepDone } from "../../db";
import type { JobBuild } from "./build-of-job";

/** The steps of a job as they stand: those done are marked. */
export async function stepsOfJob(em: EntityManager, b: JobBuild): Promise<ReturnType<typeof stepsOf>> {
  const steps = await em.find(StepDone, { job: b.job.id }, { limit: 2000 });
  const seen = await em.count(Observation, { job: b.job.id });
  return stepsOf(b.graph, new Set(steps.map((s) => s.step)), seen > 0);
}

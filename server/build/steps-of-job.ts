import { type Order, orderOf } from "../../core/order";
import { type EntityManager, Observation } from "../../db";
import type { JobBuild } from "./build-of-job";
import { ownMinutes } from "./own-minutes";

/** The steps of a job in order, as they stand: those done are marked. */
export async function stepsOfJob(em: EntityManager, b: JobBuild): Promise<Order> {
  const seen = await em.count(Observation, { job: b.job.id });
  return orderOf(b.graph, { powered: seen > 0, history: await ownMinutes(em) });
}

import { type Misplaced, misplaced } from "../../core/diagnose";
import { type EntityManager, Link } from "../../db";
import type { JobBuild } from "./build-of-job";

/** What the record of a job itself explains: plugs that are elsewhere than planned, where that shows. */
export async function misplacedOfJob(em: EntityManager, b: JobBuild): Promise<Misplaced[]> {
  const links = await em.find(Link, { job: b.job.id, plannedPort: { $ne: null } }, { limit: 1000 });
  const planned = new Map(links.flatMap((l) => (l.plannedPort ? [[l.lead, l.plannedPort] as const] : [])));
  return planned.size === 0 ? [] : misplaced(b.graph, planned, b.types);
}

import { buildGraph } from "../../core/assembly";
import { Link } from "../../db";
import type { JobUnit } from "../kernel/unit";
import { buildOfJob } from "../read/build-of-job";

/** Takes away the connections whose ends no longer exist after a part changed. */
export async function dropLost(unit: JobUnit): Promise<void> {
  await unit.tx.flush();
  const links = await unit.tx.find(Link, { job: unit.job.id }, { limit: 2000 });
  const b = await buildOfJob(unit.tx, unit.job);
  const g = buildGraph({ ...b.build, connections: [] }, b.types);
  for (const l of links) if (!g.leads.has(l.lead) || !g.ports.has(l.port)) unit.tx.remove(l);
}

import { buildGraph, type Graph } from "../../core/assembly";
import { mate, usable } from "../../core/catalogue";
import { Link, type LinkRow } from "../../db";
import { buildOfJob } from "../build/build-of-job";
import type { JobUnit } from "../unit/unit";

/** Where an end is gone a connection is too; what was only planned is no longer where its plug does not go any more. What is in stays a fact. */
function isLost(graph: Graph, { lead, port, state }: LinkRow): boolean {
  const l = graph.leads.get(lead)?.lead;
  const p = graph.ports.get(port)?.port;
  if (!l || !p) return true;
  return state !== "plugged" && state !== "checked" && !usable(mate(l.family, p.family, l.key, p.key));
}

/** Takes away the connections that a changed part leaves without an end, or planned for where they do not belong. */
export async function dropLost(unit: JobUnit): Promise<void> {
  await unit.tx.flush();
  const links = await unit.tx.find(Link, { job: unit.job.id }, { limit: 2000 });
  const b = await buildOfJob(unit.tx, unit.job);
  const g = buildGraph({ ...b.build, connections: [] }, b.types);
  for (const l of links) if (isLost(g, l as LinkRow)) unit.tx.remove(l);
}

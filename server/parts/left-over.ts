import { orderList } from "../../core/intake";
import type { EntityManager } from "../../db";
import type { JobBuild } from "../build/build-of-job";
import { factsOfJob } from "./facts";

/** Something that came in the box of a part and is not in the machine. */
export interface LeftOver {
  what: string;
  /** The part that it came with. */
  with: string;
}

/** What came along with the parts of a job and is not used: said so at receipt, or ticked for the order list that no longer wants it. */
export async function overOf(em: EntityManager, { job, build, graph, types }: JobBuild): Promise<LeftOver[]> {
  const facts = await factsOfJob(em, job.id);
  const wanted = new Set(orderList(graph).map((i) => i.id));
  return build.parts.flatMap((p) => {
    const of = p.label ?? types(p.type)?.name ?? p.id;
    const { along = [], came = [] } = facts[p.id] ?? {};
    return [...along, ...came.filter((c) => c.what !== "" && !wanted.has(c.id)).map((c) => c.what)].map((what) => ({ what, with: of }));
  });
}

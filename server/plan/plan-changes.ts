import { z } from "zod";
import type { Build, Connection, Part } from "../../core/assembly";
import { type Cost, comparePlans, type PlanDifference } from "../../core/plan";
import { Plan } from "../../db";
import { buildOfJob, findJob, type JobBuild } from "../build/build-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { query } from "../unit/action";

export const PlanChanges = z.object({ number: JobNumber });

/** The last plan beside the one before it. */
export interface PlanChange {
  before: number;
  after: number;
  rows: PlanDifference;
}

/** What the last plan changed against the one before it: what counts, what moved, what came and went. */
export const planChanges = query({
  name: "wiring.plan-changes",
  input: PlanChanges,
  run: async (em, { number }): Promise<Result<PlanChange>> => {
    const job = await findJob(em, number);
    if (!job) return no(`There is no job ${number}.`);
    const [after, before] = await em.find(Plan, { job: job.id }, { orderBy: { revision: "desc" }, limit: 2 });
    if (!after || !before) return no("There is no earlier plan to compare with.");
    const b = await buildOfJob(em, job);
    return yes({ before: before.revision, after: after.revision, rows: comparePlans(asMade(b, before), asMade(b, after)) });
  },
});

interface Kept {
  status: string;
  cost: unknown;
  cables: unknown;
  connections: unknown;
}

/** A kept plan as it was made, on the parts as they are now. What it took from the shelf is known by the names of its plugs. */
function asMade({ build, types, graph }: JobBuild, plan: Kept): Parameters<typeof comparePlans>[0] {
  const own = build.parts.filter((p) => p.from === "client");
  const known = new Set(own.map((p) => p.id));
  const connections = plan.connections as Pick<Connection, "lead" | "port" | "place">[];
  const taken = new Map<string, Part>();
  for (const end of connections.flatMap((c) => [c.lead, c.port])) {
    const id = end.split(/[:/]/)[0] ?? "";
    const type = /^(.+)\.\d+$/.exec(id)?.[1];
    if (!known.has(id) && type !== undefined && types(type)) taken.set(id, { ...(graph.parts.get(id)?.part ?? { id, type, from: "shelf" }) });
  }
  const accessories = [...taken.values()].map((p) => ({
    id: p.id,
    type: p.type,
    from: p.from === "order" ? ("order" as const) : ("shelf" as const),
  }));
  const made: Build = { ...build, parts: [...own, ...taken.values()], connections: connections.map((c) => ({ ...c, state: "planned" as const })) };
  return {
    build: made,
    cost: plan.cost as Cost,
    status: plan.status === "proved" ? "proved" : "not yet proved",
    accessories,
    cables: plan.cables as { used: string[]; inBag: string[] },
    leads: connections.length,
  };
}

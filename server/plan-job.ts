import type { Build } from "../core/build";
import { isDone } from "../core/build";
import type { Plan as MadePlan } from "../core/plan";
import { type EntityManager, Job, JobPart, Link, LockMode, layPart, Plan, type TechnicianRow } from "../db";
import { buildOfJob, findJob } from "./build-of-job";
import { log } from "./log";
import { planInThread } from "./plan-thread";
import { no, type Result, yes } from "./result";

export interface Planned {
  revision: number;
  status: string;
  moved: number;
  placed: number;
  free: number;
  tookMs: number;
}

/** Plans a job and keeps the plan, unless its parts changed meanwhile. What is fixed or plugged stays as it is. */
export async function planJob(
  em: EntityManager,
  number: string,
  by: TechnicianRow,
  make: (build: Build) => Promise<MadePlan> = planInThread,
): Promise<Result<Planned>> {
  const job = await findJob(em, number);
  if (!job) return no(`There is no job ${number}.`);
  const { build } = await buildOfJob(em, job);
  // The row is read again later and refreshes itself; what it was now is what counts.
  const partsRevision = job.partsRevision;
  const started = performance.now();
  let made: MadePlan;
  try {
    made = await make(build);
  } catch (e) {
    return no(`No plan was made: ${e instanceof Error ? e.message : String(e)}. The wiring is as it was. Try again.`);
  }
  const tookMs = Math.round(performance.now() - started);
  return em.transactional(async (tx) => {
    const now = await tx.findOneOrFail(Job, { id: job.id }, { lockMode: LockMode.PESSIMISTIC_WRITE, refresh: true });
    const links = await tx.find(Link, { job: job.id });
    const held = (list: readonly { lead: string; port: string; state: string }[]) =>
      list
        .filter((c) => c.state !== "planned")
        .map((c) => `${c.lead} ${c.port} ${c.state}`)
        .sort()
        .join("\n");
    const same = now.partsRevision === partsRevision && held(links) === held(build.connections);
    if (!same) return no("The parts or the plugs changed while the plan was being made. Nothing was stored. Plan again.");
    const last = await tx.findOne(Plan, { job: job.id }, { orderBy: { revision: "desc" } });
    const revision = (last?.revision ?? 0) + 1;
    const before = new Map(links.map((l) => [l.lead, l]));
    const after = new Set(made.connections.map((c) => c.lead));
    let moved = 0;
    for (const l of links) if (!after.has(l.lead)) tx.remove(l);
    for (const c of made.connections) {
      const l = before.get(c.lead);
      if (l && l.port !== c.port) moved++;
      if (l)
        Object.assign(l, {
          port: c.port,
          place: c.place ?? null,
          state: c.state,
          why: c.why,
          planRevision: revision,
          ...(isDone(c) ? {} : { plannedPort: null }),
        });
      else
        tx.create(Link, {
          job: now,
          lead: c.lead,
          port: c.port,
          place: c.place ?? null,
          state: c.state,
          why: c.why,
          planRevision: revision,
          plannedPort: null,
          changedAt: new Date(),
        });
    }
    const parts = await tx.find(JobPart, { job: job.id });
    const keep = new Set(made.build.parts.map((p) => p.id));
    for (const p of parts) if (!keep.has(p.key)) tx.remove(p);
    const known = new Set(parts.map((p) => p.key));
    let position = Math.max(0, ...parts.map((p) => p.position));
    for (const p of made.build.parts) {
      if (known.has(p.id)) continue;
      const type = build.partTypes.find((t) => t.id === p.type);
      layPart(tx, now, p, type, ++position);
    }
    tx.create(Plan, {
      job: now,
      revision,
      partsRevision: now.partsRevision,
      status: made.status,
      cost: made.cost,
      free: made.free,
      cables: made.cables,
      connections: made.connections.map((c) => ({ lead: c.lead, port: c.port, ...(c.place ? { place: c.place } : {}) })),
      madeBy: by,
      madeAt: new Date(),
      tookMs,
    });
    const free = made.free.filter((f) => f.need !== "optional").length;
    const placed = made.connections.length;
    log(
      tx,
      now,
      by,
      "plan",
      `Plan ${revision}, ${made.status}: ${placed} connections, ${free} wanted ${free === 1 ? "end" : "ends"} free, ${moved} moved.`,
      { planRevision: revision },
    );
    if (now.stage === "intake") now.stage = "planning";
    return yes({ revision, status: made.status, moved, placed, free, tookMs });
  });
}

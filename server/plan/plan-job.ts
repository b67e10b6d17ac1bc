import { createHash } from "node:crypto";
import type { Build, Part } from "../../core/assembly";
import { isDone, typeLookup } from "../../core/assembly";
import { isClosed, isStage } from "../../core/job";
import {
  compareCost,
  heldOf,
  holdsStill,
  keyOf,
  LEVEL_WORDS,
  LEVELS,
  type Plan as MadePlan,
  type PlanProgress,
  proofWords,
  wholeCost,
} from "../../core/plan";
import { type EntityManager, Job, JobPart, type JobRow, Link, LockMode, layPart, Plan } from "../../db";
import { buildOfJob, findJob } from "../build/build-of-job";
import type { Actor } from "../kernel/actor";
import { no, type Refusal, type Result, yes } from "../kernel/result";
import { JobUnit, jobRead } from "../unit/unit";
import type { Asked, PlanAndWays } from "./plan-thread";

export interface Planned {
  revision: number;
  status: string;
  /** How far it is proved, in words; empty when to its end. */
  proof: string;
  moved: number;
  placed: number;
  free: number;
  tookMs: number;
  /** What became of a first plan that was not yet proved: proved as it stands, replaced by this better one, or left because the work was stopped. */
  after?: "proved" | "replaced" | "left" | "stopped";
}

/** How far it is (0 to 1) and at what, in words; or a first plan, stored. */
export type PlanNews = { kind: "progress"; share: number; words: string } | { kind: "first"; planned: Planned };

function progress({ done, of, level }: PlanProgress): PlanNews {
  // Levels weigh alike: nobody knows beforehand which takes long.
  const within = level ? LEVELS.indexOf(level) / LEVELS.length : 0;
  return {
    kind: "progress",
    share: of === 0 ? 1 : Math.min(1, (done + within) / of),
    words: `Piece ${Math.min(done + 1, of)} of ${of}${level ? `, looking at: ${LEVEL_WORDS[level]}` : ""}`,
  };
}

/** Somebody looks on: gets a first plan soon, and news while it is being proved. */
export interface Watch {
  news: (n: PlanNews) => void;
  signal?: AbortSignal | undefined;
  /** A first plan that was stored before the search gave way to others: only the rest is left. */
  first?: Planned | undefined;
}

/** Seconds after which a plan is shown whether it is proved or not. */
const FIRST_S = 2.5;

export type Make = (build: Build, asked?: Asked) => Promise<PlanAndWays>;

/** Parts, plugs or stock changed while a plan was made: so often it is made again by itself. */
const MOST_TIMES = 3;

/**
 * Plans a job and keeps the plan. What is fixed or plugged stays as it is. Where its parts, its plugs or the stock changed meanwhile,
 * nothing is stored and it is planned again as it is now.
 * With `watch`, a plan that is not proved soon is kept and shown as it is, then proved, or replaced by a better one.
 */
export async function planJob(em: EntityManager, number: string, by: Actor, make: Make, watch?: Watch): Promise<Result<Planned>> {
  for (let times = 1; ; times++) {
    const said = await planOnce(em.fork() as EntityManager, number, by, make, watch);
    if (said.ok || !("overtaken" in said) || times === MOST_TIMES || watch?.signal?.aborted) return said;
  }
}

/** What was planned for is no longer so. */
const overtaken = (sentence: string): Refusal & { overtaken: true } => ({ ...no(sentence), overtaken: true });

async function planOnce(em: EntityManager, number: string, by: Actor, make: Make, watch?: Watch): Promise<Result<Planned>> {
  const job = await findJob(em, number);
  if (!job) return no(`There is no job ${number}.`);
  if (isStage(job.stage) && isClosed(job.stage)) return no(`${number} was handed over. Nothing was planned. Open it again on Handover first.`);
  const { build } = await buildOfJob(em, job);
  // The row is read again later and refreshes itself; what it was now is what counts.
  const start: Start = { job, build, parts: idsOf(build), partsRevision: job.partsRevision, by, startedAt: performance.now() };
  const last = await em.findOne(Plan, { job: job.id }, { orderBy: { revision: "desc" } });
  const stillBest = last?.status === "proved" && last.proofKey === hashOf(build) && holdsStill(build, last.held as string[]);
  const asked: Asked = { stillBest, onProgress: (now) => watch?.news(progress(now)), signal: watch?.signal, ways: "always" };
  if (watch?.first) return prove(em, start, watch.first, { build, stands: build }, make, asked, watch);
  let first: PlanAndWays;
  try {
    first = await make(build, watch ? { ...asked, deadlineS: FIRST_S, ways: "when proved" } : asked);
  } catch (e) {
    return no(`No plan was made: ${e instanceof Error ? e.message : String(e)}. The wiring is as it was. Try again.`);
  }
  const kept = await store(em, start, first);
  if (!kept.ok || !watch || first.status === "proved") return kept;
  watch.news({ kind: "first", planned: kept.value });
  return prove(em, { ...start, parts: idsOf(first.build) }, kept.value, { build, stands: first.build, cost: first.cost }, make, asked, watch);
}

/** Searches on from a first plan: it is confirmed, replaced by a better one, or left as it is. */
async function prove(
  em: EntityManager,
  start: Start,
  kept: Planned,
  { build, stands, cost }: { build: Build; stands: Build; cost?: MadePlan["cost"] },
  make: Make,
  asked: Asked,
  watch: Watch,
): Promise<Result<Planned>> {
  let better: PlanAndWays;
  try {
    better = await make(build, asked);
  } catch (e) {
    if (watch.signal?.aborted) return yes({ ...kept, after: "stopped" as const });
    return no(`Plan ${kept.revision} stays, not yet proved: ${e instanceof Error ? e.message : String(e)}. Plan again to prove it.`);
  }
  const said = cost ? compareCost(better.cost, cost) : 0;
  const same = said === 0 && wiring(better) === wiring(stands);
  if (said > 0 || ((same || (cost && said === 0)) && better.status !== "proved")) return yes({ ...kept, after: "left" as const });
  const done = same ? await confirm(em.fork(), start, kept, better) : await store(em.fork(), start, better);
  return done.ok ? yes({ ...done.value, after: same ? ("proved" as const) : ("replaced" as const) }) : done;
}

const unitOf = (tx: unknown, by: Actor, job: JobRow) => {
  const now = new Date();
  return new JobUnit(tx as EntityManager, by, { happened: now, arrived: now }, jobRead(job), undefined);
};

/** Everything that decides a plan, in few characters. */
export const hashOf = (build: Build) => createHash("sha256").update(keyOf(build)).digest("hex");

const idsOf = (build: Build) =>
  build.parts
    .map((p) => p.id)
    .sort()
    .join();

interface Start {
  job: JobRow;
  build: Build;
  /** The parts that the job has to have still when a plan is stored. */
  parts: string;
  partsRevision: number;
  by: Actor;
  startedAt: number;
}

const wiring = (p: Pick<Build, "connections">) =>
  p.connections
    .map((c) => `${c.lead} ${c.port} ${c.place?.join() ?? ""}`)
    .sort()
    .join("\n");

/** The plan as it stands has been proved: nothing of it changes but that. */
function confirm(em: EntityManager, { job, by, startedAt }: Start, planned: Planned, { ways }: PlanAndWays): Promise<Result<Planned>> {
  return em.transactional(async (tx) => {
    const now = await tx.findOneOrFail(Job, { id: job.id }, { lockMode: LockMode.PESSIMISTIC_WRITE, refresh: true });
    const last = await tx.findOne(Plan, { job: job.id }, { orderBy: { revision: "desc" } });
    if (!last || last.revision !== planned.revision) return no("Somebody planned this job again meanwhile. That plan stays.");
    const tookMs = Math.round(performance.now() - startedAt);
    Object.assign(last, { status: "proved", proof: "", tookMs, ways: ways ?? null });
    const unit = unitOf(tx, by, now);
    unit.emit("plan-proved", { revision: last.revision }, last.revision);
    await unit.keepEvents();
    return yes({ ...planned, status: "proved", proof: "", tookMs });
  });
}

/** Stores a plan as the next revision, with its connections and accessories. */
async function store(em: EntityManager, start: Start, made: PlanAndWays): Promise<Result<Planned>> {
  try {
    return await stored(em, start, made);
  } catch (e) {
    // The transaction took everything back.
    if (e instanceof Overtaken) return overtaken(e.message);
    throw e;
  }
}

class Overtaken extends Error {}

/** Does a plan mean another piece than the row of this name? What has arrived is what it is. */
const isAnother = (row: { type: string; origin: string; arrivedAt?: Date | null }, part: Part | undefined): boolean =>
  part !== undefined && (row.type !== part.type || (row.origin !== part.from && !row.arrivedAt));

/**
 * One of these accessories, of which more is promised now than there is. Whoever takes from the shelf holds the shop's row by then,
 * so that two plans never count the same stock.
 */
async function promisedTwice(tx: EntityManager, took: readonly string[]): Promise<string | undefined> {
  if (took.length === 0) return undefined;
  const [row] = await tx.execute<{ name: string }[]>(
    `select s."name" from "shelf_type" s join (select o."type", count(*) as n from "job_part" o join "job" j on j."id" = o."job_id" where o."origin" = 'shelf' and j."stage" <> 'cancelled' group by o."type") p on p."type" = s."id"
     where p.n > s."stock" and s."id" = any(?) order by s."name" limit 1`,
    [`{${took.map((t) => JSON.stringify(t)).join()}}`],
  );
  return row?.name;
}

function stored(
  em: EntityManager,
  { job, build, parts: expected, partsRevision, by, startedAt }: Start,
  made: PlanAndWays,
): Promise<Result<Planned>> {
  const tookMs = Math.round(performance.now() - startedAt);
  return em.transactional(async (tx) => {
    const now = await tx.findOneOrFail(Job, { id: job.id }, { lockMode: LockMode.PESSIMISTIC_WRITE, refresh: true });
    const unit = unitOf(tx, by, now);
    const links = await tx.find(Link, { job: job.id });
    const held = (list: readonly { lead: string; port: string; state: string }[]) =>
      list
        .filter((c) => c.state !== "planned")
        .map((c) => `${c.lead} ${c.port} ${c.state}`)
        .sort()
        .join("\n");
    const parts = await tx.find(JobPart, { job: job.id }, { limit: 500 });
    const same =
      now.partsRevision === partsRevision &&
      held(links) === held(build.connections) &&
      parts
        .map((p) => p.key)
        .sort()
        .join() === expected;
    if (!same) throw new Overtaken("The parts or the plugs changed while the plan was being made. Nothing was stored. Plan again.");
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
    const wanted = new Map(made.build.parts.map((p) => [p.id, p]));
    for (const p of parts) if (!wanted.has(p.key)) tx.remove(p);
    // An accessory that was swapped for another gave its name back, and one that was to be ordered may come from the shelf now.
    const another = parts.filter((p) => isAnother(p, wanted.get(p.key)));
    if (another.length > 0) await tx.nativeDelete(JobPart, { id: { $in: another.map((p) => p.id) } });
    const known = new Set(parts.filter((p) => !another.includes(p)).map((p) => p.key));
    let position = Math.max(0, ...parts.map((p) => p.position));
    for (const p of made.build.parts) {
      if (known.has(p.id)) continue;
      const type = build.partTypes.find((t) => t.id === p.type);
      layPart(tx, now, p, type, ++position);
    }
    await tx.flush();
    const took = made.build.parts.flatMap((p) => (p.from === "shelf" && !known.has(p.id) ? [p.type] : []));
    const promised = await promisedTwice(tx as EntityManager, took);
    if (promised) throw new Overtaken(`${promised} was taken for another job while the plan was being made. Nothing was stored. Plan again.`);
    tx.create(Plan, {
      job: now,
      revision,
      partsRevision: now.partsRevision,
      status: made.status,
      proof: proofWords(made),
      proofKey: hashOf(made.build),
      held: heldOf(made.build),
      cost: { ...wholeCost(made.build, typeLookup(build, [])), changes: made.cost.changes },
      free: made.free,
      ways: made.ways ?? null,
      cables: made.cables,
      connections: made.connections.map((c) => ({ lead: c.lead, port: c.port, ...(c.place ? { place: c.place } : {}) })),
      madeBy: unit.by,
      madeAt: new Date(),
      tookMs,
    });
    const free = made.free.filter((f) => f.need !== "optional").length;
    const placed = made.connections.length;
    unit.emit("planned", { revision, status: made.status, placed, free, moved, proof: proofWords(made) }, revision);
    unit.stage.to("planned");
    await unit.keepEvents();
    return yes({ revision, status: made.status, proof: proofWords(made), moved, placed, free, tookMs });
  });
}

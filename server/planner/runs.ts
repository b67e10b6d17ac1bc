import { z } from "zod";
import { isClosed, isStage } from "../../core/job";
import type { EntityManager } from "../../db";
import { buildOfJob, findJob } from "../build/build-of-job";
import type { Actor } from "../kernel/actor";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { listen } from "../live/channel";
import { hashOf, type PlanNews, type Planned } from "../plan/plan-job";
import { query, shopAction } from "../unit/action";

/** A planner that was not heard of for so long is gone: its run is taken again. */
export const GONE_AFTER_S = 10;
/** A run that ended its planner so often is given up. */
const MOST_TRIES = 3;
/** Runs that wait; more are refused: somebody's browser asks in a loop. */
const MOST_WAITING = 200;

export const AskPlan = z.object({ number: JobNumber });

/** Asks for a plan: a row that a planner takes. What is asked for already, for the same parts and plugs, is not asked for twice. */
export const askPlan = shopAction({
  name: "wiring.plan",
  permission: "plan",
  input: AskPlan,
  run: async ({ tx, actor }, { number }): Promise<Result<string>> => {
    const job = await findJob(tx, number);
    if (!job) return no(`There is no job ${number}.`);
    if (isStage(job.stage) && isClosed(job.stage)) return no(`${number} was handed over. Nothing was planned. Open it again on Handover first.`);
    const [waiting] = await tx.execute<{ n: number }[]>(`select count(*)::int as n from "plan_run" where "state" = 'waiting'`);
    if ((waiting?.n ?? 0) >= MOST_WAITING) return no("Too many plans wait already. Nothing was planned. Try again in a minute.");
    const { build } = await buildOfJob(tx, job);
    const hash = hashOf(build);
    const [made] = await tx.execute<{ id: string }[]>(
      `insert into "plan_run" ("job_id", "hash", "asked_by_id") values (?, ?, ?)
       on conflict ("job_id", "hash") where "state" in ('waiting', 'working') do update set "hash" = excluded."hash" returning "id"`,
      [job.id, hash, actor.id],
    );
    return made ? yes(made.id) : no("The plan could not be asked for. Nothing was changed. Try again.");
  },
});

/** Ends the runs of a job, whoever's planner works on them. What was stored stays. */
export const stopPlan = shopAction({
  name: "wiring.stop-plan",
  permission: "plan",
  input: AskPlan,
  run: async ({ tx }, { number }) => {
    await tx.execute(
      `update "plan_run" r set "state" = 'stopped', "ended_at" = now() from "job" j where j."id" = r."job_id" and j."number" = ? and r."state" in ('waiting', 'working')`,
      [number],
    );
    return yes(undefined);
  },
});

/** The run of a job that waits or is worked on: the newest. */
async function openRun(em: EntityManager, number: string): Promise<string | undefined> {
  const [row] = await em.execute<{ id: string }[]>(
    `select r."id" from "plan_run" r join "job" j on j."id" = r."job_id" where j."number" = ? and r."state" in ('waiting', 'working')
     order by r."asked_at" desc limit 1`,
    [number],
  );
  return row?.id;
}

/** Is a plan of this job being made, or waited for? */
export const isPlanning = async (em: EntityManager, number: string): Promise<boolean> => (await openRun(em, number)) !== undefined;

interface RunRow {
  id: string;
  state: string;
  share: number;
  words: string;
  first: Planned | null;
  result: Result<Planned> | null;
}

/** Between two looks at a run of which nothing was heard. */
const LOOK_MS = 1500;

/** Follows a run to its end, telling how it goes; from any server, whichever planner works on it. */
export async function followRun(em: EntityManager, id: string, news: (n: PlanNews) => void, signal?: AbortSignal): Promise<Result<Planned>> {
  let wake = () => {};
  const deaf = listen((n) => {
    if ("again" in n || ("run" in n && n.run === id)) wake();
  });
  let told = false;
  let said = "";
  const gone = () => wake();
  signal?.addEventListener("abort", gone);
  try {
    while (!signal?.aborted) {
      const [row] = await em.execute<RunRow[]>(`select "id", "state", "share", "words", "first", "result" from "plan_run" where "id" = ?`, [id]);
      if (!row) return no("The plan that was asked for is gone. Nothing was changed. Plan again.");
      if (row.first && !told) {
        told = true;
        news({ kind: "first", planned: row.first });
      }
      if (row.state === "stopped") return row.first ? yes({ ...row.first, after: "stopped" as const }) : no("Stopped. The wiring is as it was.");
      if (row.result) return row.result;
      const words = row.state === "waiting" ? (row.first ? row.words : "Waits until a planner is free") : row.words;
      if (words !== said) {
        said = words;
        news({ kind: "progress", share: row.share, words });
      }
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, LOOK_MS);
        wake = () => {
          clearTimeout(timer);
          resolve();
        };
      });
    }
    return no("Nobody follows this plan any more. It goes on.");
  } finally {
    signal?.removeEventListener("abort", gone);
    deaf();
  }
}

/** Asks for a plan and waits for it. */
export const planNow = query({
  name: "wiring.plan-and-wait",
  permission: "plan",
  input: AskPlan,
  run: async (em, v, actor): Promise<Result<Planned>> => planFollowed(em, v, actor, () => {}),
});

/** Asks for a plan and follows it, as an action of its own for somebody who looks on. */
export const planWatched = (news: (n: PlanNews) => void, signal?: AbortSignal) => ({
  ...planNow,
  carryOut: (em: EntityManager, actor: Actor, v: z.infer<typeof AskPlan>) => planFollowed(em, v, actor, news, signal),
});

/** Follows a plan that somebody asked for; asks for none. */
export const followOpen = query({
  name: "wiring.follow-plan",
  input: AskPlan,
  run: async (em, v): Promise<Result<Planned>> => followed(em, v, () => {}),
});
export const followWatched = (news: (n: PlanNews) => void, signal?: AbortSignal) => ({
  ...followOpen,
  carryOut: (em: EntityManager, _actor: Actor, v: z.infer<typeof AskPlan>) => followed(em, v, news, signal),
});

async function followed(em: EntityManager, v: z.infer<typeof AskPlan>, news: (n: PlanNews) => void, signal?: AbortSignal): Promise<Result<Planned>> {
  const id = await openRun(em, v.number);
  return id ? followRun(em, id, news, signal) : no("No plan of this job is being made.");
}

async function planFollowed(
  em: EntityManager,
  v: z.infer<typeof AskPlan>,
  actor: Actor,
  news: (n: PlanNews) => void,
  signal?: AbortSignal,
): Promise<Result<Planned>> {
  const asked = await askPlan.carryOut(em.fork() as EntityManager, actor, v);
  return asked.ok ? followRun(em, asked.value, news, signal) : asked;
}

export interface Taken {
  id: string;
  number: string;
  by: Actor;
  /** Stored already, not yet proved: only the long search is left. */
  first?: Planned | undefined;
}

/**
 * Takes the run that waits longest, or one whose planner is gone; nothing where there is none. Whoever waits for a first plan comes
 * before what is only being proved. Two planners never take the same.
 */
export async function takeRun(em: EntityManager, planner: string): Promise<Taken | undefined> {
  await em.execute(
    `update "plan_run" set "state" = 'done', "ended_at" = now(), "result" = ?::jsonb
     where "state" = 'working' and "tries" >= ? and "beat_at" < now() - make_interval(secs => ?)`,
    [
      JSON.stringify(no("No plan was made: the planner ended at it three times. The wiring is as it was. Tell whoever keeps the server.")),
      MOST_TRIES,
      GONE_AFTER_S,
    ],
  );
  const [row] = await em.execute<{ id: string; number: string; by: string; name: string; role: string; first: Planned | null }[]>(
    `update "plan_run" r set "state" = 'working', "taken_by" = ?, "beat_at" = now(), "tries" = r."tries" + 1
     from "job" j, "person" t
     where j."id" = r."job_id" and t."id" = r."asked_by_id" and r."id" = (
       select "id" from "plan_run"
       where "state" = 'waiting' or ("state" = 'working' and "beat_at" < now() - make_interval(secs => ?))
       order by ("first" is not null), "asked_at" limit 1 for update skip locked)
     returning r."id", r."first", j."number", t."id" as "by", t."name", t."role"`,
    [planner, GONE_AFTER_S],
  );
  return row && { id: row.id, number: row.number, by: { id: row.by, name: row.name, role: row.role }, first: row.first ?? undefined };
}

/** Another run has waited for its first plan for so long, s: a long search gives way to it. */
const GIVES_WAY_AFTER_S = 0.5;

/** Puts a run whose first plan is stored back, where others wait for theirs. True: the planner leaves it. */
export async function giveWay(em: EntityManager, id: string, planner: string): Promise<boolean> {
  const rows = await em.execute<unknown[]>(
    `update "plan_run" set "state" = 'waiting', "words" = 'Waits while another is planned', "tries" = greatest(0, "tries" - 1)
     where "id" = ? and "taken_by" = ? and "state" = 'working' and "first" is not null
       and exists (select 1 from "plan_run" w where w."state" = 'waiting' and w."first" is null and w."asked_at" < now() - make_interval(secs => ?))
     returning "id"`,
    [id, planner, GIVES_WAY_AFTER_S],
  );
  return rows.length > 0;
}

/** Says that the planner is still at it, and how far. False: the run was stopped, or another planner has it. */
export async function beat(em: EntityManager, id: string, planner: string, now: { share: number; words: string }): Promise<boolean> {
  const rows = await em.execute<unknown[]>(
    `update "plan_run" set "beat_at" = now(), "share" = ?, "words" = ? where "id" = ? and "taken_by" = ? and "state" = 'working' returning "id"`,
    [now.share, now.words, id, planner],
  );
  return rows.length > 0;
}

/** Runs that ended longer ago are nobody's news. */
const KEPT_DAYS = 7;

export async function forgetOld(em: EntityManager): Promise<void> {
  await em.execute(`delete from "plan_run" where "ended_at" < now() - make_interval(days => ?)`, [KEPT_DAYS]);
}

export async function tellFirst(em: EntityManager, id: string, planned: Planned): Promise<void> {
  await em.execute(`update "plan_run" set "first" = ?::jsonb, "beat_at" = now() where "id" = ?`, [JSON.stringify(planned), id]);
}

export async function endRun(em: EntityManager, id: string, planner: string, result: Result<Planned>): Promise<void> {
  await em.execute(
    `update "plan_run" set "state" = 'done', "result" = ?::jsonb, "share" = 1, "ended_at" = now() where "id" = ? and "taken_by" = ? and "state" = 'working'`,
    [JSON.stringify(result), id, planner],
  );
}

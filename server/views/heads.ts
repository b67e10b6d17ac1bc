import type { Step } from "../../core/order";
import { type EntityManager, IsolationLevel } from "../../db";
import { tellHead } from "../kernel/news";
import { type JobView, jobView } from "./job-view";

/** When what runs by itself should be over, by this server's clock. */
function clockOf(a: { at: string; minutes: number }): string {
  const d = new Date(Date.parse(a.at) + a.minutes * 60_000);
  return `${String(d.getHours()).padStart(2, "0")}:${String(d.getMinutes()).padStart(2, "0")}`;
}

const MOST_NEXT = 160;

/** What hands do next on a job, in a sentence. */
function nextOf(v: JobView, left: Step | undefined): string {
  if (v.head.stage === "waiting") return `Waits for ${v.head.waitingFor ?? "a delivery"}`;
  if (v.head.stage === "handed-over") return "Handed over";
  if (v.head.stage === "cancelled") return "Cancelled";
  const wanted = v.leads.filter((l) => !l.out && l.loom !== "seat");
  if (!v.plan && !wanted.some((l) => l.port)) return `${wanted.length} leads, none planned. Plan the wiring`;
  if (v.plan?.stale) return "Parts changed. Plan the wiring again";
  const alone = v.after.alone[0];
  if (alone) return `Runs by itself, look at it about ${clockOf(alone)}: ${alone.what}`;
  const fault = v.faults.find((f) => f.state === "open" && !f.simulated);
  if (fault) return `Find fault ${fault.number}. ${fault.title}`.slice(0, MOST_NEXT);
  if (v.head.stage === "soak") return "Soak: read temperatures and fan speeds";
  if (left) return left.title;
  const unseen = v.power.lines.find((l) => !v.seen[l.id] || v.seen[l.id]?.simulated);
  return unseen ? `First boot, to be seen: ${unseen.what}` : "All as expected. Soak next";
}

const UNKNOWN = "This job could not be worked out. Nothing of it is lost; open it, undo the last entry, or tell the lead";

/** Everything of a job as it is at one moment, whatever is written meanwhile. */
export const viewAtOnce = (em: EntityManager, number: string): Promise<JobView | undefined> =>
  em.transactional((tx) => jobView(tx as EntityManager, number), { isolationLevel: IsolationLevel.REPEATABLE_READ, readOnly: true });

/** What lists show of a head. */
const SHOWN = `"next", "stops", "open_faults", "steps", "done", "minutes", "leads", "placed"`;

/** Derives the head of one job and keeps it, unless a newer one is kept already. One that cannot be worked out says so in its head. */
async function renewHead(em: EntityManager, number: string): Promise<void> {
  const v = await viewAtOnce(em, number).catch((e: unknown) => {
    console.error(`${number} could not be worked out`, e);
    return undefined;
  });
  const left = v?.steps.filter((s) => !s.done) ?? [];
  const revision = v ? v.head.revision : 0;
  const row = v
    ? [
        nextOf(v, left[0]),
        v.findings.filter((f) => f.severity === "stop").length,
        v.progress.faults,
        v.steps.length,
        v.steps.length - left.length,
        Math.round(v.order.left.handsOn),
        v.leads.length,
        v.leads.filter((l) => l.port).length,
      ]
    : [UNKNOWN, 1, 0, 0, 0, 0, 0, 0];
  const [kept] = await em.execute<{ moved: boolean }[]>(
    `with "was" as (select h.* from "job_head" h join "job" j on j."id" = h."job_id" where j."number" = ?), "now" as (
     insert into "job_head" ("job_id", "revision", "next", "stops", "open_faults", "steps", "done", "minutes", "leads", "placed")
     select "id", ${v ? "?::int" : '"revision" + 0 * ?::int'}, ?, ?, ?, ?, ?, ?, ?, ? from "job" where "number" = ?
     on conflict ("job_id") do update set "revision" = excluded."revision", "next" = excluded."next", "stops" = excluded."stops",
       "open_faults" = excluded."open_faults", "steps" = excluded."steps", "done" = excluded."done", "minutes" = excluded."minutes",
       "leads" = excluded."leads", "placed" = excluded."placed"
     where "job_head"."revision" < excluded."revision" returning ${SHOWN})
     select (select row(n.*)::text from "now" n) is distinct from (select row(${SHOWN})::text from "was") as "moved" where exists(select from "now")`,
    [number, revision, ...row, number],
  );
  // A head that is only right for a later revision too is no news.
  if (kept?.moved) tellHead(number);
}

/** Renews the heads that are behind their jobs, `among` these or all there are, open jobs first, at most so many; how many there were. */
export async function renewHeads(em: EntityManager, most = 50, among?: readonly string[]): Promise<number> {
  const behind = await em.execute<{ number: string }[]>(
    `select j."number" from "job" j left join "job_head" h on h."job_id" = j."id"
     where h."revision" is distinct from j."revision"${among ? ` and j."number" in (select jsonb_array_elements_text(?::jsonb))` : ""}
     order by (j."stage" in ('handed-over', 'cancelled')), j."created_at" desc limit ${Math.max(1, Math.floor(most))}`,
    among ? [JSON.stringify(among)] : [],
  );
  for (const { number } of behind) await renewHead(em.fork() as EntityManager, number);
  return behind.length;
}

import { z } from "zod";
import type { EntityManager } from "../../db";
import { yes } from "../kernel/result";
import { day, line } from "../kernel/text";
import { query } from "../unit/action";
import type { HeadView } from "./job-view";

/** A job as lists show it. */
export interface BenchJob extends Omit<HeadView, "revision" | "purpose"> {
  next: string;
  stops: number;
  openFaults: number;
  /** Of the steps, from 0 to 1. */
  share: number;
  /** Of work that is left, by the steps. */
  minutes: number;
}

/** Open jobs on one page. */
const MOST_OPEN = 100;
const PAGE = 50;

interface Row {
  number: string;
  client: string;
  title: string;
  stage: string;
  bench: number | null;
  technician: string | null;
  due_on: string | Date | null;
  waiting_for: string | null;
  waiting_until: string | Date | null;
  next: string | null;
  stops: number | null;
  open_faults: number | null;
  steps: number | null;
  done: number | null;
  minutes: number | null;
}

const COLUMNS = `j."number", j."client", j."title", j."stage", j."bench", t."name" as "technician", j."due_on"::text, j."waiting_for", j."waiting_until"::text,
  h."next", h."stops", h."open_faults", h."steps", h."done", h."minutes"`;
const FROM = `from "job" j left join "job_head" h on h."job_id" = j."id" left join "person" t on t."id" = j."technician_id"`;

const asShown = (r: Row): BenchJob => ({
  number: r.number,
  client: r.client,
  title: r.title,
  stage: r.stage,
  bench: r.bench,
  technician: r.technician,
  dueOn: day(r.due_on),
  waitingFor: r.waiting_for,
  waitingUntil: day(r.waiting_until),
  next: r.next ?? "Being worked out",
  stops: r.stops ?? 0,
  openFaults: r.open_faults ?? 0,
  share: r.steps ? (r.done ?? 0) / r.steps : 0,
  minutes: r.minutes ?? 0,
});

export interface Benches {
  jobs: BenchJob[];
  /** Open jobs that are not among them. */
  more: number;
  /** Handed over last. */
  handedOver: { number: string; title: string }[];
}

/** The open jobs, on benches first, then by what is due first; and those handed over last. */
export async function benches(em: EntityManager): Promise<Benches> {
  const rows = await em.execute<Row[]>(
    `select ${COLUMNS} ${FROM} where j."stage" not in ('handed-over', 'cancelled') order by (j."bench" is null), j."due_on" nulls last, j."created_at" desc limit ${MOST_OPEN}`,
  );
  const [open] =
    rows.length < MOST_OPEN
      ? [{ n: rows.length }]
      : await em.execute<{ n: number }[]>(`select count(*)::int as n from "job" where "stage" not in ('handed-over', 'cancelled')`);
  const handedOver = await em.execute<{ number: string; title: string }[]>(
    `select "number", "title" from "job" where "stage" = 'handed-over' order by "created_at" desc limit 5`,
  );
  return { jobs: rows.map(asShown), more: Math.max(0, (open?.n ?? 0) - rows.length), handedOver };
}

export interface JobsPage {
  jobs: BenchJob[];
  page: number;
  more: boolean;
}

/** All jobs, the newest first, narrowed by words and stage, a page at a time. */
export const allJobs = query({
  name: "job.list",
  input: z.object({ text: line(80).default(""), stage: line(20).default(""), page: z.number().int().min(1).max(10_000).default(1) }),
  run: async (em, { text, stage, page }) => {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 6);
    const where = [...words.map(() => `lower(j."number" || ' ' || j."client" || ' ' || j."title") like ?`), ...(stage ? [`j."stage" = ?`] : [])];
    const values = [...words.map((w) => `%${w.replace(/[\\%_]/g, (c) => `\\${c}`)}%`), ...(stage ? [stage] : [])];
    const rows = await em.execute<Row[]>(
      `select ${COLUMNS} ${FROM} ${where.length > 0 ? `where ${where.join(" and ")}` : ""} order by j."created_at" desc, j."number" desc limit ${PAGE + 1} offset ${(page - 1) * PAGE}`,
      values,
    );
    return yes<JobsPage>({ jobs: rows.slice(0, PAGE).map(asShown), page, more: rows.length > PAGE });
  },
});

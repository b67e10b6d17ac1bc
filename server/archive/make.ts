import { z } from "zod";
import { type Held, packed } from "../../archive";
import { asPlugged } from "../../core/assembly";
import { eventWords } from "../../core/job";
import { paperDrawing, svgOf } from "../../core/scene";
import { connectionsCsv, sheetOf } from "../../core/sheet";
import type { EntityManager } from "../../db";
import { paperPdf } from "../../paper/paper-pdf";
import { buildOfJob, findJob } from "../build/build-of-job";
import { paperOf } from "../documents/papers";
import { wiringFile } from "../documents/wiring-file";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { photoStore } from "../photos/store";
import { query } from "../unit/action";
import { NAMES_PERSON, TABLES } from "./tables";

type Row = Record<string, unknown>;
export const RECORD_VERSION = 1;
const MOST_ROWS = 20_000;

/** All rows of a job, as the database has them; people by their names. */
async function recordOf(em: EntityManager, jobId: string) {
  const [job] = await em.execute<{ row: Row }[]>(`select to_jsonb(j) - 'version' as "row" from "job" j where j."id" = ?`, [jobId]);
  const tables: Record<string, Row[]> = {};
  for (const t of TABLES) {
    const rows = await em.execute<{ row: Row }[]>(
      `select to_jsonb(t) as "row" from "${t}" t where t."job_id" = ? order by t."id" limit ${MOST_ROWS}`,
      [jobId],
    );
    tables[t] = rows.map((r) => r.row);
  }
  const ids = new Set<string>();
  for (const row of [job?.row ?? {}, ...Object.values(tables).flat()])
    for (const [column, v] of Object.entries(row)) if (NAMES_PERSON.test(column) && typeof v === "string") ids.add(v);
  const people = await em.execute<{ id: string; name: string }[]>(`select "id", "name" from "person" where "id" = any(?) order by "name"`, [
    `{${[...ids].join()}}`,
  ]);
  return { version: RECORD_VERSION, job: job?.row ?? {}, tables, people };
}

const json = (name: string, what: unknown): Held => ({ name, bytes: Buffer.from(`${JSON.stringify(what, null, 1)}\n`) });

/** One file of a job that is read without Imbra and taken in again by it. */
export async function archiveOf(em: EntityManager, number: string): Promise<Buffer | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const b = await buildOfJob(em, job);
  const graph = asPlugged(b.graph);
  const record = await recordOf(em, job.id);
  const names = new Map(record.people.map((p) => [p.id, p.name]));
  const log = (record.tables.log_entry ?? []).map((e) =>
    JSON.stringify({
      at: e.happened_at,
      by: names.get(String(e.by_id)) ?? "",
      kind: e.kind,
      words: e.text ?? eventWords({ kind: String(e.kind), data: e.data ?? null }),
    }),
  );
  const files: Held[] = [
    json("build.json", b.build),
    json("record.json", record),
    { name: "log.jsonl", bytes: Buffer.from(log.map((l) => `${l}\n`).join("")) },
    { name: "leads.csv", bytes: Buffer.from(connectionsCsv(sheetOf(graph))) },
    { name: "front.svg", bytes: Buffer.from(svgOf(paperDrawing(graph, "front", job.title))) },
    { name: "behind.svg", bytes: Buffer.from(svgOf(paperDrawing(graph, "behind", job.title))) },
  ];
  for (const kind of ["client", "shop", "delivery"] as const) {
    const made = await paperOf(em, number, kind);
    if (made) files.push({ name: `papers/${kind}.pdf`, bytes: await paperPdf(made.paper, made.graph, "en") });
  }
  const technician = await wiringFile(em, number, "pdf", "front", true);
  if (technician) files.push({ name: "papers/technician.pdf", bytes: Buffer.from(technician) });
  for (const p of record.tables.photo ?? []) {
    const bytes = await photoStore.get(String(p.id));
    if (bytes) files.push({ name: `photos/${p.id}.jpg`, bytes });
  }
  return packed({ number: job.number, title: job.title, client: job.client, made: new Date().toISOString() }, files);
}

export const archiveAsFile = query({
  name: "archive.file",
  input: z.object({ number: JobNumber }),
  run: async (em, { number }): Promise<Result<Buffer>> => {
    const made = await archiveOf(em, number);
    return made ? yes(made) : no(`There is no job ${number}.`);
  },
});

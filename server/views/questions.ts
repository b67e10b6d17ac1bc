import { z } from "zod";
import type { Answer } from "../../core/diagnose";
import { Job } from "../../db";
import { buildOfJob, findJob } from "../build/build-of-job";
import { runSheet } from "../documents/run-sheet";
import { WIRING_FILES, type WiringFile, wiringFile } from "../documents/wiring-file";
import { type ReadyView, readyOf } from "../handover/recorded";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, line, TypeId } from "../kernel/text";
import { isPlanning } from "../planner/runs";
import { type ReceiptView, receiptView } from "../receipt/receipt-view";
import { type ShelfEntry, shelfEntry } from "../shelf/search";
import { shelfFile } from "../shelf/shelf-file";
import { query } from "../unit/action";
import { diagnosesOf } from "./diagnoses";
import type { JobView } from "./job-view";
import { keptView } from "./kept";

// What pages and files ask. Each is bounded, and asked through the same door as whatever changes something.

const OfJob = z.object({ number: JobNumber });
const found = <T>(value: T | undefined, what: string): Result<T> => (value === undefined ? no(`There is no ${what}.`) : yes(value));

/** A job as its screens show it. */
export const job = query({
  name: "job.view",
  input: OfJob,
  run: async (em, { number }): Promise<Result<JobView>> => found(await keptView(em, number), `job ${number}`),
});

/** What is to blame for each open fault of a job, and what to do first. */
export const diagnoses = query({
  name: "faults.diagnoses",
  input: OfJob,
  run: async (em, { number }): Promise<Result<Record<number, Answer>>> => {
    const view = await keptView(em, number);
    return view ? yes(await diagnosesOf(em, view)) : no(`There is no job ${number}.`);
  },
});

/** What keeps the machine here, what was sold beside what is in it, and what goes along. */
export const ready = query({
  name: "handover.ready",
  input: OfJob,
  run: async (em, { number }): Promise<Result<ReadyView>> => {
    const row = await findJob(em, number);
    return row ? yes(await readyOf(em, row, await buildOfJob(em, row))) : no(`There is no job ${number}.`);
  },
});

/** Is a plan of the job being made, or waited for? */
export const planning = query({ name: "wiring.running", input: OfJob, run: async (em, { number }) => yes(await isPlanning(em, number)) });

export const receipt = query({
  name: "receipt.view",
  input: OfJob,
  run: async (em, { number }): Promise<Result<ReceiptView>> => found(await receiptView(em, number), `job ${number}`),
});

/** Jobs that a new one can be copied from, newest first. */
export const earlierJobs = query({
  name: "job.earlier",
  input: z.strictObject({}),
  run: async (em) => {
    const jobs = await em.find(Job, {}, { orderBy: { createdAt: "desc" }, limit: 100, fields: ["number", "title", "client"] });
    return yes(jobs.map((j) => ({ number: j.number, title: j.title, client: j.client })));
  },
});

export const partType = query({
  name: "shelf.entry",
  input: z.object({ id: TypeId }),
  run: async (em, { id }): Promise<Result<ShelfEntry>> => found(await shelfEntry(em, id), `part type ${id}`),
});

export const shelfAsFile = query({
  name: "shelf.file",
  input: z.object({ as: z.enum(["csv", "json"]), text: line(80), kind: line(30).optional() }),
  run: async (em, { as, text, kind }) => yes(await shelfFile(em, as, text, kind || undefined)),
});

export const wiringAsFile = query({
  name: "wiring.file",
  input: z.object({
    number: JobNumber,
    as: z.enum(Object.keys(WIRING_FILES) as [WiringFile, ...WiringFile[]]),
    side: z.enum(["front", "behind"]).default("front"),
    /** What hands have plugged, not what is planned. */
    built: z.boolean().default(false),
  }),
  run: async (em, { number, as, side, built }): Promise<Result<string | Buffer>> =>
    found(await wiringFile(em, number, as, side, built), `such file of ${number}`),
});

export const runSheetAsFile = query({
  name: "order.file",
  input: OfJob,
  run: async (em, { number }): Promise<Result<Buffer>> => found(await runSheet(em, number), `job ${number}`),
});

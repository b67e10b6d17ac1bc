import { z } from "zod";
import { type EntityManager, Job, JobPart } from "../../db";
import { query } from "../kernel/action";
import { yes } from "../kernel/result";
import { line } from "../kernel/text";

export interface FoundJob {
  number: string;
  title: string;
  client: string;
  because: string;
}

/** Jobs by number, client, title or a serial that is built in. */
export async function findJobs(em: EntityManager, words: string): Promise<FoundJob[]> {
  const like = `%${words.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
  const jobs = await em.find(
    Job,
    { $or: [{ number: { $ilike: like } }, { client: { $ilike: like } }, { title: { $ilike: like } }] },
    { limit: 20, orderBy: { number: "asc" } },
  );
  const serials = await em.find(JobPart, { serial: { $ilike: like } }, { limit: 20, populate: ["job"] });
  return [
    ...jobs.map((j) => ({ number: j.number, title: j.title, client: j.client, because: "" })),
    ...serials.map((s) => ({ number: s.job.number, title: s.job.title, client: s.job.client, because: `serial ${s.serial ?? ""}` })),
  ];
}

export const find = query({
  name: "job.find",
  input: z.object({ text: line(80).refine((s) => s.length > 0, "type something") }),
  run: async (em, v) => yes(await findJobs(em, v.text)),
});

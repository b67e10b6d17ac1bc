import "server-only";
import { entityManager } from "../../db";
import { allJobs, type JobsPage } from "./benches";

/** A page of all jobs; what was asked for in an address and cannot be is an empty page. */
export async function jobsPage(text: string, stage: string, page: number): Promise<JobsPage> {
  const input = allJobs.input.safeParse({ text, stage, page });
  if (!input.success) return { jobs: [], page: 1, more: false };
  const r = await allJobs.carryOut(await entityManager(), { id: "", name: "", role: "" }, input.data);
  return r.ok ? r.value : { jobs: [], page: 1, more: false };
}

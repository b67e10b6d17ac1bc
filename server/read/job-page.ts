import "server-only";
import { notFound } from "next/navigation";
import { cache } from "react";
import { entityManager, Job } from "../../db";
import { receiptView } from "../receipt/receipt-view";
import { findJob } from "./build-of-job";
import { correctedSince, type OldEntry } from "./corrected-since";
import type { JobView } from "./job-view";
import { keptView } from "./kept";

/** One view a request, shared by the frame and the stage. */
export const jobPage = cache(async (number: string): Promise<JobView> => {
  const view = await keptView(await entityManager(), decodeURIComponent(number));
  if (!view) notFound();
  return view;
});

/** What only the Parts screen wants: lines kept aside at intake, part types corrected since. */
export async function partsExtras(number: string): Promise<{ aside: string[]; corrected: OldEntry[] }> {
  const em = await entityManager();
  const job = await findJob(em, decodeURIComponent(number));
  if (!job) notFound();
  return { aside: job.aside, corrected: await correctedSince(em, job.id) };
}

export async function receiptPage(number: string): Promise<NonNullable<Awaited<ReturnType<typeof receiptView>>>> {
  const view = await receiptView(await entityManager(), decodeURIComponent(number));
  if (!view) notFound();
  return view;
}

/** Jobs that a new one can be copied from, newest first. */
export async function earlierJobs(): Promise<{ number: string; title: string; client: string }[]> {
  const em = await entityManager();
  const jobs = await em.find(Job, {}, { orderBy: { createdAt: "desc" }, limit: 100, fields: ["number", "title", "client"] });
  return jobs.map((j) => ({ number: j.number, title: j.title, client: j.client }));
}

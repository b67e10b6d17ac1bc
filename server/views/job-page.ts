import "server-only";
import { notFound } from "next/navigation";
import { cache } from "react";
import type { Language } from "../../paper/said";
import { paper } from "../documents/paper-asked";
import type { PaperKind } from "../documents/papers";
import { soakLogs } from "../first-boot/soak-log";
import { clientPageAt } from "../handover/client-page";
import { scanned } from "../job/find";
import { simulatedStands } from "../machine/simulated";
import { see } from "../unit/door";
import { type BenchesData, benchesSlice, type JobData, type JobSliceName, jobSlice } from "./data";
import type { Had } from "./had";
import type { JobView } from "./job-view";
import * as questions from "./questions";

/** A part of an address as it was meant. */
const meant = (part: string) => {
  try {
    return decodeURIComponent(part);
  } catch {
    return part;
  }
};

/** What was asked for, or the page that says that there is nothing. */
async function orNotFound<T>(asked: Promise<T | undefined>): Promise<T> {
  const value = await asked;
  if (value === undefined) notFound();
  return value;
}

/** One view a request, shared by the frame and the stage. */
export const jobPage = cache((number: string): Promise<JobView> => orNotFound(see(questions.job, { number: meant(number) })));

/** What is to blame for each open fault of a job. */
export const diagnosesPage = async (number: string) => (await see(questions.diagnoses, { number: meant(number) })) ?? {};

export const simulatedStandsPage = async (number: string) => (await see(simulatedStands, { number: meant(number) })) ?? false;

/** A slice of a job as its page brings it the first time. */
export async function jobData<N extends JobSliceName>(number: string, slice: N): Promise<Had<JobData<N>>> {
  return (await orNotFound(see(jobSlice, { number: meant(number), slice }))) as Had<JobData<N>>;
}
export const benchesData = async (): Promise<Had<BenchesData>> => (await orNotFound(see(benchesSlice, {}))) as Had<BenchesData>;

export const receiptPage = (number: string) => orNotFound(see(questions.receipt, { number: meant(number) }));
export const soaksPage = async (number: string) => (await see(soakLogs, { number: meant(number) })) ?? [];
export const readyPage = (number: string) => orNotFound(see(questions.ready, { number: meant(number) }));
export const paperPage = (number: string, kind: PaperKind, language: Language) => orNotFound(see(paper, { number: meant(number), kind, language }));
export const scannedPage = async (code: string) => (await see(scanned, { code }))?.href;
/** Null: it is off. Undefined: not for them. */
export const clientPagePath = (number: string) => see(clientPageAt, { number: meant(number) });
export const isPlanning = async (number: string) => (await see(questions.planning, { number })) ?? false;
export const earlierJobs = async () => (await see(questions.earlierJobs, {})) ?? [];
export const partTypePage = (id: string) => orNotFound(see(questions.partType, { id: meant(id) }));

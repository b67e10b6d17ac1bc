import "server-only";
import { search } from "../shelf/search";
import { see } from "../unit/door";
import { allJobs, type JobsPage } from "./benches";

/** A page of all jobs; what was asked for in an address and cannot be is an empty page. */
export const jobsPage = async (text: string, stage: string, page: number): Promise<JobsPage> =>
  (await see(allJobs, { text, stage, page })) ?? { jobs: [], page: 1, more: false };

/** The shelf narrowed by words and kind. */
export const shelfPage = async (text: string, kind: string) => (await see(search, { text, ...(kind ? { kind } : {}) })) ?? { rows: [], more: false };

import "server-only";
import { type ShelfOrder, search } from "../shelf/search";
import { see } from "../unit/door";
import { allJobs, type JobsPage } from "./benches";

/** A page of all jobs; what was asked for in an address and cannot be is an empty page. */
export const jobsPage = async (text: string, stage: string, page: number): Promise<JobsPage> =>
  (await see(allJobs, { text, stage, page })) ?? { jobs: [], page: 1, more: false };

/** A page of the shelf, narrowed by words and kind, or only what is provisional. */
export const shelfPage = async (text: string, kind: string, order: ShelfOrder, page: number, provisional: boolean) =>
  (await see(search, { text, ...(kind ? { kind } : {}), order, page, provisional })) ?? { rows: [], more: false, total: 0 };

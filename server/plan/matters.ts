import { z } from "zod";
import type { Matters } from "../../core/matters";
import { buildOfJob, findJob } from "../build/build-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { query } from "../unit/action";
import { mattersInThread } from "./plan-thread";

/** Which values that are only assumed of a job's parts decide anything. Nothing is stored. */
export const mattersHere = query({
  name: "parts.matters",
  input: z.object({ number: JobNumber, listOnly: z.boolean().default(false) }),
  run: async (em, { number, listOnly }): Promise<Result<Matters>> => {
    const job = await findJob(em, number);
    if (!job) return no(`There is no job ${number}.`);
    const { build } = await buildOfJob(em, job);
    try {
      return yes(await mattersInThread({ ...build, connections: [], done: [] }, listOnly));
    } catch (e) {
      return no(`What matters could not be worked out: ${e instanceof Error ? e.message : String(e)}. Nothing was changed. Try again.`);
    }
  },
});

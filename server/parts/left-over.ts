import { z } from "zod";
import { orderList } from "../../core/intake";
import { buildOfJob, findJob } from "../build/build-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { query } from "../unit/action";
import { factsOfJob } from "./facts";

/** Something that came in the box of a part and is not in the machine. */
export interface LeftOver {
  what: string;
  /** The part that it came with. */
  with: string;
}

/** What came along with the parts of a job and is not used: said so at receipt, or ticked for the order list that no longer wants it. */
export const leftOver = query({
  name: "parts.left-over",
  input: z.object({ number: JobNumber }),
  run: async (em, { number }): Promise<Result<LeftOver[]>> => {
    const job = await findJob(em, number);
    if (!job) return no(`There is no job ${number}.`);
    const [{ build, graph, types }, facts] = [await buildOfJob(em, job), await factsOfJob(em, job.id)];
    const wanted = new Set(orderList(graph).map((i) => i.id));
    return yes(
      build.parts.flatMap((p) => {
        const of = p.label ?? types(p.type)?.name ?? p.id;
        const { along = [], came = [] } = facts[p.id] ?? {};
        return [...along, ...came.filter((c) => c.what !== "" && !wanted.has(c.id)).map((c) => c.what)].map((what) => ({ what, with: of }));
      }),
    );
  },
});

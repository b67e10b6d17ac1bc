import { z } from "zod";
import { orderList } from "../../core/intake";
import { asCsv, purchases } from "../../core/offer";
import { buildOfJob, findJob } from "../build/build-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { boughtOf } from "../parts/bought";
import { factsOfJob } from "../parts/facts";
import { query } from "../unit/action";
import { offerPdf } from "./offer-pdf";

const OfJob = z.object({ number: JobNumber });

export const offerAsFile = query({
  name: "job.offer-file",
  input: OfJob,
  run: async (em, { number }): Promise<Result<Buffer>> => {
    const pdf = await offerPdf(em, number);
    return pdf ? yes(pdf) : no(`There is no job ${number}.`);
  },
});

/** What is still to be bought, supplier by supplier, as a table. */
export const purchasesAsFile = query({
  name: "parts.order-file",
  input: OfJob,
  run: async (em, { number }): Promise<Result<string>> => {
    const job = await findJob(em, number);
    if (!job) return no(`There is no job ${number}.`);
    const came = new Set(Object.values(await factsOfJob(em, job.id)).flatMap((f) => f.came.map((c) => c.id)));
    const { build, graph, types } = await buildOfJob(em, job);
    return yes(
      asCsv(
        purchases(build, types, await boughtOf(em, job.id)),
        orderList(graph).filter((i) => !came.has(i.id)),
      ),
    );
  },
});

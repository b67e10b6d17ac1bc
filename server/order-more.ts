import { z } from "zod";
import { freshId } from "../core/plan";
import { type EntityManager, JobPart, layPart, ShelfType, type TechnicianRow } from "../db";
import { entryOf } from "./build-of-job";
import { log } from "./log";
import { done, no, type Result } from "./result";
import { withJob } from "./work";

export const OrderMore = z.object({
  number: z.string().min(1).max(40),
  items: z
    .array(z.strictObject({ type: z.string().min(1).max(80), count: z.number().int().min(1).max(12) }))
    .min(1)
    .max(12),
});

const MOST_PARTS = 200;

/** Puts accessories on the job's order list, so that the next plan may use them. */
export async function orderMore(em: EntityManager, by: TechnicianRow, o: z.infer<typeof OrderMore>): Promise<Result> {
  return withJob(em, o, async (tx, job, b) => {
    const keys = new Set(b.build.parts.map((p) => p.id));
    if (keys.size + o.items.reduce((s, i) => s + i.count, 0) > MOST_PARTS) return no(`A job has at most ${MOST_PARTS} parts. Nothing was ordered.`);
    let position = await tx.count(JobPart, { job: job.id });
    const said: string[] = [];
    for (const { type, count } of o.items) {
      const row = await tx.findOne(ShelfType, { id: type });
      if (!row || !b.build.accessories.some((a) => a.type === type))
        return no(`The shelf has no accessory "${type}" any more. Nothing was ordered. Plan again.`);
      const entry = entryOf(row.body);
      for (let n = 0; n < count; n++) {
        layPart(tx, job, { id: freshId(type, keys), type, from: "order" }, entry, ++position);
      }
      said.push(`${count} × ${entry.name}`);
    }
    log(tx, job, by, "part", `On the order list for the wiring: ${said.join(", ")}.`);
    return done();
  });
}

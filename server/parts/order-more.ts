import { z } from "zod";
import { freshId } from "../../core/plan";
import { JobPart, layPart, ShelfType } from "../../db";
import { MOST_PARTS } from "../build/join";
import { entryOf } from "../build/parts-of-job";
import { done, no } from "../kernel/result";
import { JobNumber, TypeId } from "../kernel/text";
import { jobAction } from "../unit/action";

export const OrderMore = z.object({
  number: JobNumber,
  items: z
    .array(z.strictObject({ type: TypeId, count: z.number().int().min(1).max(12) }))
    .min(1)
    .max(12),
});

/** Puts accessories on the job's order list, so that the next plan may use them. */
export const orderMore = jobAction({
  name: "parts.order-more",
  permission: "plan",
  input: OrderMore,
  run: async (unit, o) => {
    const { build } = await unit.build();
    const keys = new Set(build.parts.map((p) => p.id));
    if (keys.size + o.items.reduce((s, i) => s + i.count, 0) > MOST_PARTS) return no(`A job has at most ${MOST_PARTS} parts. Nothing was ordered.`);
    let position = await unit.tx.count(JobPart, { job: unit.job.id });
    const items: { name: string; count: number }[] = [];
    for (const { type, count } of o.items) {
      const row = await unit.tx.findOne(ShelfType, { id: type });
      if (!row || !build.accessories.some((a) => a.type === type))
        return no(`The shelf has no accessory "${type}" any more. Nothing was ordered. Plan again.`);
      const entry = entryOf(row.body);
      for (let n = 0; n < count; n++) layPart(unit.tx, unit.job, { id: freshId(type, keys), type, from: "order" }, entry, ++position);
      items.push({ name: entry.name, count });
    }
    unit.emit("accessories-ordered", { items });
    return done();
  },
});

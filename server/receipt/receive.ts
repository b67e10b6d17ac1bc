import { z } from "zod";
import { JobPart } from "../../db";
import { jobAction } from "../kernel/action";
import { done, no } from "../kernel/result";
import { JobNumber, line, PartKey } from "../kernel/text";
import { findPart } from "../parts/find-part";

export const Receive = z.object({
  number: JobNumber,
  part: PartKey,
  serial: line(80).optional(),
  supplier: line(120).optional(),
  warrantyUntil: z.iso.date().nullable().optional(),
  price: z.number().min(0).max(1_000_000).nullable().optional(),
});

/** A part has arrived: its serial by scanner or hand, who sold it, until when it is covered. */
export const receive = jobAction({
  name: "receipt.receive",
  permission: "record",
  input: Receive,
  run: async (unit, r) => {
    const found = await findPart(unit, r.part);
    if (!found.ok) return found;
    const { row, name } = found;
    if (r.serial) {
      const other = await unit.tx.findOne(JobPart, { serial: r.serial, id: { $ne: row.id } }, { populate: ["job"] });
      if (other)
        return no(
          `Serial ${r.serial} is already on ${other.label ?? other.key} of ${other.job.number}. Nothing was changed. Look at the label again.`,
        );
    }
    Object.assign(row, {
      arrivedAt: row.arrivedAt ?? unit.when.happened,
      ...(r.serial === undefined ? {} : { serial: r.serial || null }),
      ...(r.supplier === undefined ? {} : { supplier: r.supplier || null }),
      ...(r.warrantyUntil === undefined ? {} : { warrantyUntil: r.warrantyUntil }),
      ...(r.price === undefined ? {} : { priceCents: r.price === null ? null : Math.round(r.price * 100) }),
    });
    unit.emit("received", {
      part: r.part,
      name,
      ...(r.serial ? { serial: r.serial } : {}),
      ...(r.supplier ? { supplier: r.supplier } : {}),
      ...(r.warrantyUntil ? { warrantyUntil: r.warrantyUntil } : {}),
      ...(typeof r.price === "number" ? { price: r.price } : {}),
    });
    return done();
  },
});

import { z } from "zod";
import { serialTaken } from "../build/serial";
import { done, no } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { Day, day, JobNumber, line, PartKey } from "../kernel/text";
import { findPart } from "../parts/find-part";
import { jobAction } from "../unit/action";

export const Receive = z.object({
  number: JobNumber,
  part: PartKey,
  serial: line(80).optional(),
  supplier: line(120).optional(),
  warrantyUntil: Day.nullable().optional(),
  price: z.number().min(0).max(1_000_000).nullable().optional(),
  saw: Saw,
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
    const two = seenOtherwise(r.saw, [
      { field: "serial", word: `the serial of ${name}`, is: row.serial ?? null, now: r.serial },
      { field: "supplier", word: `the supplier of ${name}`, is: row.supplier ?? null, now: r.supplier },
      { field: "warrantyUntil", word: `how long ${name} is covered`, is: day(row.warrantyUntil), now: r.warrantyUntil },
      {
        field: "price",
        word: `the price of ${name}`,
        is: row.priceCents === null || row.priceCents === undefined ? null : row.priceCents / 100,
        now: r.price,
      },
    ]);
    if (two) return two;
    const taken = r.serial ? await serialTaken(unit.tx, [r.serial], row.id) : undefined;
    if (taken) return no(`${taken}. Nothing was changed. Look at the label again.`);
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

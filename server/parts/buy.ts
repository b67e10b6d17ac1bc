import { z } from "zod";
import { done, type Result } from "../kernel/result";
import { Day, JobNumber, line, PartKey } from "../kernel/text";
import { jobAction } from "../unit/action";
import { findPart } from "./find-part";

export const Buy = z.object({
  number: JobNumber,
  /** Equal parts, as one line of the list. */
  parts: z.array(PartKey).min(1).max(60),
  price: z.number().min(0).max(1_000_000).nullable().optional(),
  /** Where the price was read, and when. */
  priceFrom: line(120).optional(),
  priceOn: Day.nullable().optional(),
  supplier: line(120).optional(),
  /** How soon it can be had, in the supplier's words. */
  availability: line(80).optional(),
  orderedOn: Day.nullable().optional(),
  expectedOn: Day.nullable().optional(),
});

/** What parts of a list cost and where they come from: price with its day and source, supplier, ordered when, expected when. What is left out stays. */
export const buy = jobAction({
  name: "parts.buy",
  permission: "change parts",
  input: Buy,
  run: async (unit, b): Promise<Result> => {
    const names: string[] = [];
    for (const key of b.parts) {
      const found = await findPart(unit, key);
      if (!found.ok) return found;
      Object.assign(found.row, {
        ...(b.price === undefined ? {} : { priceCents: b.price === null ? null : Math.round(b.price * 100) }),
        ...(b.priceFrom === undefined ? {} : { priceFrom: b.priceFrom || null }),
        ...(b.priceOn === undefined ? {} : { priceOn: b.priceOn }),
        ...(b.supplier === undefined ? {} : { supplier: b.supplier || null }),
        ...(b.availability === undefined ? {} : { availability: b.availability || null }),
        ...(b.orderedOn === undefined ? {} : { orderedOn: b.orderedOn }),
        ...(b.expectedOn === undefined ? {} : { expectedOn: b.expectedOn }),
      });
      if (!names.includes(found.name)) names.push(found.name);
    }
    unit.emit("bought", {
      names,
      count: b.parts.length,
      ...(typeof b.price === "number" ? { price: b.price } : {}),
      ...(b.supplier ? { supplier: b.supplier } : {}),
      ...(b.orderedOn ? { orderedOn: b.orderedOn } : {}),
      ...(b.expectedOn ? { expectedOn: b.expectedOn } : {}),
    });
    return done();
  },
});

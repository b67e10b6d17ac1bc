import { z } from "zod";
import { LockMode, ShelfType } from "../../db";
import { shopAction } from "../kernel/action";
import { done, no } from "../kernel/result";
import { TypeId } from "../kernel/text";

export const StockChange = z.object({
  type: TypeId,
  stock: z.number().int().min(0).max(9999).optional(),
  spares: z.number().int().min(0).max(999).optional(),
});

/** How many are in stock, and how many are kept as known-good spares for testing. */
export const setStock = shopAction({
  name: "shelf.stock",
  permission: "keep the shelf",
  input: StockChange,
  run: async (unit, s) => {
    if (s.stock === undefined && s.spares === undefined) return no("No count was given. Nothing was changed.");
    const row = await unit.tx.findOne(ShelfType, { id: s.type }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (!row) return no(`The shelf has no part type ${s.type}. Nothing was changed.`);
    if (s.stock !== undefined) row.stock = s.stock;
    if (s.spares !== undefined) row.spares = s.spares;
    return done();
  },
});

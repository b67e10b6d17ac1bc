import { z } from "zod";
import { LockMode, ShelfType } from "../../db";
import { done, no } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { TypeId } from "../kernel/text";
import { shopAction } from "../unit/action";

export const StockChange = z.object({
  type: TypeId,
  stock: z.number().int().min(0).max(9999).optional(),
  spares: z.number().int().min(0).max(999).optional(),
  saw: Saw,
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
    const two = seenOtherwise(s.saw, [
      { field: "stock", word: "how many are in stock", is: row.stock, now: s.stock },
      { field: "spares", word: "how many are kept as spares", is: row.spares, now: s.spares },
    ]);
    if (two) return two;
    if (s.stock !== undefined) row.stock = s.stock;
    if (s.spares !== undefined) row.spares = s.spares;
    return done();
  },
});

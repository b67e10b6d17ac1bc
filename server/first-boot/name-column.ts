import { z } from "zod";
import type { NamedColumns } from "../../core/soak";
import { type EntityManager, Shop } from "../../db";
import { no, type Result, yes } from "../kernel/result";
import { line } from "../kernel/text";
import { shopAction } from "../unit/action";
import { COLUMN_PARTS } from "./column-parts";

/** A shop's logging tools have so many columns between them. */
const MOST_NAMED = 200;
const Named = z.record(z.string(), z.enum(COLUMN_PARTS));

/** What hands said once of which part a log's column is: by the column's name, for all logs of the shop. */
export async function namedColumns(em: EntityManager): Promise<NamedColumns> {
  const shop = await em.findOne(Shop, { id: 1 });
  return Named.safeParse(shop?.logColumns ?? {}).data ?? {};
}

export const nameColumn = shopAction({
  name: "boot.name-column",
  permission: "record",
  input: z.object({ column: line(120).refine((s) => s.length > 0, "is missing"), part: z.enum(COLUMN_PARTS) }),
  run: async (unit, { column, part }): Promise<Result<NamedColumns>> => {
    const shop = await unit.tx.findOneOrFail(Shop, { id: 1 });
    const now = { ...(await namedColumns(unit.tx)), [column]: part };
    if (Object.keys(now).length > MOST_NAMED) return no(`${MOST_NAMED} columns are named already. Nothing was changed.`);
    shop.logColumns = now;
    return yes(now);
  },
});

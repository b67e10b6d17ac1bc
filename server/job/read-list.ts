import { z } from "zod";
import type { PartType } from "../../core/catalogue";
import { type ListRow, matchRows } from "../../core/intake";
import { MOST_ROWS } from "../../core/table";
import { type EntityManager, ShelfType } from "../../db";
import { query } from "../kernel/action";
import { type Result, yes } from "../kernel/result";
import { line } from "../kernel/text";

const Row = z.object({
  line: z.number().int().min(1),
  text: line(200).refine((s) => s.length > 0, "is empty"),
  count: z.number().int().min(0).max(99),
  serial: line(80).optional(),
});
const Rows = z.array(Row).max(MOST_ROWS, `at most ${MOST_ROWS} rows; split the list`);

async function shelfTypes(em: EntityManager): Promise<PartType[]> {
  const rows = await em.createQueryBuilder(ShelfType).select(["body"]).limit(20_000).execute<{ body: PartType }[]>("all");
  return rows.map((r) => r.body);
}

export interface ListAnswer {
  matched: { line: number; text: string; count: number; serial?: string; type: string; name: string; kind: string }[];
  aside: { line: number; text: string; count: number; serial?: string; because: string; near: { id: string; name: string }[] }[];
}

export const ReadRows = z.object({ rows: Rows });

/** Rows of a list against the shelf: what was understood, and what is kept aside with what comes near. */
export const readRows = query({
  name: "job.read-list",
  input: ReadRows,
  run: async (em, r): Promise<Result<ListAnswer>> => {
    const read = matchRows(r.rows as ListRow[], await shelfTypes(em));
    return yes({
      matched: read.matched.map((m) => ({
        line: m.row.line,
        text: m.row.text,
        count: m.row.count,
        ...(m.row.serial ? { serial: m.row.serial } : {}),
        type: m.type.id,
        name: m.type.name,
        kind: m.type.kind,
      })),
      aside: read.aside.map((a) => ({
        line: a.row.line,
        text: a.row.text,
        count: a.row.count,
        ...(a.row.serial ? { serial: a.row.serial } : {}),
        because: a.because,
        near: a.near,
      })),
    });
  },
});

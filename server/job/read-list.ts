import { z } from "zod";
import type { ListRow } from "../../core/intake";
import { MOST_ROWS } from "../../core/table";
import { no, type Result, yes } from "../kernel/result";
import { line } from "../kernel/text";
import { query } from "../unit/action";
import { readListBeside } from "./list-thread";

const Row = z.object({
  line: z.number().int().min(1),
  text: line(200).refine((s) => s.length > 0, "is empty"),
  count: z.number().int().min(0).max(99),
  serial: line(80).optional(),
});
const Rows = z.array(Row).max(MOST_ROWS, `at most ${MOST_ROWS} rows; split the list`);

export interface ListAnswer {
  matched: { line: number; text: string; count: number; serial?: string; type: string; name: string; kind: string }[];
  aside: { line: number; text: string; count: number; serial?: string; because: string; near: { id: string; name: string }[] }[];
}

export const ReadRows = z.object({ rows: Rows });

/** Rows of a list against the shelf: what was understood, and what is kept aside with what comes near. */
export const readRows = query({
  name: "job.read-list",
  input: ReadRows,
  run: async (_em, r): Promise<Result<ListAnswer>> => {
    const read = await readListBeside(r.rows as ListRow[]);
    if (!read) return { ...no("Many lists are read at this moment. Nothing was changed. Try again."), later: "again" };
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

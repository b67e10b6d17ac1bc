import { z } from "zod";
import { entityManager } from "../../db";

/** A transaction of the database, as a page carries it. */
const Mark = z.string().regex(/^\d{1,19}$/);

/**
 * How far a page has seen everything: what a transaction of this number or a later one wrote may be missing on it. Asked before anything
 * else of the page is. Empty where the database does not answer.
 */
export async function newsMark(): Promise<string> {
  try {
    const [row] = await (await entityManager()).execute<{ mark: string }[]>(`select pg_snapshot_xmin(pg_current_snapshot())::text as "mark"`);
    return row?.mark ?? "";
  } catch {
    return "";
  }
}

/** Rows of a table that were written since, by the 32 bits that a row keeps of its transaction. */
const written = (table: string, which = "true") => `exists(select from "${table}" where ${which} and xmin::text::bigint >= (?::bigint & 4294967295))`;

/** May a page miss something that was written since its mark, of one job or of all? One without a mark that can be read may. */
export async function changedSince(mark: string, job?: string): Promise<boolean> {
  if (!Mark.safeParse(mark).success) return true;
  const em = await entityManager();
  const [row] = job
    ? await em.execute<{ changed: boolean }[]>(`select ${written("job", '"number" = ?')} or ${written("shop")} as "changed"`, [job, mark, mark])
    : await em.execute<{ changed: boolean }[]>(`select ${written("job")} or ${written("job_head")} or ${written("shop")} as "changed"`, [
        mark,
        mark,
        mark,
      ]);
  return row?.changed === true;
}

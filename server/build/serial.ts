import { type EntityManager, JobPart } from "../../db";

/**
 * Where a serial is already, in a sentence's middle; nothing where it is free. Capitals make no other serial. Whoever asks holds the
 * serial until the end of the transaction, so that of two at the same moment one is told.
 */
export async function serialTaken(tx: EntityManager, serials: readonly string[], except?: string): Promise<string | undefined> {
  // In one order, so that two who ask for several never wait for each other.
  const all = [...new Set(serials.map((s) => s.toLowerCase()))].sort();
  if (all.length === 0) return undefined;
  for (const s of all) await tx.execute(`select pg_advisory_xact_lock(hashtextextended('serial ' || ?, 0))`, [s]);
  const [row] = await tx.execute<{ id: string }[]>(
    `select "id" from "job_part" where lower("serial") in (${all.map(() => "?").join()}) and "id" is distinct from ?::uuid limit 1`,
    [...all, except ?? null],
  );
  const other = row && (await tx.findOne(JobPart, { id: row.id }, { populate: ["job"] }));
  return other ? `Serial ${other.serial} is already on ${other.label ?? other.key} of ${other.job.number}` : undefined;
}

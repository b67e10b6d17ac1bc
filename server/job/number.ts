import type { EntityManager } from "../../db";

/** The next free number. Two people at once wait for each other until the transaction ends. */
export async function nextNumber(em: EntityManager): Promise<string> {
  await em.execute("select pg_advisory_xact_lock(1041)");
  const [last] = await em.execute<{ n: number | null }[]>(`select max(substring(number from '^FS-([0-9]{1,9})$')::int) as n from job`);
  return `FS-${(last?.n ?? 1040) + 1}`;
}

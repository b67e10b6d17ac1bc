import type { EntityManager } from "./orm";

// All that reaches through the ORM into its query builder: another one is a change of this file.

/** For packages that bring statements of their own. */
export const queryBuilderOf = (em: EntityManager): unknown => em.getConnection().getKnex();

/**
 * One statement that each connection plans once, for what is asked of the database many times a second; `?` stands for a value. It names
 * its columns: one that gives `*` fails after a migration until its connection ends. `name` belongs to this text alone.
 */
export async function prepared<T>(em: EntityManager, name: string, sql: string, values: readonly unknown[]): Promise<T[]> {
  const connection = em.getConnection();
  await connection.ensureConnection();
  const query = connection
    .getKnex()
    .raw(sql, values as never)
    .options({ name });
  const tx = em.getTransactionContext();
  if (tx) query.transacting(tx);
  try {
    const { rows } = (await query) as { rows: T[] };
    return rows;
  } catch (e) {
    throw em.getDriver().convertException(e as Error);
  }
}

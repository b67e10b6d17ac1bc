import type { EntityManager } from "./orm";

/** Columns of one of our own tables, in their order: what a row of it may have, whatever a file says. */
export async function columnsOf(em: EntityManager, table: string): Promise<string[]> {
  const rows = await em.execute<{ name: string }[]>(
    `select "column_name" as "name" from information_schema.columns where "table_schema" = 'public' and "table_name" = ? order by "ordinal_position"`,
    [table],
  );
  return rows.map((r) => r.name);
}

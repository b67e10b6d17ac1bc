import type { EntityManager } from "../../db";

/** Nobody can sign in as a lead yet: the shop waits for its first. */
export async function wantsFirstLead(em: EntityManager): Promise<boolean> {
  const [row] = await em.execute<{ n: number }[]>(
    `select count(*)::int as n from "person" p join "credential" c on c."person_id" = p."id" where p."role" = 'lead' and p."active" and c."password_hash" is not null`,
  );
  return row?.n === 0;
}

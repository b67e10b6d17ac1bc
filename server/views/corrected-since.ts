import type { EntityManager } from "../../db";

export interface OldEntry {
  part: string;
  name: string;
  had: number;
  now: number;
}

/** Parts of a job whose type was corrected after they joined. */
export async function correctedSince(em: EntityManager, jobId: string): Promise<OldEntry[]> {
  return em.execute<OldEntry[]>(
    `select p."key" as "part", s."name" as "name", p."type_revision" as "had", s."revision" as "now" from "job_part" p join "shelf_type" s on s."id" = p."type" where p."job_id" = ? and s."revision" > p."type_revision" order by p."position" limit 200`,
    [jobId],
  );
}

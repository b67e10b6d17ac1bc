import { type EntityManager, type JobRow, LogEntry, type TechnicianRow } from "../db";

/** One entry of the append-only log. Call inside the transaction of what it tells about. */
export function log(
  em: EntityManager,
  job: JobRow,
  by: TechnicianRow,
  kind: string,
  text: string,
  more: { planRevision?: number; entryKey?: string; data?: unknown } = {},
): void {
  em.create(LogEntry, {
    job,
    by,
    kind,
    text,
    planRevision: more.planRevision ?? null,
    entryKey: more.entryKey ?? null,
    data: more.data ?? null,
    at: new Date(),
  });
}

/** Has this entry been kept already? Benches send again when they are not sure. */
export async function alreadyKept(em: EntityManager, entryKey: string | undefined): Promise<boolean> {
  return entryKey !== undefined && (await em.count(LogEntry, { entryKey })) > 0;
}

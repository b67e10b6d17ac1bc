import { type EntityManager, JobPart, PartReturn } from "../../db";
import type { PartRow } from "../parts/find-part";
import type { JobUnit } from "../unit/unit";

/** Why a part goes back to whom it came from. */
export const RETURNED = ["dead", "damaged", "wrong", "exchanged"] as const;
export type Returned = (typeof RETURNED)[number];

/** A part goes back: what, why, since when, to whom. One that is on its way already is no second one. */
export async function sendBack(unit: JobUnit, row: PartRow, name: string, { why, words }: { why: Returned; words: string }): Promise<void> {
  const open = await unit.tx.findOne(PartReturn, { job: unit.job.id, part: row.key, closedAt: null });
  if (open) {
    Object.assign(open, { why, words: words || open.words });
    return;
  }
  unit.tx.create(PartReturn, {
    job: unit.job,
    part: row.key,
    name,
    serial: row.serial ?? null,
    why,
    words,
    toWhom: row.supplier ?? null,
    since: unit.when.happened,
    closedAt: null,
    by: unit.by,
  });
}

/** Its replacement is here. How many were on their way back. */
export async function closeReturns(unit: JobUnit, part: string): Promise<number> {
  const open = await unit.tx.find(PartReturn, { job: unit.job.id, part, closedAt: null }, { limit: 20 });
  for (const r of open) r.closedAt = unit.when.happened;
  return open.length;
}

export interface OnItsWay {
  part: string;
  why: Returned;
  since: string;
  toWhom: string | null;
  words: string;
}

/** Parts of a job that went back and of which no replacement is here, the latest of each. */
export async function onTheirWay(em: EntityManager, jobId: string): Promise<OnItsWay[]> {
  const rows = await em.find(PartReturn, { job: jobId, closedAt: null }, { orderBy: { since: "asc" }, limit: 250 });
  // What was exchanged for another is there: only the old piece is away.
  return rows.flatMap((r) =>
    r.why === "exchanged" ? [] : [{ part: r.part, why: r.why as Returned, since: r.since.toISOString(), toWhom: r.toWhom ?? null, words: r.words }],
  );
}

/** The part, if any of these is dead or damaged and on its way back, and so cannot be fitted: how it is called. */
export async function awayOf(unit: JobUnit, parts: readonly string[]): Promise<string | undefined> {
  if (parts.length === 0) return undefined;
  const row = await unit.tx.findOne(PartReturn, { job: unit.job.id, part: { $in: [...new Set(parts)] }, closedAt: null, why: { $ne: "exchanged" } });
  if (!row) return undefined;
  const there = await unit.tx.count(JobPart, { job: unit.job.id, key: row.part });
  return there > 0 ? row.name : undefined;
}

import { z } from "zod";
import { StepSkipped, StepTime } from "../../db";
import type { JobUnit } from "../unit/unit";

/** Seconds that hands were at a step; a pause is not work, so longer than four hours is none. */
export const TookS = z.number().int().min(1).max(14_400);

export function keepTime(unit: JobUnit, step: string, measure: string, seconds: number): void {
  unit.tx.create(StepTime, { job: unit.job, step, measure, seconds, by: unit.by, at: unit.when.happened });
}

/** What is done is skipped no longer. */
export async function skippedNoMore(unit: JobUnit, step: string): Promise<void> {
  await unit.tx.nativeDelete(StepSkipped, { job: unit.job.id, step });
}

/** Left out for now, with the reason of the last who said so. */
export async function skip(unit: JobUnit, step: string, reason: string): Promise<void> {
  const row = await unit.tx.findOne(StepSkipped, { job: unit.job.id, step });
  if (row) Object.assign(row, { reason, at: unit.when.happened, by: unit.by });
  else unit.tx.create(StepSkipped, { job: unit.job, step, reason, by: unit.by, at: unit.when.happened });
}

import { JobPart } from "../../db";
import { no, type Refusal } from "../kernel/result";
import type { JobUnit } from "../unit/unit";

export type PartRow = NonNullable<Awaited<ReturnType<typeof row>>>;
const row = (unit: JobUnit, part: string) => unit.tx.findOne(JobPart, { job: unit.job.id, key: part });

/** A part of the job, and how it is called; or why there is none. */
export async function findPart(unit: JobUnit, part: string): Promise<{ ok: true; row: PartRow; name: string } | Refusal> {
  const found = await row(unit, part);
  if (!found) return no(`${unit.job.number} has no part ${part} any more. Nothing was changed.`);
  const { types } = await unit.build();
  return { ok: true, row: found, name: found.label ?? types(found.type)?.name ?? part };
}

/** Does an end of a connection belong to a part? */
export const isOf = (part: string) => (end: string) => end.startsWith(`${part}:`) || end.startsWith(`${part}/`);

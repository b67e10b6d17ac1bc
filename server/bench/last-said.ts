import type { JobUnit } from "../unit/unit";

/** A moment within a sentence, as ISO 8601: who shows the sentence writes it as the person's language and zone do. */
export const moment = (d: Date): string => d.toISOString();

/** Who said something of a lead or step last, and when: "Ebo Larkmoor, " and the moment. */
export async function lastSaid(unit: JobUnit, what: { lead: string } | { step: string }): Promise<string | undefined> {
  const [field, value] = "lead" in what ? ["lead", what.lead] : ["step", what.step];
  const [row] = await unit.tx.execute<{ name: string; at: Date | string }[]>(
    `select t."name", e."happened_at" as "at" from "log_entry" e join "person" t on t."id" = e."by_id"
     where e."job_id" = ? and e."kind" in ('plug', 'fixed', 'step') and e."data"->>? = ? order by e."id" desc limit 1`,
    [unit.job.id, field, value],
  );
  return row ? `${row.name}, ${moment(new Date(row.at))}` : undefined;
}

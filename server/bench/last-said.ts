import type { JobUnit } from "../kernel/unit";

/** Hours and minutes of the server's own clock. */
export const clock = (d: Date) => `${String(d.getHours()).padStart(2, "0")}:${String(d.getMinutes()).padStart(2, "0")}`;

/** Who said something of a lead or step last, and when: "Ebo Larkmoor, 14:02". */
export async function lastSaid(unit: JobUnit, what: { lead: string } | { step: string }): Promise<string | undefined> {
  const [field, value] = "lead" in what ? ["lead", what.lead] : ["step", what.step];
  const [row] = await unit.tx.execute<{ name: string; at: Date | string }[]>(
    `select t."name", e."happened_at" as "at" from "log_entry" e join "person" t on t."id" = e."by_id"
     where e."job_id" = ? and e."kind" in ('plug', 'fixed', 'step') and e."data"->>? = ? order by e."id" desc limit 1`,
    [unit.job.id, field, value],
  );
  return row ? `${row.name}, ${clock(new Date(row.at))}` : undefined;
}

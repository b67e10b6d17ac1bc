import { z } from "zod";
import type { JobEvent } from "../../core/job";
import { eventWords, isEventKind } from "../../core/job";
import { LogEntry } from "../../db";
import { jobAction } from "../kernel/action";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import type { JobUnit } from "../kernel/unit";
import { nameIt } from "../parts/change";
import { fixOne } from "../plan/fix";
import { plugIn } from "./plug";
import { markStep } from "./step";

/** Among so many of one's own entries the last that is not taken back yet is looked for. */
const MOST_BACK = 60;

/** The opposite of an event, done as an entry of its own; undefined where there is none. */
function opposite(unit: JobUnit, e: JobEvent): Promise<Result> | undefined {
  const { number } = unit.job;
  switch (e.kind) {
    case "plug": {
      const { lead, port, state } = e.data;
      // What was only checked goes back to plugged: it is in all the same.
      if (state === "checked") return plugIn(unit, { number, lead, port, state: "plugged", saw: { port, state: "checked" } });
      return plugIn(unit, { number, lead, port, state: state === "out" ? "plugged" : "planned" });
    }
    case "step":
      return markStep(unit, { number, step: e.data.step, done: !e.data.done });
    case "fixed":
      return fixOne(unit, { number, lead: e.data.lead, port: e.data.port, fixed: !e.data.fixed });
    case "part-named":
      return nameIt(unit, e.data.part, e.data.was);
    default:
      return undefined;
  }
}

/** Who else has said something of the same lead, step or part since an entry. */
async function saidSince(unit: JobUnit, id: number, data: object): Promise<string | undefined> {
  const field = (["lead", "step", "part"] as const).find((f) => f in data);
  if (!field) return undefined;
  const [row] = await unit.tx.execute<{ name: string }[]>(
    `select p."name" from "log_entry" e join "person" p on p."id" = e."by_id"
     where e."job_id" = ? and e."id" > ? and e."by_id" <> ? and e."data"->>? = ? order by e."id" desc limit 1`,
    [unit.job.id, id, unit.actor.id, field, (data as Record<string, string>)[field]],
  );
  return row?.name;
}

/** Takes back the last thing that this person did to a job, by a new entry: the one before stays in the log. */
export const takeBack = jobAction({
  name: "bench.take-back",
  permission: "record",
  input: z.object({ number: JobNumber }),
  run: async (unit): Promise<Result<string>> => {
    const mine = await unit.tx.find(LogEntry, { job: unit.job.id, by: unit.actor.id }, { orderBy: { id: "desc" }, limit: MOST_BACK });
    const back = new Set(mine.flatMap((e) => (e.data as { takesBack?: number } | null)?.takesBack ?? []));
    const last = mine.find((e) => !back.has(e.id) && (e.data as { takesBack?: number } | null)?.takesBack === undefined);
    if (!last?.data || !isEventKind(last.kind)) return no("You have done nothing to this job that can be taken back. Nothing was changed.");
    const event = { kind: last.kind, data: last.data } as JobEvent;
    const words = eventWords(event);
    const other = await saidSince(unit, last.id, event.data);
    if (other) return no(`${other} has said something of it since, so no key takes it back: ${words} Nothing was changed. Look first.`);
    unit.takesBack = last.id;
    const said = opposite(unit, event);
    if (!said) return no(`The last thing you did here is taken back on its own screen, not by a key: ${words} Nothing was changed.`);
    const r = await said;
    return r.ok ? yes(`Taken back: ${words}`) : r;
  },
});

import { z } from "zod";
import { PROMISE_KINDS } from "../../core/intake";
import { done, no, type Result } from "../kernel/result";
import { JobNumber, line } from "../kernel/text";
import { jobAction } from "../unit/action";
import { Brief } from "./brief";

export const ChangeBrief = z.object({
  number: JobNumber,
  phone: line(60).optional(),
  /** One promise more. */
  promise: z
    .object({
      about: z.enum(PROMISE_KINDS),
      words: line(300).refine((s) => s.length > 0, "say what is promised"),
      value: z.number().min(0).max(100_000).optional(),
    })
    .optional(),
  /** One that no longer holds, by its words. */
  drop: z.object({ about: z.enum(PROMISE_KINDS), words: line(500) }).optional(),
  due: z
    .object({
      hour: z
        .string()
        .regex(/^([01]\d|2[0-3]):[0-5]\d$/, "give an hour, such as 15:00")
        .nullable(),
      promised: z.boolean(),
    })
    .optional(),
});

const MOST_PROMISES = 60;

/** How the client is reached, when it is due and whether that is promised, and what is promised of the machine: who agreed, and when. */
export const changeBrief = jobAction({
  name: "job.brief",
  permission: "run jobs",
  input: ChangeBrief,
  run: async (unit, c): Promise<Result> => {
    const brief = Brief.parse(unit.job.brief);
    const told: string[] = [];
    if (c.phone !== undefined && c.phone !== brief.phone) {
      told.push(`the telephone ${c.phone === "" ? "taken out" : `is ${c.phone}`}`);
      brief.phone = c.phone;
    }
    if (c.due) {
      brief.duePromised = c.due.promised;
      if (c.due.hour === null) delete brief.dueHour;
      else brief.dueHour = c.due.hour;
      told.push(`due${c.due.hour ? ` at ${c.due.hour}` : ""}, ${c.due.promised ? "promised" : "wished"}`);
    }
    if (c.drop) {
      const { about, words } = c.drop;
      const left = brief.promises.filter((p) => !(p.about === about && p.words === words));
      if (left.length === brief.promises.length) return no("That line is not among what is promised any more. Nothing was changed. Look again.");
      brief.promises = left;
      told.push(`no longer promised: ${words}`);
    }
    if (c.promise) {
      if (brief.promises.length >= MOST_PROMISES) return no(`${MOST_PROMISES} lines are promised already. Nothing was changed.`);
      brief.promises = [...brief.promises, { ...c.promise, by: unit.actor.name, at: unit.when.happened.toISOString() }];
      told.push(`promised: ${c.promise.words}`);
    }
    if (told.length === 0) return done();
    const kept: Record<string, unknown> = Brief.parse(brief);
    unit.job.brief = kept;
    unit.emit("brief", { changes: told });
    return done();
  },
});

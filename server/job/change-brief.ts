import { z } from "zod";
import { EXTRA_KINDS, PROMISE_KINDS } from "../../core/intake";
import { done, no, type Result } from "../kernel/result";
import { JobNumber, line } from "../kernel/text";
import { jobAction } from "../unit/action";
import { Brief } from "./brief";
import { MailText } from "./read-mail";

export const ChangeBrief = z.object({
  number: JobNumber,
  phone: line(60).optional(),
  /** The mail as it should have been read, or what was written since. */
  mail: MailText.optional(),
  /** One thing more beside the machine, or one that is no longer asked for, by its words. */
  extra: z
    .object({
      what: z.enum(EXTRA_KINDS),
      words: line(300).refine((s) => s.length > 0, "say what it is"),
      count: z.number().int().min(1).max(99).default(1),
      price: z.number().min(0).max(1_000_000).optional(),
    })
    .optional(),
  dropExtra: line(400).optional(),
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
const MOST_EXTRAS = 100;

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
    if (c.mail !== undefined && c.mail !== brief.mail) {
      told.push("what they wrote was changed");
      brief.mail = c.mail;
    }
    if (c.dropExtra !== undefined) {
      const at = brief.extras.findIndex((x) => x.words === c.dropExtra);
      if (at < 0) return no("That is not beside the machine any more. Nothing was changed. Look again.");
      brief.extras = brief.extras.filter((_, i) => i !== at);
      told.push(`not asked for any more: ${c.dropExtra}`);
    }
    if (c.extra) {
      if (brief.extras.length >= MOST_EXTRAS) return no(`${MOST_EXTRAS} things stand beside the machine already. Nothing was changed.`);
      const { price, ...extra } = c.extra;
      brief.extras = [...brief.extras, { ...extra, ...(price === undefined ? {} : { price }) }];
      told.push(`beside the machine: ${extra.count > 1 ? `${extra.count} × ` : ""}${extra.words}`);
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

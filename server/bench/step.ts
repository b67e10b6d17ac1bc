import { z } from "zod";
import { StepDone } from "../../db";
import { contradicts, done, no, type Result } from "../kernel/result";
import { JobNumber, key } from "../kernel/text";
import { awayOf } from "../receipt/returns";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { lastSaid, moment } from "./last-said";
import { keepTime, skippedNoMore, TookS } from "./took";

export const Step = z.object({
  number: JobNumber,
  step: key(200),
  done: z.boolean(),
  /** Whether the screen showed it as done. Left out where a person has looked and says so whatever is recorded. */
  saw: z.boolean().optional(),
  /** How long hands were at it, s. */
  tookS: TookS.optional(),
});

/** A step that makes no connection is done, or undone. Steps that the job does not have are refused. */
export const step = jobAction({ name: "bench.step", permission: "record", input: Step, run: (unit, s) => markStep(unit, s) });

export async function markStep(unit: JobUnit, s: z.infer<typeof Step>): Promise<Result> {
  const row = await unit.tx.findOne(StepDone, { job: unit.job.id, step: s.step });
  const there = await unit.step(s.step);
  const known = there?.id.startsWith("plug:") ? undefined : there;
  if (!known && !(row && !s.done))
    return no(`${s.number} has no such step any more: its parts or its plan changed. Nothing was changed. Look at the order again.`);
  // What is only looked at or tried goes on with a spare.
  const fits = known && (known.kind === "fit" || known.kind === "assemble") ? known.parts : [];
  const away = s.done ? await awayOf(unit, fits) : undefined;
  if (away) return no(`${away} is on its way back: nothing is done with it until its replacement is here. Nothing was recorded.`);
  const title = known?.title ?? s.step;
  const is = row !== null;
  if (s.saw !== undefined && s.saw !== is && s.done !== is) {
    const by = await lastSaid(unit, { step: s.step });
    const word = (x: boolean) => (x ? "done" : "not done");
    const there = `${word(is)}${by ? ` (${by})` : ""}`;
    return contradicts(
      `${title} is ${there} and ${word(s.done)} (${unit.actor.name}, ${moment(unit.when.happened)}). Look, then choose. Nothing was changed.`,
      { there, yours: `${word(s.done)} (you, ${moment(unit.when.happened)})` },
    );
  }
  if (s.done && !row) unit.tx.create(StepDone, { job: unit.job, step: s.step, by: unit.by, at: unit.when.happened });
  if (!s.done && row) unit.tx.remove(row);
  if (s.done) {
    await skippedNoMore(unit, s.step);
    if (known && s.tookS !== undefined) keepTime(unit, s.step, known.measure, s.tookS);
  }
  unit.emit("step", { step: s.step, title, done: s.done });
  if (s.done) unit.stage.to("worked");
  return done();
}

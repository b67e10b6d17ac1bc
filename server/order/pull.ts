import { z } from "zod";
import { orderOfProblem, problemOf, pull } from "../../core/order";
import { done, no, type Result } from "../kernel/result";
import { JobNumber, key } from "../kernel/text";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";

/** Steps pulled by hand that a job keeps. */
const MOST_PULLED = 1000;

/** With more than so many the log does not keep what was before, and no key takes it back. */
const MOST_KEPT = 200;
const asItWas = <P>(was: readonly P[]): { was?: P[] } => (was.length <= MOST_KEPT ? { was: [...was] } : {});

export const Pull = z.object({ number: JobNumber, steps: z.array(key(200)).min(1).max(60), before: z.array(key(200)).min(1).max(60) });

/** Steps are pulled before others, each before each, and stay so. What must come first, or what it would hide, is not broken: that is refused with its reason. */
export const pullStep = jobAction({
  name: "order.pull",
  permission: "plan",
  input: Pull,
  run: async (unit, p): Promise<Result> => {
    const b = await unit.build();
    const problem = problemOf(b.graph);
    const said = pull(problem, orderOfProblem(problem), p.steps, p.before);
    if (said.verdict === "refused") return no(`${said.words} Nothing was changed.`);
    const [own, later] = [new Set(p.steps), new Set(p.before)];
    // The newest counts: what said the same or the opposite goes.
    const kept = unit.job.pulled.filter((x) => !(own.has(x.step) && later.has(x.before)) && !(later.has(x.step) && own.has(x.before)));
    if (kept.length + p.steps.length * p.before.length > MOST_PULLED)
      return no(`${p.number} has ${MOST_PULLED} steps pulled by hand already. Nothing was changed. Put some back first.`);
    const was = unit.job.pulled;
    unit.job.pulled = [...kept, ...p.steps.flatMap((step) => p.before.map((before) => ({ step, before })))];
    const title = (id: string) => problem.works.find((w) => w.id === id)?.title ?? id;
    const [first] = p.steps;
    const more = p.steps.length > 1 ? ` and ${p.steps.length - 1} more` : "";
    unit.emit("pulled", { step: first ?? "", title: `${title(first ?? "")}${more}`, before: title(p.before[0] ?? ""), ...asItWas(was) });
    return done();
  },
});

/** The steps that were pulled before, again: a pull or a letting go is taken back. */
export async function pulledBefore(unit: JobUnit, was: readonly { step: string; before: string }[]): Promise<Result> {
  const now = unit.job.pulled;
  unit.job.pulled = was.slice(0, MOST_PULLED).map(({ step, before }) => ({ step, before }));
  unit.emit("let-go", { was: now });
  return done();
}

/** What was pulled by hand is let go of: the order is again what Imbra makes of it. */
export const letGo = jobAction({
  name: "order.let-go",
  permission: "plan",
  input: z.object({ number: JobNumber }),
  run: async (unit): Promise<Result> => {
    if (unit.job.pulled.length === 0) return no("No step was pulled by hand. Nothing was changed.");
    const was = unit.job.pulled;
    unit.job.pulled = [];
    unit.emit("let-go", asItWas(was));
    return done();
  },
});

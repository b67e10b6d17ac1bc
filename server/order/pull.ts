import { z } from "zod";
import { orderOfProblem, problemOf, pull } from "../../core/order";
import { done, no, type Result } from "../kernel/result";
import { JobNumber, key } from "../kernel/text";
import { jobAction } from "../unit/action";

/** Steps pulled by hand that a job keeps. */
const MOST_PULLED = 1000;

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
    unit.job.pulled = [...kept, ...p.steps.flatMap((step) => p.before.map((before) => ({ step, before })))];
    const title = (id: string) => problem.works.find((w) => w.id === id)?.title ?? id;
    const [first] = p.steps;
    const more = p.steps.length > 1 ? ` and ${p.steps.length - 1} more` : "";
    unit.emit("pulled", { step: first ?? "", title: `${title(first ?? "")}${more}`, before: title(p.before[0] ?? "") });
    return done();
  },
});

/** What was pulled by hand is let go of: the order is again what Imbra makes of it. */
export const letGo = jobAction({
  name: "order.let-go",
  permission: "plan",
  input: z.object({ number: JobNumber }),
  run: async (unit): Promise<Result> => {
    if (unit.job.pulled.length === 0) return no("No step was pulled by hand. Nothing was changed.");
    unit.job.pulled = [];
    unit.emit("let-go", {});
    return done();
  },
});

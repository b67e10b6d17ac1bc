import { z } from "zod";
import {
  type Compared,
  comparing,
  type Now,
  nowOf,
  orderOfProblem,
  type Problem,
  type Pulled,
  problemOf,
  pull,
  type Undo,
  undoOf,
} from "../../core/order";
import { type EntityManager, Observation } from "../../db";
import { buildOfJob, findJob, type JobBuild } from "../build/build-of-job";
import { ownMinutes } from "../build/own-minutes";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, key, PartKey } from "../kernel/text";
import { query } from "../unit/action";
import { Pull } from "./pull";

// What the order is asked. Nothing of it is stored.

const NO_STEP = "has no such step any more: its parts or its plan changed. Look at the order again.";

async function problemHere(em: EntityManager, number: string): Promise<{ b: JobBuild; problem: Problem } | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const b = await buildOfJob(em, job);
  const powered = (await em.count(Observation, { job: job.id })) > 0;
  return { b, problem: problemOf(b.graph, { powered, history: await ownMinutes(em) }) };
}
const none = (number: string) => no(`There is no job ${number}.`);

/** What comes out, stays and is made anew, for a step that was forgotten or wrong. */
export const undoStep = query({
  name: "order.undo",
  input: z.object({ number: JobNumber, step: key(200) }),
  run: async (em, { number, step }): Promise<Result<Undo>> => {
    const here = await problemHere(em, number);
    if (!here) return none(number);
    const undo = undoOf(here.problem, step);
    return undo ? yes(undo) : no(`${number} ${NO_STEP}`);
  },
});

/** May these steps be pulled before that one, and what would it cost. */
export const tryPull = query({
  name: "order.try-pull",
  input: Pull,
  run: async (em, { number, steps, before }): Promise<Result<Omit<Pulled, "order"> & { turns: number }>> => {
    const here = await problemHere(em, number);
    if (!here) return none(number);
    const order = orderOfProblem(here.problem);
    const { order: next, ...said } = pull(here.problem, order, steps, before);
    return yes({ ...said, turns: next?.turns ?? order.turns });
  },
});

/** Turns and minutes of every answer of every school of the work. */
export const compare = query({
  name: "order.compare",
  input: z.object({ number: JobNumber }),
  run: async (em, { number }): Promise<Result<Compared[]>> => {
    const here = await problemHere(em, number);
    if (!here) return none(number);
    const rows: Compared[] = [];
    for (const row of comparing(here.b.graph, { history: await ownMinutes(em) })) {
      rows.push(row);
      // Nearly a second for the largest builds: others are answered in between.
      await new Promise((resolve) => setImmediate(resolve));
    }
    return yes(rows);
  },
});

/** What can be done with what is here and the minutes that are left. */
export const canNow = query({
  name: "order.now",
  input: z.object({ number: JobNumber, missing: z.array(PartKey).max(200), minutes: z.number().int().min(1).max(1000).optional() }),
  run: async (em, { number, missing, minutes }): Promise<Result<Now & { titles: Record<string, string> }>> => {
    const here = await problemHere(em, number);
    if (!here) return none(number);
    const now = nowOf(here.problem, orderOfProblem(here.problem), { missing, ...(minutes === undefined ? {} : { minutes }) });
    const names = new Map(here.b.build.parts.map((p) => [p.id, p.label ?? here.b.graph.parts.get(p.id)?.type.name ?? p.id]));
    const titles = Object.fromEntries(here.problem.works.map((w) => [w.id, w.title]));
    return yes({ ...now, waits: now.waits.map((w) => ({ ...w, for: names.get(w.for) ?? w.for })), titles });
  },
});

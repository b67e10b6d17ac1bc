import type { EntityManager } from "../../db";
import { failed } from "../kernel/failed";
import type { Result } from "../kernel/result";
import { type Make, type PlanNews, type Planned, planJob } from "../plan/plan-job";
import { beat, endRun, giveWay, takeRun, tellFirst } from "./runs";

const BEAT_MS = 1000;

/** Takes one run and makes its plan; false where none waits. `em` gives a fresh entity manager. */
export async function workOnce(em: () => EntityManager, planner: string, make: Make): Promise<boolean> {
  const run = await takeRun(em(), planner);
  if (!run) return false;
  const stop = new AbortController();
  const now = { share: 0, words: "Beginning" };
  const beating = setInterval(async () => {
    // One beat that the database does not answer is no reason to stop; a run that is no longer ours is.
    const ours = await beat(em(), run.id, planner, now).catch(() => true);
    if (!ours || (await giveWay(em(), run.id, planner).catch(() => false))) stop.abort();
  }, BEAT_MS);
  const news = (n: PlanNews) => {
    if (n.kind === "progress") Object.assign(now, { share: n.share, words: n.words });
    else void tellFirst(em(), run.id, n.planned).catch(() => undefined);
  };
  let result: Result<Planned>;
  try {
    result = await planJob(em(), run.number, run.by, make, { news, signal: stop.signal, first: run.first });
  } catch (e) {
    result = failed(e, "No plan was stored.");
  } finally {
    clearInterval(beating);
  }
  if (!stop.signal.aborted) await endRun(em(), run.id, planner, result);
  return true;
}

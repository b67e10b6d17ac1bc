import { constants, setPriority } from "node:os";
import { parentPort } from "node:worker_threads";
import { typeLookup } from "../core/assembly";
import { mattersOf, TriedBefore } from "../core/matters";
import { costsOfPlaces, type PlanProgress, plan, SolvedPieces, waysIn } from "../core/plan";
import type { PlanAndWays, Said, Task } from "../server/plan/plan-thread";

// Whoever waits for a page comes first. On Linux this is the thread's own priority; where it is not to be had, nothing is lost.
try {
  setPriority(constants.priority.PRIORITY_BELOW_NORMAL);
} catch {}

/** Stays alive between tasks: what was solved for a job is not solved again when one lead of it is fixed. */
const solved = new SolvedPieces();
const triedBefore = new TriedBefore();

/** Seconds for saying what would let in what stays free. */
const WAYS_S = 10;

const say = (m: Said) => parentPort?.postMessage(m);

parentPort?.on("message", (task: Task) => {
  const types = typeLookup(task.build, []);
  const options = { deadlineS: task.deadlineS, solved, onProgress: (progress: PlanProgress) => say({ progress }) };
  const work =
    task.kind === "plan"
      ? planAndWays()
      : task.kind === "matters"
        ? mattersOf(task.build, types, { withinMs: task.deadlineS * 1000, listOnly: task.listOnly, memory: triedBefore })
        : costsOfPlaces(task.build, types, task.lead, task.places, options);
  async function planAndWays(): Promise<PlanAndWays> {
    const made = await plan(task.build, types, task.kind === "plan" ? { ...options, stillBest: task.stillBest } : options);
    if (task.kind !== "plan" || !task.ways || (task.ways === "when proved" && made.status !== "proved")) return made;
    // Without an answer to this the plan stands all the same.
    const ways = await waysIn(made, types, { deadlineS: WAYS_S, solved }).catch((e: unknown) => {
      console.error(e);
      return undefined;
    });
    return ways ? { ...made, ways } : made;
  }
  work.then(
    (value) => say({ ok: true, value }),
    (e: unknown) => say({ ok: false, why: e instanceof Error ? e.message : String(e) }),
  );
});

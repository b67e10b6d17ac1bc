import { parentPort } from "node:worker_threads";
import { typeLookup } from "../core/build";
import { costsOfPlaces, PieceMemory, type PlanProgress, plan } from "../core/plan";
import type { Said, Task } from "../server/plan-thread";

/** Stays alive between tasks: what was solved for a job is not solved again when one lead of it is fixed. */
const memory = new PieceMemory();

const say = (m: Said) => parentPort?.postMessage(m);

parentPort?.on("message", (task: Task) => {
  const types = typeLookup(task.build, []);
  const options = { deadlineS: task.deadlineS, memory, onProgress: (progress: PlanProgress) => say({ progress }) };
  const work = task.kind === "plan" ? plan(task.build, types, options) : costsOfPlaces(task.build, types, task.lead, task.places, options);
  work.then(
    (value) => say({ ok: true, value }),
    (e: unknown) => say({ ok: false, why: e instanceof Error ? e.message : String(e) }),
  );
});

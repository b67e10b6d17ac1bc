import { parentPort } from "node:worker_threads";
import { typeLookup } from "../core/build";
import { costsOfPlaces, PieceMemory, plan } from "../core/plan";
import type { Task } from "../server/plan-thread";

/** Stays alive between tasks: what was solved for a job is not solved again when one lead of it is fixed. */
const memory = new PieceMemory();

parentPort?.on("message", (task: Task) => {
  const types = typeLookup(task.build, []);
  const options = { deadlineS: task.deadlineS, memory };
  const work = task.kind === "plan" ? plan(task.build, types, options) : costsOfPlaces(task.build, types, task.lead, task.places, options);
  work.then(
    (value) => parentPort?.postMessage({ ok: true, value }),
    (e: unknown) => parentPort?.postMessage({ ok: false, why: e instanceof Error ? e.message : String(e) }),
  );
});

import { Worker } from "node:worker_threads";
import type { Build } from "../core/build";
import type { Plan } from "../core/plan";

const DEADLINE_S = 60;

/** Plans in a thread of its own, so that a heavy solve never holds up another request. */
export function planInThread(build: Build): Promise<Plan> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL("../workers/plan.worker.ts", import.meta.url), { workerData: { build, deadlineS: DEADLINE_S } });
    const late = setTimeout(
      () => {
        void worker.terminate();
        reject(new Error(`no plan after ${DEADLINE_S + 10} s`));
      },
      (DEADLINE_S + 10) * 1000,
    );
    worker.once("message", (m: { ok: true; plan: Plan } | { ok: false; why: string }) => {
      clearTimeout(late);
      void worker.terminate();
      if (m.ok) resolve(m.plan);
      else reject(new Error(m.why));
    });
    worker.once("error", (e) => {
      clearTimeout(late);
      reject(e);
    });
  });
}

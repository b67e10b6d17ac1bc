import { parentPort, workerData } from "node:worker_threads";
import { type Build, typeLookup } from "../core/build";
import { plan } from "../core/plan";

const { build, deadlineS } = workerData as { build: Build; deadlineS: number };

plan(build, typeLookup(build, []), { deadlineS }).then(
  (made) => parentPort?.postMessage({ ok: true, plan: made }),
  (e: unknown) => parentPort?.postMessage({ ok: false, why: e instanceof Error ? e.message : String(e) }),
);

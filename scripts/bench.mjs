// npm run bench: times side by side in one run. Not part of the tests: these machines are noisy, so ratios are given.
import { spawnSync } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { installPackages, startCluster } from "./cluster.mjs";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
installPackages(project);
const cluster = await startCluster(project, { name: "pg-bench", port: 54351 });
const env = { ...process.env, DATABASE_URL: cluster.url };
let failed = 0;
for (const script of ["scripts/bench-plan.mts", "scripts/bench-parts.mts"])
  failed += spawnSync(join(project, "node_modules/.bin/tsx"), [script], { cwd: project, env, stdio: "inherit" }).status === 0 ? 0 : 1;
if (!cluster.wasRunning) cluster.stop();
process.exit(failed > 0 ? 1 : 0);

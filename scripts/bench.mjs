// npm run bench: times side by side in one run. Not part of the tests: these machines are noisy, so ratios are given.
import { spawnSync } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { installPackages } from "./cluster.mjs";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
installPackages(project);
process.exit(spawnSync(join(project, "node_modules/.bin/tsx"), ["scripts/bench-plan.mts"], { cwd: project, stdio: "inherit" }).status ?? 1);

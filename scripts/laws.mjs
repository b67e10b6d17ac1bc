// npm run laws: the laws of docs/architecture.md over generated builds with a fresh seed. `-- 500` says how many builds each,
// `-- 500 12345` replays a seed that an earlier run printed.
import { spawnSync } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
const [runs = "200", seed = String(Math.floor(Math.random() * 2 ** 31))] = process.argv.slice(2);
console.log(`Laws over ${runs} builds each, seed ${seed}. To replay: npm run laws -- ${runs} ${seed}`);
const r = spawnSync(join(project, "node_modules/.bin/vitest"), ["run", "--project", "unit", "tests/laws"], {
  cwd: project,
  env: { ...process.env, LAWS_RUNS: runs, LAWS_SEED: seed },
  stdio: "inherit",
});
process.exit(r.status ?? 1);

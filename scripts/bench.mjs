// npm run bench: times side by side in one run. Not part of the tests: these machines are noisy, so ratios are given.
// `npm run bench -- --only plan,routes,order,parts,diagnose,screen,entries,server` runs a part.
import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { installDebian, installPackages, secret, startCluster } from "./cluster.mjs";
import { serveFresh } from "./serve.mjs";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
const at = process.argv.indexOf("--only");
const parts = at >= 0 ? (process.argv[at + 1] ?? "").split(",") : ["plan", "routes", "order", "parts", "diagnose", "screen", "entries", "server"];
installPackages(project);
const cluster = await startCluster(project, { name: "pg-bench", port: 54351 });
const env = { ...process.env, DATABASE_URL: cluster.url, IMBRA_SECRET: secret(project), NEXT_TELEMETRY_DISABLED: "1" };
let failed = 0;
const run = (part, more = {}) => {
  const script = `scripts/bench-${part}.mts`;
  const r = spawnSync(join(project, "node_modules/.bin/tsx"), [script], { cwd: project, env: { ...env, ...more }, stdio: "inherit" });
  failed += r.status === 0 ? 0 : 1;
};
for (const part of ["plan", "routes", "order", "parts", "diagnose"]) if (parts.includes(part)) run(part);
if (parts.includes("screen") && !existsSync("/usr/bin/chromium-headless-shell"))
  installDebian(["chromium-headless-shell"], "Chromium without a window");
for (const part of ["screen", "entries", "server"]) {
  if (!parts.includes(part)) continue;
  const server = await serveFresh(project, env);
  if (server) run(part, { IMBRA_URL: server.url });
  else failed++;
  server?.stop();
}
if (!cluster.wasRunning) cluster.stop();
process.exit(failed > 0 ? 1 : 0);

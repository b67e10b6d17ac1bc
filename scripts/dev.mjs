// npm run dev: the same preparation as npm start, then the development server.
import { spawn, spawnSync } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { installPackages, nodeIsNewEnough, secret, setupCode, startCluster } from "./cluster.mjs";
import { SIMULATOR_SOURCES, SOURCES, startPlanner, startSimulator } from "./processes.mjs";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
nodeIsNewEnough();
installPackages(project);
const env = { ...process.env, IMBRA_SECRET: secret(project), IMBRA_SETUP_CODE: setupCode(), NEXT_TELEMETRY_DISABLED: "1" };
const cluster = env.DATABASE_URL ? undefined : await startCluster(project, { name: "pg", port: 54331 });
if (cluster) env.DATABASE_URL = cluster.url;
spawnSync(join(project, "node_modules/.bin/tsx"), ["scripts/prepare-db.mts", "--seed", ...process.argv.slice(2)], {
  cwd: project,
  env,
  stdio: "inherit",
});
const simulator = startSimulator(project, env, SIMULATOR_SOURCES);
Object.assign(env, await simulator.known);
const server = spawn(join(project, "node_modules/.bin/next"), ["dev", "-H", "127.0.0.1", "-p", process.env.PORT ?? "3000"], {
  cwd: project,
  env,
  stdio: "inherit",
});
const planner = startPlanner(project, env, SOURCES);
const end = () => {
  planner.stop();
  simulator.stop();
  server.kill("SIGTERM");
};
process.on("SIGINT", end);
process.on("SIGTERM", end);
server.once("exit", () => {
  planner.stop();
  simulator.stop();
  if (cluster && !cluster.wasRunning) cluster.stop();
});

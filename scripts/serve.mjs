// The application on a new demo and a port of its own, for tests and benchmarks.
import { spawnSync } from "node:child_process";
import { createServer } from "node:net";
import { join } from "node:path";
import { buildWhenChanged } from "./build.mjs";
import { startPlanner, startServer, startSimulator } from "./processes.mjs";

const freePort = () =>
  new Promise((resolve) => {
    const s = createServer();
    s.listen(0, "127.0.0.1", () => {
      const { port } = s.address();
      s.close(() => resolve(port));
    });
  });

/** Empties and seeds the database of `env.DATABASE_URL`, builds, serves: where it answers and how to end it; undefined when it did not start. */
export async function serveFresh(project, env) {
  if (!(await buildWhenChanged(project, { ...env, NODE_ENV: "production" }))) return undefined;
  const seeded = spawnSync(join(project, "node_modules/.bin/tsx"), ["scripts/prepare-db.mts", "--fresh", "--seed"], {
    cwd: project,
    env,
    encoding: "utf8",
  });
  if (seeded.status !== 0) {
    console.error(seeded.stdout, seeded.stderr);
    return undefined;
  }
  const port = await freePort();
  const simulator = startSimulator(project, env);
  const server = startServer(project, { ...env, ...(await simulator.known) }, { host: "127.0.0.1", port });
  const planner = startPlanner(project, env);
  const stop = () => {
    planner.stop();
    simulator.stop();
    server.child.kill("SIGTERM");
  };
  if (await server.ready) return { url: `http://127.0.0.1:${port}`, stop };
  stop();
  return undefined;
}

// npm run serve, npm run planner: one more server, or one more planner, on the database that DATABASE_URL names (or this machine's own,
// which npm start has to have started). They may run on other machines than npm start.
import { dirname } from "node:path";
import { fileURLToPath } from "node:url";
import { buildPrograms, buildWhenChanged } from "./build.mjs";
import { installPackages, nodeIsNewEnough, runningCluster, say, secret, setupCode, stopWith } from "./cluster.mjs";
import { startPlanner, startServer } from "./processes.mjs";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
const what = process.argv[2];
nodeIsNewEnough();
installPackages(project);
const env = {
  ...process.env,
  IMBRA_SECRET: process.env.IMBRA_SECRET ?? secret(project),
  IMBRA_SETUP_CODE: process.env.IMBRA_SETUP_CODE ?? setupCode(),
  NEXT_TELEMETRY_DISABLED: "1",
};
env.DATABASE_URL ??= runningCluster(project, { name: "pg" });
if (!env.DATABASE_URL) stopWith("No database: set DATABASE_URL, or run npm start on this machine first.");
if (what === "planner") {
  await buildPrograms(project);
  const planner = startPlanner(project, env);
  say("A planner works. Ctrl-C ends it.");
  for (const signal of ["SIGINT", "SIGTERM"])
    process.once(signal, () => {
      planner.stop();
      process.exit(0);
    });
  setInterval(() => {}, 60_000);
} else {
  if (!(await buildWhenChanged(project, env))) stopWith("The build failed. The lines above say why.");
  const host = process.env.HOST ?? "127.0.0.1";
  const port = process.env.PORT ?? "3001";
  const server = startServer(project, env, { host, port });
  for (const signal of ["SIGINT", "SIGTERM"]) process.once(signal, () => server.child.kill("SIGTERM"));
  server.child.once("exit", (code) => process.exit(code ?? 1));
  if (await server.ready)
    say(`\nImbra: http://${host}:${port}\nSet-up code, while the shop has no lead yet: ${env.IMBRA_SETUP_CODE}\nCtrl-C ends it.`);
}

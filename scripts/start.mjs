// npm start: everything from a fresh clone to a page, then serve. `--fresh` renews the demo, `--without-demo` begins an empty shop.
import { readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { buildWhenChanged, run } from "./build.mjs";
import { installPackages, nodeIsNewEnough, say, secret, setupCode, startCluster, stopWith } from "./cluster.mjs";
import { startPlanner, startServer, startSimulator } from "./processes.mjs";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
const fresh = process.argv.includes("--fresh");
const host = process.env.HOST ?? "127.0.0.1";
const port = process.env.PORT ?? "3000";
const bin = (name) => join(project, "node_modules", ".bin", name);

const CLUSTER = { name: process.env.IMBRA_CLUSTER ?? "pg", port: 54331 };
/** Between two looks whether the database is there. */
const LOOK_MS = 2000;

let cluster;
let server;
let planner;
let simulator;
let ending = false;
/** Ends all that was started here, the own cluster last; then this process, with `code`. */
function end(code) {
  if (ending) return;
  ending = true;
  planner?.stop();
  simulator?.stop();
  const finish = () => {
    if (cluster && !cluster.wasRunning) cluster.stop();
    process.exit(code);
  };
  if (!server || server.exitCode !== null || server.signalCode !== null) return finish();
  server.once("exit", finish);
  server.kill("SIGTERM");
  setTimeout(() => server.kill("SIGKILL"), 5000).unref();
}
// However this process ends, what it started does not stay behind.
process.on("exit", () => {
  planner?.stop();
  simulator?.stop();
  server?.kill("SIGTERM");
});
process.on("SIGINT", () => end(0));
process.on("SIGTERM", () => end(0));

nodeIsNewEnough();
installPackages(project);
const without = process.argv.includes("--without-demo");
const env = {
  ...process.env,
  IMBRA_SECRET: process.env.IMBRA_SECRET ?? secret(project),
  IMBRA_SETUP_CODE: process.env.IMBRA_SETUP_CODE ?? setupCode(),
  NEXT_TELEMETRY_DISABLED: "1",
  NODE_ENV: "production",
};
if (env.DATABASE_URL) say("Database: the one that DATABASE_URL names.");
else {
  say("Starting the database …");
  cluster = await startCluster(project, CLUSTER);
  env.DATABASE_URL = cluster.url;
}
say(without ? "Preparing the database: migrations …" : "Preparing the database: migrations and demo …");
// Whatever runs now is what a signal ends.
const now = (child) => {
  server = child;
};
const prepared = await run(
  bin("tsx"),
  ["scripts/prepare-db.mts", without ? "--without-demo" : "--seed", ...(fresh ? ["--fresh"] : [])],
  { cwd: project, env, stdio: "inherit" },
  now,
);
/** The status of a database that belongs to a shop. */
const NO_DEMO = 3;
const demo = prepared.status === 0;
if (!ending && prepared.status !== 0 && prepared.status !== NO_DEMO) {
  if (cluster && !cluster.wasRunning) cluster.stop();
  stopWith("The database could not be prepared. The lines above say why; nothing else was started.");
}
if (!ending && !(await buildWhenChanged(project, env, now)) && !ending) {
  if (cluster && !cluster.wasRunning) cluster.stop();
  stopWith("The build failed. The lines above say why.");
}
if (!ending) {
  simulator = startSimulator(project, env);
  Object.assign(env, await simulator.known);
}
if (!ending) {
  const started = startServer(project, env, { host, port });
  server = started.child;
  planner = startPlanner(project, env);
  server.once("exit", (code, signal) => {
    if (ending) return;
    console.error(
      signal
        ? `\nThe server was ended by ${signal}. Nothing that was recorded is lost; npm start begins anew.`
        : `\nThe server ended (code ${code}). Is port ${port} taken? PORT=3001 npm start uses another.`,
    );
    end(code || 1);
  });
  if (cluster) watchDatabase();
  if (await started.ready) say(`\nImbra: http://${host}:${port}\n${demo ? demoWords() : ""}Ctrl-C ends it.`);
}

/** A database that ended, however that came, is started again on its port; servers and planners wait for it meanwhile and go on. */
function watchDatabase() {
  setTimeout(async () => {
    if (ending) return;
    if (!cluster.isRunning()) {
      say("The database has ended. Starting it again; what is pressed meanwhile waits on its device …");
      const again = await startCluster(project, CLUSTER);
      if (again.url !== env.DATABASE_URL) {
        console.error("It came up on another port. Ending, so that the next npm start uses it.");
        return end(1);
      }
      cluster = { ...again, wasRunning: cluster.wasRunning };
      if (ending) return cluster.wasRunning ? undefined : cluster.stop();
      say("The database is back.");
    }
    watchDatabase();
  }, LOOK_MS).unref();
}

/** How the people of the demo sign in, as long as nobody changed it. */
function demoWords() {
  const people = JSON.parse(readFileSync(join(project, "data/demo-people.json"), "utf8"));
  const lines = people.map((p) => `  ${p.name.padEnd(18)} ${p.role.padEnd(11)} ${p.password.padEnd(26)} ${p.pin ? `PIN ${p.pin}` : ""}`.trimEnd());
  return `Demo sign-ins, as they were made (name, role, password, PIN at a bench):\n${lines.join("\n")}\n`;
}

// npm start: everything from a fresh clone to a page, then serve. `--fresh` renews the demo.
import { spawn } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { buildWhenChanged, run } from "./build.mjs";
import { installPackages, nodeIsNewEnough, say, secret, startCluster, stopWith } from "./cluster.mjs";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
const fresh = process.argv.includes("--fresh");
const host = process.env.HOST ?? "127.0.0.1";
const port = process.env.PORT ?? "3000";
const bin = (name) => join(project, "node_modules", ".bin", name);

let cluster;
let server;
let ending = false;
function end(code) {
  if (ending) return;
  ending = true;
  const finish = () => {
    if (cluster && !cluster.wasRunning) cluster.stop();
    process.exit(code);
  };
  if (!server || server.exitCode !== null) return finish();
  server.once("exit", finish);
  server.kill("SIGTERM");
  setTimeout(() => server.kill("SIGKILL"), 5000).unref();
}
process.on("SIGINT", () => end(0));
process.on("SIGTERM", () => end(0));

nodeIsNewEnough();
installPackages(project);
const env = { ...process.env, IMBRA_SECRET: process.env.IMBRA_SECRET ?? secret(project), NEXT_TELEMETRY_DISABLED: "1", NODE_ENV: "production" };
if (env.DATABASE_URL) say("Database: the one that DATABASE_URL names.");
else {
  say("Starting the database …");
  cluster = await startCluster(project, { name: "pg", port: 54331 });
  env.DATABASE_URL = cluster.url;
}
say("Preparing the database: migrations and demo …");
// Whatever runs now is what a signal ends.
const now = (child) => {
  server = child;
};
const prepared = await run(
  bin("tsx"),
  ["scripts/prepare-db.mts", "--seed", ...(fresh ? ["--fresh"] : [])],
  { cwd: project, env, stdio: "inherit" },
  now,
);
if (!ending && prepared.status !== 0) {
  if (cluster && !cluster.wasRunning) cluster.stop();
  stopWith("The database could not be prepared. The lines above say why; nothing else was started.");
}
if (!ending && !(await buildWhenChanged(project, env, now)) && !ending) {
  if (cluster && !cluster.wasRunning) cluster.stop();
  stopWith("The build failed. The lines above say why.");
}
if (!ending) {
  server = spawn(process.execPath, [join(project, "node_modules", "next", "dist", "bin", "next"), "start", "-H", host, "-p", port], {
    cwd: project,
    env,
    stdio: ["ignore", "pipe", "inherit"],
  });
  server.stdout.on("data", (chunk) => {
    if (!String(chunk).includes("Ready")) return;
    say(
      `\nImbra: http://${host}:${port}\nDemo sign-ins, chosen by name, no password yet: Runa Thistlewood (lead), Ebo Larkmoor, Mirel Quist, Tansy Okoru\nCtrl-C ends it.`,
    );
  });
  server.once("exit", (code) => {
    if (!ending && code !== 0) console.error(`\nThe server ended (code ${code}). Is port ${port} taken? PORT=3001 npm start uses another.`);
    end(code ?? 0);
  });
}

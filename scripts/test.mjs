// npm test: all set-up on a separate database and port, then every check; closes with one line "N passed, N failed".
// `npm test -- --only unit,database,browser,static` runs a part, `--file ways,wiring` only files with such names in it.
import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { installDebian, installPackages, nodeIsNewEnough, say, secret, startCluster } from "./cluster.mjs";
import { serveFresh } from "./serve.mjs";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
const at = process.argv.indexOf("--only");
const only = at >= 0 ? (process.argv[at + 1] ?? "").split(",") : ["static", "unit", "database", "browser"];
const named = process.argv.indexOf("--file");
const files = named >= 0 ? (process.argv[named + 1] ?? "").split(",") : [];
const wants = (part) => only.includes(part);

nodeIsNewEnough();
installPackages(project);
if (wants("browser") && !existsSync("/usr/bin/chromium")) installDebian(["chromium"], "Chromium");
const env = { ...process.env, IMBRA_SECRET: secret(project), NEXT_TELEMETRY_DISABLED: "1" };
delete env.DATABASE_URL;
let cluster;
if (wants("database") || wants("browser")) {
  say("Starting the test database …");
  cluster = await startCluster(project, { name: "pg-test", port: 54341 });
  env.DATABASE_URL = cluster.url;
}
let server;
const bin = (name) => join(project, "node_modules/.bin", name);
let passed = 0;
let failed = 0;

/** A check without tests of its own counts as one. */
function once(what, command, args) {
  say(`${what} …`);
  const r = spawnSync(bin(command), args, { cwd: project, env, encoding: "utf8" });
  if (r.status === 0) passed++;
  else {
    failed++;
    console.error(`${what} failed:\n${r.stdout}\n${r.stderr}`);
  }
}

function vitest(part) {
  const out = join(project, ".data", `results-${part}.json`);
  mkdirSync(dirname(out), { recursive: true });
  rmSync(out, { force: true });
  spawnSync(bin("vitest"), ["run", "--project", part, "--reporter=default", "--reporter=json", `--outputFile.json=${out}`, ...files], {
    cwd: project,
    env,
    stdio: ["ignore", "inherit", "inherit"],
  });
  if (!existsSync(out)) {
    failed++;
    return;
  }
  const r = JSON.parse(readFileSync(out, "utf8"));
  passed += r.numPassedTests;
  // A file that could not even be read counts as a failure.
  failed += r.numFailedTests + r.testResults.filter((f) => f.status === "failed" && f.assertionResults.length === 0).length;
}

try {
  if (wants("static")) {
    once("Types", "tsc", ["--noEmit"]);
    once("Lint and format", "biome", ["check", "."]);
    once("Layers", "depcruise", ["--config", ".dependency-cruiser.cjs", "app", "features", "ui", "server", "db", "core", "cli", "workers"]);
    once("Unused code", "knip", []);
    once("Schemas up to date", "tsx", ["scripts/write-schemas.mts", "--check"]);
  }
  if (wants("unit")) vitest("unit");
  if (wants("database")) vitest("database");
  if (wants("browser")) {
    server = await serveFresh(project, env);
    if (server) {
      env.IMBRA_URL = server.url;
      vitest("browser");
    } else {
      failed++;
      console.error("The application did not start, so no browser test ran.");
    }
  }
} finally {
  server?.stop();
  if (cluster && !cluster.wasRunning) cluster.stop();
}
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 || passed === 0 ? 1 : 0);

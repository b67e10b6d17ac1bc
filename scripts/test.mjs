// npm test: all set-up on a separate database and port, then what a change must pass; closes with one line "N passed, N failed".
// npm run trial: what a release must pass. The same and all that takes long: every width and look, long laws and shifts on seeds of its
// own, large builds, proxies, a database that is away, a slow disk, a restore on an empty machine.
// `npm test -- --only unit,database,scripts,browser,static` runs a part, `--file ways,wiring` only files with such names in it.
import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { buildWhenChanged } from "./build.mjs";
import { installDebian, installPackages, nodeIsNewEnough, say, secret, startCluster } from "./cluster.mjs";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
const at = process.argv.indexOf("--only");
const only = at >= 0 ? (process.argv[at + 1] ?? "").split(",") : ["static", "unit", "database", "scripts", "browser"];
const named = process.argv.indexOf("--file");
const files = named >= 0 ? (process.argv[named + 1] ?? "").split(",") : [];
const trial = process.argv.includes("--trial");
const wants = (part) => only.includes(part);

nodeIsNewEnough();
installPackages(project);
if (wants("browser") && !existsSync("/usr/bin/chromium-headless-shell")) installDebian(["chromium-headless-shell"], "Chromium without a window");
if (wants("unit") && !existsSync("/usr/bin/unzip")) installDebian(["unzip"], "a reader of ZIP files, for tests");
const seed = process.env.LAWS_SEED ?? String(Math.floor(Math.random() * 2 ** 31));
if (trial) say(`A trial, with seed ${seed}. To replay: LAWS_SEED=${seed} npm run trial`);
const env = {
  ...process.env,
  ...(trial ? { IMBRA_TRIAL: "1", LAWS_SEED: seed } : {}),
  IMBRA_SECRET: secret(project),
  IMBRA_SETUP_CODE: "1234-5678",
  NEXT_TELEMETRY_DISABLED: "1",
};
delete env.DATABASE_URL;
let cluster;
const bin = (name) => join(project, "node_modules/.bin", name);
let passed = 0;
let failed = 0;
/** Every failure once more at the end: what stands last is what a log that was cut still holds. */
const failures = [];

/** A command to its end: its status and all that it said. */
const ran = (command, args) =>
  new Promise((resolve) => {
    const child = spawn(bin(command), args, { cwd: project, env });
    let said = "";
    child.stdout.on("data", (d) => (said += d));
    child.stderr.on("data", (d) => (said += d));
    child.once("close", (status) => resolve({ status, said }));
  });

/** A check without tests of its own counts as one. */
async function once(what, command, args) {
  const began = Date.now();
  const r = await ran(command, args);
  say(`${what}: ${r.status === 0 ? "well" : "FAILED"}, ${((Date.now() - began) / 1000).toFixed(0)} s`);
  if (r.status === 0) passed++;
  else {
    failed++;
    failures.push(`${what}\n${r.said.slice(-3000)}`);
  }
}

async function vitest(part, workers) {
  const out = join(project, ".data", `results-${part}.json`);
  mkdirSync(dirname(out), { recursive: true });
  rmSync(out, { force: true });
  const began = Date.now();
  const args = ["run", "--project", part, `--maxWorkers=${workers}`, "--reporter=default", "--reporter=json", `--outputFile.json=${out}`, ...files];
  await new Promise((resolve) => spawn(bin("vitest"), args, { cwd: project, env, stdio: ["ignore", "inherit", "inherit"] }).once("close", resolve));
  say(`${part}: ${((Date.now() - began) / 1000).toFixed(0)} s`);
  if (!existsSync(out)) {
    failed++;
    failures.push(`${part} · ended without a result`);
    return;
  }
  const r = JSON.parse(readFileSync(out, "utf8"));
  passed += r.numPassedTests;
  // A file that could not even be read counts as a failure.
  failed += r.numFailedTests + r.testResults.filter((f) => f.status === "failed" && f.assertionResults.length === 0).length;
  for (const file of r.testResults) {
    const name = `${part} · ${file.name.slice(project.length + 1)}`;
    if (file.status === "failed" && file.assertionResults.length === 0) failures.push(`${name}\n${String(file.message).slice(0, 3000)}`);
    for (const t of file.assertionResults)
      if (t.status === "failed") failures.push(`${name} · ${t.fullName}\n${t.failureMessages.join("\n").slice(0, 3000)}`);
  }
}

async function statics() {
  // The compiler in native code takes a third of the time; the framework and the other checks need the other, for its interface.
  await once("Types", "../typescript-native/bin/tsc", ["--noEmit"]);
  await once("Lint and format", "biome", ["check", "."]);
  await once("Layers", "depcruise", [
    "--config",
    ".dependency-cruiser.cjs",
    "app",
    "features",
    "ui",
    "server",
    "db",
    "core",
    "cli",
    "workers",
    "tests",
  ]);
  await once("Unused code", "knip", []);
  await once("Schemas up to date", "tsx", ["scripts/write-schemas.mts", "--check"]);
}

const began = Date.now();
try {
  if (wants("database") || wants("scripts") || wants("browser")) {
    say("Starting the test databases …");
    cluster = await startCluster(project, { name: "pg-test", port: 54341 });
    cluster.letMakeDatabases();
    env.IMBRA_TEST_CLUSTER = cluster.url;
  }
  // Needs a package, which is there by now.
  const seeding = cluster ? import("./templates.mjs").then((t) => t.seedTemplates(project, env)) : true;
  // The build asks no database, and what only reads the sources needs neither.
  const building =
    wants("scripts") || wants("browser") ? buildWhenChanged(project, { ...env, DATABASE_URL: cluster.url, NODE_ENV: "production" }) : true;
  if (wants("static")) await statics();
  const built = await building;
  if (!(await seeding)) {
    failed++;
    failures.push("The templates of the test databases could not be made.");
  }
  if (wants("unit")) await vitest("unit", 2);
  // The scripts wait for processes most of the time.
  await Promise.all([wants("database") && vitest("database", 2), wants("scripts") && built && vitest("scripts", 1)]);
  if (wants("browser") && built) await vitest("browser", 2);
  if (!built) {
    failed++;
    failures.push("The application was not built, so no script and no browser was tested.");
  }
} finally {
  if (cluster && !cluster.wasRunning) cluster.stop();
}
say(`${trial ? "All of the trial" : "All of it"}: ${((Date.now() - began) / 60_000).toFixed(1)} minutes`);
for (const f of failures) console.error(`\nFAILED · ${f}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 || passed === 0 ? 1 : 0);

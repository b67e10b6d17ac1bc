// Builds the application when anything it is made of has changed.
import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { say } from "./cluster.mjs";

const FOLDERS = ["app", "core", "db", "features", "server", "simulator", "ui", "workers"];
const FILES = ["package-lock.json", "next.config.mjs", "proxy.ts", "postcss.config.mjs", "tsconfig.json"];

/** A print of everything the build depends on. */
function sourcePrint(project) {
  const hash = createHash("sha256");
  const walk = (folder) => {
    for (const f of readdirSync(join(project, folder)).sort()) {
      const path = join(folder, f);
      if (statSync(join(project, path)).isDirectory()) walk(path);
      else if (!path.includes(".test.")) hash.update(path).update(readFileSync(join(project, path)));
    }
  };
  for (const folder of FOLDERS) walk(folder);
  for (const f of FILES) hash.update(readFileSync(join(project, f)));
  return hash.digest("hex");
}

/** A program to its end, without holding up signals. `onChild` gets the process, so that a signal can end it. */
export function run(command, args, options, onChild = () => {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, options);
    onChild(child);
    let text = "";
    for (const out of [child.stdout, child.stderr]) out?.on("data", (chunk) => (text += chunk));
    child.once("error", () => resolve({ status: 1, text }));
    child.once("exit", (status) => resolve({ status: status ?? 1, text }));
  });
}

/** What runs beside the framework, each put together into one file that node reads at once: what answers entries, a planner, its threads. */
const PROGRAMS = {
  entries: "server/entries/answer-entry.ts",
  planner: "workers/planner.mts",
  "plan-thread": "workers/plan.worker.ts",
  "photo-process": "workers/photo-process.mts",
  "list-thread": "workers/list-thread.mts",
  "diagnose-thread": "workers/diagnose-thread.mts",
  simulator: "simulator/main.mts",
};
const programs = (project) => Object.keys(PROGRAMS).map((name) => join(project, ".data", `${name}.mjs`));

/** Takes a second: whoever runs a planner only has no need of the rest. */
export async function buildPrograms(project) {
  // A package, which is there by now.
  const { build } = await import("esbuild");
  const { outputFiles } = await build({
    absWorkingDir: project,
    entryPoints: Object.entries(PROGRAMS).map(([out, from]) => ({ in: from, out })),
    outdir: ".data",
    outExtension: { ".js": ".mjs" },
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    write: false,
  });
  mkdirSync(join(project, ".data"), { recursive: true });
  // In one step each: another planner may be starting from it.
  for (const { path, contents } of outputFiles) {
    writeFileSync(`${path}.${process.pid}`, contents);
    renameSync(`${path}.${process.pid}`, path);
  }
}

/** Resolves to whether there is a build of today's sources afterwards. */
export async function buildWhenChanged(project, env, onChild) {
  const stamp = join(project, ".data", "built");
  const print = sourcePrint(project);
  if (
    existsSync(stamp) &&
    readFileSync(stamp, "utf8") === print &&
    existsSync(join(project, ".next", "BUILD_ID")) &&
    programs(project).every(existsSync)
  )
    return true;
  say("Building (about half a minute) …");
  const built = await run(
    join(project, "node_modules/.bin/next"),
    ["build"],
    { cwd: project, env: { ...env, IMBRA_BUILD: print.slice(0, 12) }, stdio: ["ignore", "pipe", "pipe"] },
    onChild,
  );
  if (built.status !== 0) {
    console.error(built.text);
    return false;
  }
  mkdirSync(dirname(stamp), { recursive: true });
  await buildPrograms(project);
  writeFileSync(stamp, print);
  return true;
}

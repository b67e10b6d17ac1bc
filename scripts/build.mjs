// Builds the application when anything it is made of has changed.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { say } from "./cluster.mjs";

const FOLDERS = ["app", "core", "db", "features", "server", "ui", "workers"];
const FILES = ["package-lock.json", "next.config.ts", "postcss.config.mjs", "tsconfig.json"];

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

/** Returns whether there is a build of today's sources afterwards. */
export function buildWhenChanged(project, env) {
  const stamp = join(project, ".data", "built");
  const print = sourcePrint(project);
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === print && existsSync(join(project, ".next", "BUILD_ID"))) return true;
  say("Building (about half a minute) …");
  const built = spawnSync(join(project, "node_modules/.bin/next"), ["build"], {
    cwd: project,
    env,
    stdio: ["ignore", "pipe", "pipe"],
    encoding: "utf8",
  });
  if (built.status !== 0) {
    console.error(built.stdout, built.stderr);
    return false;
  }
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, print);
  return true;
}

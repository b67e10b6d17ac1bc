// The seeded databases that tests copy: made when migrations, seed or what it reads have changed, and on another day.
import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import pg from "pg";
import { say } from "./cluster.mjs";

const FIXED_DAY = "2026-11-23T09:00:00Z";
/** Everything that decides what is in them. */
const READ = ["db", "core", "data", "examples", "server/people/password.ts", "server/build", "server/views", "scripts/prepare-db.mts"];

const filesOf = (path) =>
  statSync(path).isDirectory()
    ? readdirSync(path)
        .sort()
        .flatMap((f) => filesOf(join(path, f)))
    : path.endsWith(".test.ts")
      ? []
      : [path];

function hashOf(project) {
  const hash = createHash("sha256").update(new Date().toISOString().slice(0, 10));
  for (const f of READ.flatMap((p) => filesOf(join(project, p)))) hash.update(f.slice(project.length)).update(readFileSync(f));
  return hash.digest("hex");
}

const prepared = (project, env, url, extra) =>
  new Promise((resolve) => {
    const child = spawn(join(project, "node_modules/.bin/tsx"), ["scripts/prepare-db.mts", "--seed", ...extra], {
      cwd: project,
      env: { ...env, DATABASE_URL: url },
    });
    let said = "";
    child.stdout.on("data", (d) => (said += d));
    child.stderr.on("data", (d) => (said += d));
    child.once("close", (status) => {
      if (status !== 0) console.error(said);
      resolve(status === 0);
    });
  });

/** Both templates as they should be; false when one could not be made. */
export async function seedTemplates(project, env) {
  const stamp = join(project, ".data", "templates");
  const hash = hashOf(project);
  const client = new pg.Client({ connectionString: env.IMBRA_TEST_CLUSTER });
  await client.connect();
  try {
    // Copies that a killed run left behind.
    const left = await client.query("select datname from pg_database where datname ~ '^imbra_[0-9a-f]{12}$'");
    for (const { datname } of left.rows) await client.query(`drop database if exists "${datname}" with (force)`);
    const there = await client.query("select 1 from pg_database where datname in ('imbra_seeded_fixed', 'imbra_seeded_today')");
    if (there.rowCount === 2 && existsSync(stamp) && readFileSync(stamp, "utf8") === hash) return true;
    say("Seeding the databases that tests copy …");
    for (const name of ["imbra_seeded_fixed", "imbra_seeded_today"]) {
      await client.query(`drop database if exists "${name}" with (force)`);
      await client.query(`create database "${name}"`);
    }
  } finally {
    await client.end();
  }
  const at = (name) => Object.assign(new URL(env.IMBRA_TEST_CLUSTER), { pathname: `/${name}` }).href;
  const made = await Promise.all([
    prepared(project, env, at("imbra_seeded_fixed"), [`--today=${FIXED_DAY}`]),
    prepared(project, env, at("imbra_seeded_today"), []),
  ]);
  if (!made.every(Boolean)) return false;
  writeFileSync(stamp, hash);
  return true;
}

// npm run backup [FOLDER], npm run restore FOLDER: the database by PostgreSQL's own tools, and the photos beside it.
import { spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, readdirSync, rmSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { binFolder, installDebian, runningCluster, say, startCluster, stopWith } from "./cluster.mjs";

const project = process.env.IMBRA_PROJECT ?? dirname(dirname(fileURLToPath(import.meta.url)));
const DUMP = "database.dump";
const PHOTOS = "photos";
const photos = process.env.IMBRA_PHOTOS ?? join(project, ".data", PHOTOS);

/** A program of PostgreSQL's to its end; stops with its last line when it fails. */
function pg(program, args, env) {
  if (!binFolder()) installDebian(["postgresql"], "PostgreSQL");
  const bin = binFolder();
  if (!bin) stopWith("PostgreSQL's programs were not found. Install them with: sudo apt-get install postgresql");
  const r = spawnSync(join(bin, program), args, { encoding: "utf8", env, maxBuffer: 64_000_000 });
  if (r.status !== 0) stopWith(`${program} failed: ${(r.stderr ?? "").trim().split("\n").at(-1)}`);
  return r.stdout;
}

/** Where a connection string leads, in PostgreSQL's own variables: a password does not stand in the list of processes. */
function envOf(url) {
  const u = new URL(url);
  return {
    ...process.env,
    PGHOST: u.hostname,
    PGPORT: u.port || "5432",
    PGUSER: decodeURIComponent(u.username),
    PGPASSWORD: decodeURIComponent(u.password),
    PGDATABASE: u.pathname.slice(1),
  };
}

function backup(url, folder) {
  if (existsSync(join(folder, DUMP))) stopWith(`${folder} holds a backup already. Nothing was written. Name another folder.`);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const env = envOf(url);
  // A database that nobody has prepared yet has no extension, and the program refuses to look for one.
  const extended = pg("psql", ["-Atqc", "select 1 from pg_extension where extname = 'pg_trgm'"], env).trim() === "1";
  pg(
    "pg_dump",
    [
      ...["--format=custom", "--no-owner", "--no-privileges", "--schema=public", `--file=${join(folder, DUMP)}`],
      ...(extended ? ["--extension=pg_trgm"] : []),
    ],
    env,
  );
  if (existsSync(photos)) cpSync(photos, join(folder, PHOTOS), { recursive: true });
  return folder;
}

function restore(url, folder) {
  const dump = join(folder, DUMP);
  if (!existsSync(dump)) stopWith(`${folder} holds no backup: ${DUMP} is not there. Nothing was changed.`);
  const env = envOf(url);
  // Read whole before anything is taken away: a file that is cut short says so here.
  const list = pg("pg_restore", ["--list", dump], env);
  pg("pg_restore", ["--file=/dev/null", dump], env);
  const others = pg(
    "psql",
    ["-Atqc", "select count(*) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()"],
    env,
  ).trim();
  if (others !== "0") stopWith(`${others} connections to the database are open. Nothing was changed. Stop the servers and planners first.`);
  // Whatever becomes of this: a shop that is brought back is never a demo.
  pg("psql", ["-qc", `comment on database "${env.PGDATABASE.replaceAll('"', '""')}" is 'Imbra: no demo'`], env);
  const tables = pg("psql", ["-Atqc", "select count(*) from pg_tables where schemaname = 'public'"], env).trim();
  if (tables === "0" && !existsSync(photos)) say("Nothing is here yet, so nothing has to be kept.");
  else say(`What is there now was kept in ${backup(url, join(project, ".data", "backups", `before-restore-${stamp()}`))}.`);
  pg("psql", ["-qc", `drop schema public cascade;${/ SCHEMA - public /.test(list) ? "" : " create schema public"}`], env);
  pg("pg_restore", ["--no-owner", "--no-privileges", "--single-transaction", "--exit-on-error", "--dbname", env.PGDATABASE, dump], env);
  // Photos of whatever was here belong to no job any more; they are in the backup that was just made.
  rmSync(photos, { recursive: true, force: true });
  if (existsSync(join(folder, PHOTOS))) cpSync(join(folder, PHOTOS), photos, { recursive: true });
}

const stamp = () => new Date().toISOString().replace(/[:.]/g, "-").slice(0, 19);

const [what, given] = process.argv.slice(2);
let cluster;
let url = process.env.DATABASE_URL ?? runningCluster(project, { name: "pg" });
if (!url) {
  cluster = await startCluster(project, { name: "pg", port: 54331 });
  url = cluster.url;
}
process.on("exit", () => {
  if (cluster && !cluster.wasRunning) cluster.stop();
});
if (what === "backup") {
  const folder = resolve(given ?? join(project, ".data", "backups", `imbra-${stamp()}`));
  backup(url, folder);
  say(`Kept in ${folder}: ${readdirSync(folder).join(", ")}. Keep a copy of it on another machine.`);
} else if (what === "restore") {
  if (!given) stopWith("Say which backup: npm run restore FOLDER");
  restore(url, resolve(given));
  say("Restored. npm start brings it up to today's version.");
} else stopWith("Say backup or restore.");

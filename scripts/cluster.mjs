// The project's own PostgreSQL: found or installed, made once, started on loopback, stopped again.
// Plain Node: runs before any package is installed.
import { execFileSync, spawnSync } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { join } from "node:path";

export const say = (text) => console.log(text);

/** Ends with one sentence and no stack trace. */
export function stopWith(sentence) {
  console.error(`\n${sentence}`);
  process.exit(1);
}

const isRoot = process.getuid?.() === 0;

function binFolder() {
  const base = "/usr/lib/postgresql";
  if (!existsSync(base)) return undefined;
  const versions = readdirSync(base).filter((v) => existsSync(join(base, v, "bin", "initdb")));
  const newest = versions.sort((a, b) => Number(b) - Number(a))[0];
  return newest && join(base, newest, "bin");
}

/** Installs Debian packages as root; otherwise says what to install. */
export function installDebian(packages, what) {
  if (!isRoot || !existsSync("/usr/bin/apt-get")) {
    stopWith(`${what} is missing. Install it with: sudo apt-get install ${packages.join(" ")}. Then start again.`);
  }
  say(`Installing ${what} from Debian's packages (once; a few minutes) …`);
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  spawnSync("apt-get", ["update", "-qq"], { stdio: "ignore", env });
  const done = spawnSync("apt-get", ["install", "-y", "-qq", "--no-install-recommends", ...packages], {
    stdio: ["ignore", "ignore", "inherit"],
    env,
  });
  if (done.status !== 0) stopWith(`${what} could not be installed. Try: apt-get install ${packages.join(" ")}`);
}

/** A command as the user who may own a cluster: PostgreSQL refuses to run as root. */
function asOwner(command, args, options = {}) {
  const [file, list] = isRoot ? ["runuser", ["-u", "postgres", "--", command, ...args]] : [command, args];
  return spawnSync(file, list, { encoding: "utf8", cwd: "/", ...options });
}

/** The project's data folder, or one beside it where the postgres user cannot reach the project's. */
function clusterFolder(project, name) {
  const wanted = join(project, ".data", name);
  mkdirSync(join(project, ".data"), { recursive: true });
  if (!isRoot) return wanted;
  mkdirSync(wanted, { recursive: true });
  execFileSync("chown", ["postgres", wanted]);
  chmodSync(wanted, 0o700);
  if (asOwner("test", ["-w", wanted]).status === 0) return wanted;
  const elsewhere = join("/var/tmp", `imbra-${createHash("sha256").update(project).digest("hex").slice(0, 12)}`, name);
  mkdirSync(elsewhere, { recursive: true });
  execFileSync("chown", ["-R", "postgres", elsewhere]);
  chmodSync(elsewhere, 0o700);
  say(`  the postgres user cannot enter ${project}: the cluster is kept in ${elsewhere}`);
  return elsewhere;
}

const portIsFree = (port) =>
  new Promise((resolve) => {
    const s = createServer();
    s.once("error", () => resolve(false));
    s.listen(port, "127.0.0.1", () => s.close(() => resolve(true)));
  });

function isZombie(pid) {
  try {
    return /^\d+ \(.*\) Z/.test(readFileSync(`/proc/${pid}/stat`, "utf8"));
  } catch {
    return false;
  }
}

/**
 * Starts the project's own cluster and returns its URL and a function that stops it.
 * @param {string} project folder of the project
 * @param {{name: string, port: number, fresh?: boolean}} options
 */
export async function startCluster(project, { name, port, fresh = false }) {
  if (!binFolder()) installDebian(["postgresql"], "PostgreSQL");
  const bin = binFolder();
  if (!bin) stopWith("PostgreSQL was installed but its programs were not found in /usr/lib/postgresql.");
  const data = clusterFolder(project, name);
  const pgctl = join(bin, "pg_ctl");
  if (fresh && existsSync(join(data, "PG_VERSION"))) {
    asOwner(pgctl, ["-D", data, "-m", "immediate", "stop"]);
    for (const f of readdirSync(data)) rmSync(join(data, f), { recursive: true, force: true });
  }
  if (!existsSync(join(data, "PG_VERSION"))) {
    say("Making the project's own PostgreSQL cluster (once; about 10 s) …");
    const made = asOwner(join(bin, "initdb"), ["-D", data, "-U", "imbra", "--auth=trust", "-E", "UTF8", "--locale=C.UTF-8"]);
    if (made.status !== 0) stopWith(`The cluster could not be made: ${(made.stderr ?? "").trim().split("\n").at(-1)}`);
  }
  const portFile = join(data, "imbra-port");
  let at = existsSync(portFile) ? Number(readFileSync(portFile, "utf8")) : port;
  const pidFile = join(data, "postmaster.pid");
  // Killed hard and not yet reaped by its parent, it still has a process number, which pg_ctl takes for life.
  if (existsSync(pidFile) && isZombie(Number(readFileSync(pidFile, "utf8").split("\n")[0]))) rmSync(pidFile);
  const running = asOwner(pgctl, ["-D", data, "status"]).status === 0;
  if (!running) {
    while (!(await portIsFree(at))) at += 1;
    const start = () =>
      asOwner(
        pgctl,
        [
          "-D",
          data,
          "-w",
          "-t",
          "60",
          "-l",
          join(data, "server.log"),
          "-o",
          `-c listen_addresses=127.0.0.1 -p ${at} -c unix_socket_directories=${data} -c max_connections=60`,
          "start",
        ],
        { stdio: "ignore" },
      );
    // A cluster killed hard leaves its pid file, which pg_ctl sorts out, and helpers that take a moment to end.
    let started = start();
    for (let tries = 0; started.status !== 0 && tries < 4; tries++) {
      await new Promise((resolve) => setTimeout(resolve, 1500));
      started = start();
    }
    if (started.status !== 0) stopWith(`PostgreSQL did not start. Its log: ${join(data, "server.log")}`);
    writeFileSync(portFile, String(at));
  }
  const psql = join(bin, "psql");
  const exists =
    asOwner(psql, [
      "-h",
      "127.0.0.1",
      "-p",
      String(at),
      "-U",
      "imbra",
      "-d",
      "postgres",
      "-Atc",
      "select 1 from pg_database where datname='imbra'",
    ]).stdout?.trim() === "1";
  if (!exists) asOwner(psql, ["-h", "127.0.0.1", "-p", String(at), "-U", "imbra", "-d", "postgres", "-c", "create database imbra"]);
  return {
    url: `postgres://imbra@127.0.0.1:${at}/imbra`,
    wasRunning: running,
    stop: () => {
      asOwner(pgctl, ["-D", data, "-m", "fast", "-w", "stop"], { stdio: "ignore" });
    },
  };
}

/** Installs the locked packages when the lock file has changed since they were installed. */
export function installPackages(project) {
  const stamp = join(project, "node_modules", ".imbra-lock");
  const lock = createHash("sha256")
    .update(readFileSync(join(project, "package-lock.json")))
    .digest("hex");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  say("Installing the locked packages (about a minute) …");
  // Not `npm ci`: it refuses a lock made where the registry lacks other systems' optional binaries.
  const done = spawnSync("npm", ["install", "--no-save", "--no-audit", "--no-fund", "--loglevel=error"], {
    cwd: project,
    stdio: ["ignore", "ignore", "inherit"],
  });
  if (done.status !== 0) stopWith("The packages could not be installed. Look at the lines above; is the npm registry reachable?");
  writeFileSync(stamp, lock);
}

/** A secret of this installation, made once: it seals the cookie that says who sits here. */
export function secret(project) {
  const file = join(project, ".data", "secret");
  mkdirSync(join(project, ".data"), { recursive: true });
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString("hex"), { mode: 0o600 });
  return readFileSync(file, "utf8");
}

export function nodeIsNewEnough() {
  const [major = 0, minor = 0] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 9)) stopWith(`Imbra needs Node 20; this is ${process.versions.node}.`);
}

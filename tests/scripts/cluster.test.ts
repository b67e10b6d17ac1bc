import { spawnSync } from "node:child_process";
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";

const folder = mkdtempSync(join(tmpdir(), "imbra-cluster-"));
// The postgres user must be able to enter it.
spawnSync("chmod", ["755", folder]);
const script = join(folder, "run.mjs");
writeFileSync(
  script,
  `import { startCluster } from ${JSON.stringify(join(process.cwd(), "scripts/cluster.mjs"))};
const c = await startCluster(${JSON.stringify(folder)}, { name: "pg-one", port: Number(process.argv[2]), fresh: process.argv.includes("--fresh") });
console.log("URL " + c.url + " " + c.wasRunning);
if (process.argv.includes("--stop")) { c.stop(); process.exit(0); }
process.exit(0);
`,
);
const run = (...args: string[]) => spawnSync(process.execPath, [script, ...args], { encoding: "utf8", timeout: 60_000 });
const urlOf = (r: { stdout: string }) => /URL (\S+) (\S+)/.exec(r.stdout);
const select = (url: string, sql: string) => spawnSync("psql", [url, "-Atc", sql], { encoding: "utf8" }).stdout.trim();

const blockers: Server[] = [];
afterAll(() => {
  for (const s of blockers) s.close();
  run("1", "--stop");
  rmSync(folder, { recursive: true, force: true });
});
const block = (port: number) =>
  new Promise<boolean>((resolve) => {
    const s = createServer();
    s.once("error", () => resolve(false));
    s.listen(port, "127.0.0.1", () => {
      blockers.push(s);
      resolve(true);
    });
  });

describe("the project's own PostgreSQL", () => {
  it("is made in the project's folder, answers on loopback, and moves on from a port that is taken", async () => {
    let port = 54600;
    while (!(await block(port))) port++;
    const r = run(String(port));
    expect(r.stdout).toContain("Making the project's own PostgreSQL cluster");
    const url = urlOf(r);
    expect(url?.[2]).toBe("false");
    expect(url?.[1]).toMatch(/^postgres:\/\/imbra:[0-9a-f]{48}@127\.0\.0\.1:\d+\/imbra$/);
    expect(Number(/:(\d+)\//.exec(url?.[1] ?? "")?.[1])).toBeGreaterThan(port);
    expect(select(url?.[1] ?? "", "select current_database(), inet_server_addr()")).toBe("imbra|127.0.0.1");
    expect(select(url?.[1] ?? "", "show listen_addresses")).toBe("127.0.0.1");
    expect(select(url?.[1] ?? "", "create table kept (n int); insert into kept values (7); select n from kept")).toContain("7");
  }, 120_000);
  it("lets in the application's own role alone, with its password, which only the owner of the file can read; and it may not do all", () => {
    const url = urlOf(run("54600"))?.[1] ?? "";
    const file = join(folder, ".data", "pg-one-password");
    expect(statSync(file).mode & 0o777).toBe(0o600);
    expect(url).toContain(readFileSync(file, "utf8"));
    for (const other of [
      url.replace(/:[0-9a-f]{48}@/, ":wrong@"),
      url.replace(/\/\/imbra:[0-9a-f]{48}/, "//keeper:"),
      url.replace(/\/\/imbra:[0-9a-f]{48}@/, "//imbra@"),
    ])
      expect(spawnSync("psql", [other, "-w", "-Atc", "select 1"], { encoding: "utf8", env: { ...process.env, PGPASSWORD: "" } }).stdout).toBe("");
    expect(select(url, "select rolsuper, rolcreaterole, rolcreatedb from pg_roles where rolname = current_user")).toBe("f|f|f");
    expect(select(url, "select pg_read_file('/etc/passwd')")).toBe("");
  }, 60_000);
  it("a second start finds it running and skips what is done; what was stored is there", () => {
    const r = run("54600");
    expect(r.stdout).not.toContain("Making");
    expect(urlOf(r)?.[2]).toBe("true");
    expect(select(urlOf(r)?.[1] ?? "", "select n from kept")).toBe("7");
  }, 60_000);
  it("stopped and started again, and killed hard and started again, it keeps everything and its port", () => {
    const first = urlOf(run("54600", "--stop"))?.[1] ?? "";
    expect(select(first, "select 1")).toBe("");
    const again = urlOf(run("54600"));
    expect(again?.[1]).toBe(first);
    const pid = select(first, "select pg_backend_pid()");
    expect(Number(pid)).toBeGreaterThan(0);
    spawnSync("pkill", ["-KILL", "-f", join(folder, ".data", "pg-one")]);
    for (let i = 0; i < 50 && select(first, "select 1") === "1"; i++) spawnSync("sleep", ["0.1"]);
    const after = urlOf(run("54600"));
    expect(select(after?.[1] ?? "", "select n from kept")).toBe("7");
  }, 120_000);
  it("--fresh begins anew", () => {
    const r = urlOf(run("54600", "--fresh"));
    expect(select(r?.[1] ?? "", "select to_regclass('kept') is null")).toBe("t");
  }, 120_000);
});

describe("a cluster of an earlier version, which let everybody in", () => {
  it("is closed at the next start, with all that is in it", () => {
    const own = (command: string, args: string[]) => spawnSync("runuser", ["-u", "postgres", "--", command, ...args], { encoding: "utf8", cwd: "/" });
    const isRoot = process.getuid?.() === 0;
    const by = isRoot ? own : (command: string, args: string[]) => spawnSync(command, args, { encoding: "utf8" });
    const old = mkdtempSync(join(tmpdir(), "imbra-old-"));
    chmodSync(old, 0o755);
    const data = join(old, ".data", "pg-one");
    mkdirSync(data, { recursive: true });
    if (isRoot) spawnSync("chown", ["postgres", data]);
    chmodSync(data, 0o700);
    const bin = spawnSync("sh", ["-c", "ls -d /usr/lib/postgresql/*/bin | tail -1"], { encoding: "utf8" }).stdout.trim();
    const port = "54680";
    expect(by(join(bin, "initdb"), ["-D", data, "-U", "imbra", "--auth=trust"]).status).toBe(0);
    const options = `-c listen_addresses=127.0.0.1 -p ${port} -c unix_socket_directories=${data}`;
    spawnSync(
      isRoot ? "runuser" : join(bin, "pg_ctl"),
      [...(isRoot ? ["-u", "postgres", "--", join(bin, "pg_ctl")] : []), "-D", data, "-w", "-o", options, "start"],
      { stdio: "ignore" },
    );
    const before = `postgres://imbra@127.0.0.1:${port}/`;
    select(`${before}postgres`, "create database imbra");
    select(
      `${before}imbra`,
      "create extension pg_trgm; create table kept (n serial, what text); insert into kept (what) values ('as it was'); create function f() returns int language sql as 'select 1'",
    );
    writeFileSync(join(data, "imbra-port"), port);
    writeFileSync(script.replace("run.mjs", "old.mjs"), readFileSync(script, "utf8").replace(JSON.stringify(folder), JSON.stringify(old)));
    const runOld = (...args: string[]) =>
      spawnSync(process.execPath, [script.replace("run.mjs", "old.mjs"), port, ...args], { encoding: "utf8", timeout: 60_000 });
    try {
      const url = urlOf(runOld())?.[1] ?? "";
      expect(spawnSync("psql", [`${before}imbra`, "-w", "-Atc", "select 1"], { encoding: "utf8" }).stdout).toBe("");
      expect(select(url, "select n, what from kept")).toBe("1|as it was");
      expect(select(url, "insert into kept (what) values ('new') returning n")).toContain("2");
      expect(select(url, "select rolsuper from pg_roles where rolname = current_user")).toBe("f");
      expect(select(url, "drop schema public cascade; create schema public; create extension pg_trgm; select 7")).toContain("7");
    } finally {
      runOld("--stop");
      rmSync(old, { recursive: true, force: true });
    }
  }, 120_000);
});

describe("npm start", () => {
  it("ends with one sentence where the database cannot be reached, and leaves nothing running", () => {
    const r = spawnSync(process.execPath, ["scripts/start.mjs"], {
      encoding: "utf8",
      timeout: 60_000,
      env: { ...process.env, DATABASE_URL: "postgres://imbra@127.0.0.1:9/imbra", PORT: "3997" },
    });
    expect(r.status).not.toBe(0);
    expect(r.stderr).toContain("The database could not be prepared. The lines above say why; nothing else was started.");
    expect(r.stderr).not.toMatch(/\n\s+at .*node_modules/);
  }, 90_000);
});

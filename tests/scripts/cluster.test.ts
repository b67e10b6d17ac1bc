import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
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
    expect(url?.[1]).toMatch(/^postgres:\/\/imbra@127\.0\.0\.1:\d+\/imbra$/);
    expect(Number(/:(\d+)\//.exec(url?.[1] ?? "")?.[1])).toBeGreaterThan(port);
    expect(select(url?.[1] ?? "", "select current_database(), inet_server_addr()")).toBe("imbra|127.0.0.1");
    expect(select(url?.[1] ?? "", "show listen_addresses")).toBe("127.0.0.1");
    expect(select(url?.[1] ?? "", "create table kept (n int); insert into kept values (7); select n from kept")).toContain("7");
  }, 120_000);
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

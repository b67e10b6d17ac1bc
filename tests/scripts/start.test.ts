import { spawn, spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { networkInterfaces } from "node:os";
import { afterAll, describe, expect, it } from "vitest";
import { ownHosts } from "../../scripts/processes.mjs";
import { freePort } from "../fixtures/second-server";

const NAME = "pg-start";
afterAll(() => {
  for (const f of [NAME, `${NAME}-password`]) rmSync(`.data/${f}`, { recursive: true, force: true });
});

/** Processes whose parent is this one, by what their command line holds. */
const childOf = (parent: number, words: string) =>
  readdirSync("/proc")
    .filter((p) => /^\d+$/.test(p))
    .map(Number)
    .find((pid) => {
      try {
        const ppid = Number(/^PPid:\s*(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1]);
        return ppid === parent && readFileSync(`/proc/${pid}/cmdline`, "utf8").includes(words);
      } catch {
        return false;
      }
    });

describe("npm start", () => {
  it("starts its database again when that is killed, under servers that stay; killed itself, its server says so, and the cluster stops", async () => {
    const port = await freePort();
    const { DATABASE_URL: _, ...env } = process.env;
    const start = spawn(process.execPath, ["scripts/start.mjs", "--without-demo"], {
      env: { ...env, PORT: String(port), IMBRA_CLUSTER: NAME },
      stdio: ["ignore", "pipe", "pipe"],
    });
    let out = "";
    for (const stream of [start.stdout, start.stderr])
      stream.on("data", (chunk) => {
        out += String(chunk);
      });
    const ended = new Promise<number | null>((resolve) => start.once("exit", resolve));
    await expect.poll(() => (start.exitCode === null ? out : `ended: ${out}`), { timeout: 150_000, interval: 300 }).toContain("Ctrl-C ends it.");
    expect((await fetch(`http://127.0.0.1:${port}/first`)).status).toBe(200);
    const pid = `.data/${NAME}/postmaster.pid`;
    expect(existsSync(pid)).toBe(true);
    const server = childOf(start.pid ?? 0, "server.mjs");
    if (!server) throw new Error("npm start has no server");
    spawnSync("pkill", ["-KILL", "-f", `${NAME}( |$)`]);
    await expect.poll(() => out, { timeout: 60_000, interval: 300 }).toContain("The database is back.");
    await expect.poll(async () => (await fetch(`http://127.0.0.1:${port}/first`)).status, { timeout: 30_000, interval: 300 }).toBe(200);
    expect(childOf(start.pid ?? 0, "server.mjs")).toBe(server);
    process.kill(server, "SIGKILL");
    expect(await ended).toBe(1);
    expect(out).toContain("The server was ended by SIGKILL. Nothing that was recorded is lost");
    expect(existsSync(pid)).toBe(false);
    await expect(fetch(`http://127.0.0.1:${port}/`)).rejects.toThrow();
  }, 200_000);
  it("answers to this machine's own names, and on all addresses to each of them; to no other", () => {
    expect(ownHosts("127.0.0.1")).toEqual(["localhost", "127.0.0.1", "[::1]"]);
    const every = Object.values(networkInterfaces()).flatMap((l) => (l ?? []).map((a) => (a.family === "IPv6" ? `[${a.address}]` : a.address)));
    expect(ownHosts("0.0.0.0")).toEqual(expect.arrayContaining(["localhost", ...every]));
    expect(ownHosts("192.0.2.7")).toEqual(expect.arrayContaining(["localhost", "192.0.2.7"]));
    expect(ownHosts("192.0.2.7")).not.toContain("192.0.2.8");
  });
});

// The processes that make the application: servers and planners, any number of either on one database.
import { spawn } from "node:child_process";
import { randomBytes } from "node:crypto";
import { hostname, networkInterfaces } from "node:os";
import { join } from "node:path";

/** The names that a server on `host` answers to: this machine's own, and where it listens on all addresses every one of them. */
export function ownHosts(host) {
  const names = ["localhost", "127.0.0.1", "[::1]"];
  if (names.includes(host)) return names;
  const every = Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((a) => (a.family === "IPv6" ? `[${a.address}]` : a.address)));
  return [...new Set([...names, hostname(), ...(host === "0.0.0.0" || host === "::" ? every : [host])])];
}

/** A server; `ready` resolves to whether it answers. */
export function startServer(project, env, { host, port, mostMs = 60_000 }) {
  const child = spawn(process.execPath, [join("scripts", "server.mjs")], {
    cwd: project,
    env: { ...env, HOST: host, PORT: String(port), IMBRA_HOSTS: env.IMBRA_HOSTS ?? ownHosts(host).join(), NODE_ENV: "production" },
    // Through the fourth it hears when this process is gone: then it ends too, and holds no port.
    stdio: ["ignore", "pipe", "inherit", "ipc"],
  });
  const ready = new Promise((resolve) => {
    const late = setTimeout(() => resolve(false), mostMs);
    const settle = (is) => {
      clearTimeout(late);
      resolve(is);
    };
    child.stdout.on("data", (chunk) => {
      if (String(chunk).includes("Ready")) settle(true);
    });
    child.once("exit", () => settle(false));
  });
  return { child, ready };
}

const AGAIN_MS = 1000;

/** The planner as the build made it, and as the sources are. */
const BUILT = [join(".data", "planner.mjs")];
export const SOURCES = ["--import", "tsx", join("workers", "planner.mts")];

/** A planner, started again when it ends by itself; `stop` ends it for good. */
export function startPlanner(project, env, program = BUILT) {
  let child;
  let stopped = false;
  const begin = () => {
    if (stopped) return;
    child = spawn(process.execPath, program, {
      cwd: project,
      env: { ...env, NODE_ENV: "production" },
      stdio: ["ignore", "ignore", "inherit", "ipc"],
    });
    child.once("exit", () => setTimeout(begin, AGAIN_MS).unref());
  };
  begin();
  return {
    stop: () => {
      stopped = true;
      child?.kill("SIGTERM");
    },
    /** The process that works now. */
    now: () => child,
  };
}

const SIMULATOR = [join(".data", "simulator.mjs")];
export const SIMULATOR_SOURCES = ["--import", "tsx", join("simulator", "main.mts")];
const SIMULATOR_MS = 20_000;

/**
 * The simulated machines, on a free port of this machine alone. Resolves to what servers have to know of them, or to nothing where they did
 * not start: then the shop has none, and says so.
 */
export function startSimulator(project, env, program = SIMULATOR) {
  const key = randomBytes(24).toString("base64url");
  const child = spawn(process.execPath, program, {
    cwd: project,
    env: { ...env, IMBRA_SIMULATOR_KEY: key, NODE_ENV: "production" },
    stdio: ["ignore", "pipe", "inherit", "ipc"],
  });
  const known = new Promise((resolve) => {
    const late = setTimeout(() => resolve({}), SIMULATOR_MS);
    const settle = (said) => {
      clearTimeout(late);
      resolve(said);
    };
    child.stdout.on("data", (chunk) => {
      const port = /Ready (\d+)/.exec(String(chunk))?.[1];
      if (port) settle({ IMBRA_SIMULATOR: `http://127.0.0.1:${port}`, IMBRA_SIMULATOR_KEY: key });
    });
    child.once("error", () => settle({}));
    child.once("exit", () => settle({}));
  });
  return { known, stop: () => child.kill("SIGTERM") };
}

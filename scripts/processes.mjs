// The processes that make the application: servers and planners, any number of either on one database.
import { spawn } from "node:child_process";
import { join } from "node:path";

/** A server; `ready` resolves to whether it answers. */
export function startServer(project, env, { host, port, mostMs = 60_000 }) {
  const child = spawn(process.execPath, [join(project, "node_modules/next/dist/bin/next"), "start", "-H", host, "-p", String(port)], {
    cwd: project,
    env: { ...env, NODE_ENV: "production" },
    stdio: ["ignore", "pipe", "inherit"],
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

/** A planner, started again when it ends by itself; `stop` ends it for good. */
export function startPlanner(project, env) {
  let child;
  let stopped = false;
  const begin = () => {
    if (stopped) return;
    child = spawn(process.execPath, ["--import", "tsx", join("workers", "planner.mts")], {
      cwd: project,
      env: { ...env, NODE_ENV: "production" },
      stdio: ["ignore", "ignore", "inherit"],
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

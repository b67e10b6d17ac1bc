import type { ChildProcess } from "node:child_process";
import { createServer } from "node:net";
import { startServer } from "../../scripts/processes.mjs";

export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const s = createServer();
    s.listen(0, "127.0.0.1", () => {
      const at = (s.address() as { port: number }).port;
      s.close(() => resolve(at));
    });
  });

/** One more server of the same application, by default on the same database. */
export async function secondServer(port: number, env: Record<string, string> = {}): Promise<ChildProcess> {
  const { child, ready } = startServer(process.cwd(), { ...process.env, ...env }, { host: "127.0.0.1", port });
  if (!(await ready)) throw new Error("the server did not start");
  return child;
}

/** Ends it at once, as a power cut would. */
export async function killed(server: ChildProcess | undefined): Promise<void> {
  if (!server || server.exitCode !== null || server.signalCode !== null) return;
  const gone = new Promise((resolve) => server.once("exit", resolve));
  server.kill("SIGKILL");
  await gone;
}

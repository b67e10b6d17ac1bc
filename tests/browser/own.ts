import { afterAll } from "vitest";
import { startPlanner, startServer, startSimulator } from "../../scripts/processes.mjs";
import { ownDatabase } from "../fixtures/own-database";
import { freePort } from "../fixtures/second-server";

// Before each file of this folder: a database, a server and a planner of its own. A server that is named by IMBRA_URL is used instead.
if (!process.env.IMBRA_URL) {
  const own = await ownDatabase("today");
  process.env.DATABASE_URL = own.url;
  const port = await freePort();
  const simulator = startSimulator(process.cwd(), process.env);
  const server = startServer(process.cwd(), { ...process.env, ...(await simulator.known) }, { host: "127.0.0.1", port });
  // Most files plan nothing.
  const planner = startPlanner(process.cwd(), { ...process.env, IMBRA_WARM: "no" });
  if (!(await server.ready)) throw new Error("the application did not start");
  process.env.IMBRA_URL = `http://127.0.0.1:${port}`;
  afterAll(async () => {
    planner.stop();
    simulator.stop();
    const gone = new Promise((resolve) => server.child.once("exit", resolve));
    server.child.kill("SIGTERM");
    await Promise.race([gone, new Promise((resolve) => setTimeout(resolve, 6000))]);
    server.child.kill("SIGKILL");
    delete process.env.IMBRA_URL;
    await own.drop();
  });
}

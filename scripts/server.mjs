// The server's process: node's own, in front of the framework. Entries of benches are answered before it (server/entries/answer-entry.ts),
// everything else by it. HOST, PORT; says "Ready" once it answers; SIGTERM and SIGINT: takes no more, ends what is under way, then exits.
import { createServer } from "node:http";
import { dirname, join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import next from "next";
import { trueAddress } from "./true-address.mjs";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
const hostname = process.env.HOST ?? "127.0.0.1";
const port = Number(process.env.PORT ?? 3000);

const pages = next({ dev: false, dir: project, hostname, port });
const [{ answerEntry, bringsEntry }] = await Promise.all([import(pathToFileURL(join(project, ".data", "entries.mjs")).href), pages.prepare()]);
const answer = pages.getRequestHandler();

const server = createServer((req, res) => {
  trueAddress(req);
  const answered = bringsEntry(req) ? answerEntry(req, res) : answer(req, res);
  answered.catch((e) => {
    console.error(e);
    if (!res.headersSent) res.statusCode = 500;
    res.end("The server failed at this and wrote why into its log.");
  });
});
// Longer than what may stand in front keeps a connection that rests (a minute, common practice): whoever closes first must be that.
server.keepAliveTimeout = 75_000;
server.headersTimeout = 80_000;
server.once("error", (e) => {
  console.error(e);
  process.exit(1);
});
server.listen(port, hostname, () => console.log("Ready"));

let ending = false;
function end(code) {
  if (ending) return;
  ending = true;
  // A stream that ended leaves its connection resting, which a closed server would wait for as long as it keeps one.
  setInterval(() => server.closeIdleConnections(), 100).unref();
  server.close(async () => {
    await pages.close().catch(console.error);
    process.exit(code);
  });
}
process.on("SIGTERM", () => end(143));
process.on("SIGINT", () => end(130));
// Whoever started this is gone, and nobody reads what is written: to complain of that would go on for ever.
for (const out of [process.stdout, process.stderr]) out.on("error", () => {});
process.on("disconnect", () => {
  end(0);
  setTimeout(() => process.exit(0), 5000).unref();
});

// The simulated machines: a process of its own on this machine alone. IMBRA_SIMULATOR_KEY is asked of whoever calls; IMBRA_SIMULATOR_PORT
// is where it answers (0: any), said in a line "Ready PORT". With a build file as its argument it is one machine at a terminal.
import { randomUUID, timingSafeEqual } from "node:crypto";
import { readFileSync } from "node:fs";
import { createServer, type IncomingMessage } from "node:http";
import { createInterface } from "node:readline";
import { z } from "zod";
import { readShelf } from "../cli/shelf";
import { Build, readBuildText } from "../core/assembly";
import { DEEDS, type Deed, hiddenIn, SimulatedMachine } from "./machine";
import { REPORTS, type ReportName, reportOf } from "./reports";
import { Sender } from "./sender";

const MOST_MACHINES = 20;
const MOST_BYTES = 8_000_000;
const TICK_MS = 200;
const STEP_S = 5;
/** A machine that nobody looked at for so long is put away. */
const FORGOTTEN_MS = 6 * 3_600_000;
const FASTEST = 600;

const New = z.strictObject({
  build: Build,
  modes: z.record(z.string(), z.string()).default({}),
  hide: z.object({ count: z.number().int().min(0).max(3), seed: z.number().int() }).optional(),
  post: z.strictObject({ url: z.url({ protocol: /^https?$/ }), token: z.string().min(20).max(200) }).optional(),
});
const Do = z.strictObject({
  deed: z.enum(Object.keys(DEEDS) as [Deed, ...Deed[]]).optional(),
  element: z.string().max(200).optional(),
  faster: z.number().min(1).max(FASTEST).optional(),
  build: Build.optional(),
  hunt: z
    .strictObject({ line: z.string().max(200).optional(), deed: z.string().max(300).optional(), lines: z.array(z.string().max(200)).max(200) })
    .optional(),
});

interface Kept {
  machine: SimulatedMachine;
  sender?: Sender | undefined;
  lookedAt: number;
}

const machines = new Map<string, Kept>();
let before = performance.now();
setInterval(() => {
  const now = performance.now();
  for (const [id, kept] of machines) {
    // In steps of its own seconds, so that its readings are as close as those of a machine.
    for (let left = (now - before) / 1000; left > 0; left -= STEP_S / kept.machine.faster) {
      kept.machine.pass(Math.min(left, STEP_S / kept.machine.faster));
      kept.sender?.look(kept.machine);
    }
    if (now - kept.lookedAt > FORGOTTEN_MS) machines.delete(id);
  }
  before = now;
}, TICK_MS);

class Refused extends Error {
  constructor(
    readonly status: number,
    sentence: string,
  ) {
    super(sentence);
  }
}

async function bodyOf(req: IncomingMessage): Promise<unknown> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const p of req) {
    size += (p as Buffer).length;
    if (size > MOST_BYTES) throw new Refused(413, "What was sent is too large for one machine.");
    parts.push(p as Buffer);
  }
  try {
    return JSON.parse(Buffer.concat(parts).toString("utf8") || "{}");
  } catch {
    throw new Refused(400, "What was sent is no JSON.");
  }
}

function parsed<T extends z.ZodType>(schema: T, data: unknown): z.infer<T> {
  const r = schema.safeParse(data);
  if (!r.success) throw new Refused(400, `${r.error.issues[0]?.path.join(".") ?? ""}: ${r.error.issues[0]?.message ?? "is not understood"}`);
  return r.data;
}

async function answer(req: IncomingMessage): Promise<unknown> {
  const [, what, id, more, which] = (req.url ?? "/").split("?")[0]?.split("/") ?? [];
  if (what !== "machines") throw new Refused(404, "There is nothing here.");
  if (req.method === "POST" && id === undefined) {
    if (machines.size >= MOST_MACHINES) throw new Refused(409, `${MOST_MACHINES} simulated machines stand here already. Put one away.`);
    const given = parsed(New, await bodyOf(req));
    const hidden = { ...given.modes, ...(given.hide ? hiddenIn(given.build, given.hide.count, given.hide.seed) : {}) };
    const made = randomUUID();
    machines.set(made, {
      machine: new SimulatedMachine(given.build, hidden),
      sender: given.post && new Sender(given.post.url, given.post.token),
      lookedAt: performance.now(),
    });
    return { id: made };
  }
  const kept = machines.get(id ?? "");
  if (!kept) throw new Refused(404, "That simulated machine is not there any more.");
  kept.lookedAt = performance.now();
  const { machine } = kept;
  if (req.method === "DELETE") {
    machines.delete(id ?? "");
    return { hidden: machine.hidden };
  }
  if (req.method === "POST") {
    const d = parsed(Do, await bodyOf(req));
    if (d.hunt) return machine.hunt(d.hunt);
    if (d.faster !== undefined) machine.faster = d.faster;
    const said = d.build ? machine.become(d.build) : d.deed ? machine.do(d.deed, d.element) : "";
    return { said, state: machine.state() };
  }
  if (more === "report") {
    const told = machine.told;
    if (!told) throw new Refused(409, "No system runs on it, so it can say nothing of itself.");
    if (!REPORTS.includes(which as ReportName)) throw new Refused(404, "It writes no such report.");
    return { text: reportOf(told, which as ReportName) };
  }
  if (more === "hidden") return { hidden: machine.hidden };
  return { state: machine.state(), sending: kept.sender?.stands ?? null };
}

function serve(key: string): void {
  const server = createServer((req, res) => {
    const said = (status: number, body: unknown) => {
      res.writeHead(status, { "Content-Type": "application/json", "Cache-Control": "no-store" });
      res.end(JSON.stringify(body));
    };
    const [is, should] = [Buffer.from(String(req.headers["x-imbra-key"] ?? "")), Buffer.from(key)];
    if (is.length !== should.length || !timingSafeEqual(is, should)) return said(403, { sentence: "This is for the shop's own server alone." });
    answer(req).then(
      (body) => said(200, body),
      (e: unknown) => {
        if (e instanceof Refused) return said(e.status, { sentence: e.message });
        console.error(e);
        said(500, { sentence: "The simulated machine failed at this." });
      },
    );
  });
  server.listen(Number(process.env.IMBRA_SIMULATOR_PORT ?? 0), "127.0.0.1", () => {
    const at = server.address();
    console.log(`Ready ${typeof at === "object" ? at?.port : ""}`);
  });
  const end = () => {
    server.close();
    process.exit(0);
  };
  process.on("SIGTERM", end);
  process.on("SIGINT", end);
  // Whoever started this is gone: so is this.
  process.on("disconnect", end);
  for (const out of [process.stdout, process.stderr]) out.on("error", () => {});
}

/** One machine at a terminal: a word a line. */
function atTerminal(file: string, assigned: readonly string[]): void {
  const shelf = readShelf();
  const read = readBuildText(readFileSync(file, "utf8"), shelf);
  if (!read.ok) {
    for (const f of read.faults) console.error(f);
    process.exit(2);
  }
  const partTypes = [...new Map([...shelf, ...read.build.partTypes].map((t) => [t.id, t])).values()];
  const machine = new SimulatedMachine(
    { ...read.build, partTypes },
    Object.fromEntries(assigned.map((a) => [a.slice(0, a.lastIndexOf("=")), a.slice(a.lastIndexOf("=") + 1)])),
  );
  machines.set("terminal", { machine, lookedAt: Number.POSITIVE_INFINITY });
  console.log(
    `Simulated: ${read.build.name}. ${Object.keys(DEEDS).join(", ")} (with an element where it needs one), move LEAD PORT, faster N, look, report NAME, end.`,
  );
  createInterface({ input: process.stdin })
    .on("line", (l) => {
      const [word = "", ...rest] = l.trim().split(/\s+/);
      const about = rest.join(" ");
      if (word === "end") process.exit(0);
      else if (word === "faster") machine.faster = Math.min(FASTEST, Math.max(1, Number(about) || 1));
      else if (word === "report") {
        const told = machine.told;
        console.log(
          !told ? "No system runs on it." : REPORTS.includes(about as ReportName) ? reportOf(told, about as ReportName) : REPORTS.join(", "),
        );
      } else if (word === "move") {
        const [lead, port] = rest;
        const connections = read.build.connections.map((c) => (c.lead === lead && port !== undefined ? { ...c, port } : c));
        console.log(machine.become({ ...read.build, partTypes, connections }));
      } else if (word in DEEDS) console.log(machine.do(word as Deed, about));
      else console.log(JSON.stringify(machine.state(), null, 1));
    })
    .on("close", () => process.exit(0));
}

const [file, ...assigned] = process.argv.slice(2);
if (file) atTerminal(file, assigned);
else if (process.env.IMBRA_SIMULATOR_KEY) serve(process.env.IMBRA_SIMULATOR_KEY);
else {
  console.error("Give a build file (npm run simulate -- FILE [element=mode] …), or IMBRA_SIMULATOR_KEY to serve.");
  process.exit(2);
}

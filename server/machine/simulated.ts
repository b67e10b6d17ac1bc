import { z } from "zod";
import { type Build, isDone } from "../../core/assembly";
import { MachineToken } from "../../db";
import { buildOfJob, findJob } from "../build/build-of-job";
import { act } from "../faults/act";
import { see } from "../first-boot/observe";
import { fillIn } from "../first-boot/report";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, key } from "../kernel/text";
import { jobAction, query } from "../unit/action";
import { admit } from "./let-in";

const MOST_MS = 5000;
const HOURS = 12;
const NONE = "No simulated machines run beside this server. npm start begins them.";

/** A question to the process of the simulated machines: its answer, or why there is none. */
async function ask<T>(method: "GET" | "POST" | "DELETE", path: string, body?: unknown): Promise<Result<T>> {
  const [at, secret] = [process.env.IMBRA_SIMULATOR, process.env.IMBRA_SIMULATOR_KEY];
  if (!at || !secret) return no(NONE);
  try {
    const r = await fetch(`${at}${path}`, {
      method,
      headers: { "x-imbra-key": secret, "Content-Type": "application/json" },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(MOST_MS),
    });
    const said = (await r.json()) as T & { sentence?: string };
    return r.ok ? yes(said) : no(said.sentence ?? "The simulated machine refused.");
  } catch {
    return no("The simulated machine does not answer. What it sent so far is kept. Put it away and begin anew.");
  }
}

/** What of a simulated machine is shown: what somebody before it would see, hear and read. */
const State = z.object({
  simulated: z.literal(true),
  name: z.string(),
  clockS: z.number(),
  faster: z.number(),
  mains: z.boolean(),
  on: z.boolean(),
  sinceS: z.number(),
  standbyLit: z.boolean(),
  fans: z.array(z.object({ id: z.string(), part: z.string(), name: z.string(), turns: z.boolean(), rpm: z.number().optional() })),
  lights: z.array(z.object({ id: z.string(), part: z.string(), name: z.string(), lit: z.boolean() })),
  stage: z.string(),
  screen: z.array(z.string()),
  noiseDb: z.number(),
  loaded: z.boolean(),
  profile: z.boolean(),
  readings: z.record(z.string(), z.number()),
  busy: z.object({ words: z.string(), untilS: z.number() }).nullable(),
  said: z.array(z.string()),
});
export type SimulatedState = z.infer<typeof State>;
export interface SimulatedView {
  /** Null: none stands beside this job. */
  state: SimulatedState | null;
  /** Why there is none to be had, or what is wrong with it. */
  sentence: string;
  /** There is one on record, whether it answers or not: it can be put away. */
  stands: boolean;
  sending: string;
}

/** As built: what hands plugged, with the part types that it names. */
const asBuilt = (build: Build): Build => ({ ...build, connections: build.connections.filter(isDone), accessories: [] });

const standing = (job: string) => ({ job, simulated: { $ne: null }, withdrawnAt: null, until: { $gt: new Date() } });

export const beginSimulated = jobAction({
  name: "machine.simulated-begin",
  permission: "record",
  input: z.object({
    number: JobNumber,
    /** So many faults are hidden in it, for whoever trains. */
    hide: z.number().int().min(0).max(2),
    /** Number of the exercise: the same hides the same. */
    exercise: z.number().int().min(1).max(999_999).optional(),
    /** Where this shop answers, as the page has it. */
    address: z.url({ protocol: /^https?$/ }).max(200),
  }),
  run: async (unit, { hide, exercise, address }): Promise<Result> => {
    const before = await unit.tx.findOne(MachineToken, standing(unit.job.id));
    if (before) return no("A simulated machine stands here already. Put it away first. Nothing was changed.");
    const hours = HOURS;
    const admitted = await admit(unit, { hours, name: "simulated machine", simulated: "" });
    if (!admitted.ok) return admitted;
    const made = await ask<{ id: string }>("POST", "/machines", {
      build: asBuilt((await unit.build()).build),
      ...(hide > 0 ? { hide: { count: hide, seed: exercise ?? unit.when.arrived.getTime() % 2 ** 31 } } : {}),
      post: { url: ownAddress(address), token: admitted.value.token },
    });
    if (!made.ok) return made;
    const row = await unit.tx.findOneOrFail(MachineToken, { id: admitted.value.id });
    row.simulated = made.value.id;
    return yes(undefined);
  },
});

/** The simulated machine posts to this server and to no other, whatever a page says: only the port is the page's. */
function ownAddress(said: string): string {
  const { port, protocol } = new URL(said);
  const host = process.env.HOST && process.env.HOST !== "0.0.0.0" && process.env.HOST !== "::" ? process.env.HOST : "127.0.0.1";
  return `http://${host}:${process.env.PORT ?? (port || (protocol === "https:" ? "443" : "80"))}/machine`;
}

export const simulatedView = query({
  name: "machine.simulated",
  input: z.object({ number: JobNumber }),
  run: async (em, { number }): Promise<Result<SimulatedView>> => {
    const job = await findJob(em, number);
    if (!job) return no(`There is no job ${number}.`);
    const row = await em.findOne(MachineToken, standing(job.id));
    if (!row) return yes({ state: null, sentence: process.env.IMBRA_SIMULATOR ? "" : NONE, stands: false, sending: "" });
    const said = await ask<{ state: unknown; sending: { sent: number; sentence: string } | null }>("GET", `/machines/${row.simulated}`);
    if (!said.ok) return yes({ state: null, sentence: said.sentence, stands: true, sending: "" });
    const state = State.safeParse(said.value.state);
    if (!state.success)
      return yes({ state: null, sentence: "The simulated machine said something that is not understood.", stands: true, sending: "" });
    const s = said.value.sending;
    return yes({ state: state.data, sentence: "", stands: true, sending: s?.sentence || (s ? `${s.sent} readings sent` : "") });
  },
});

const DEEDS = ["mains", "press", "load", "profile", "seat", "swap"] as const;

/** Hands, or the firmware's keys, on the simulated machine. It changes nothing of the record. */
export const onSimulated = query({
  name: "machine.simulated-do",
  permission: "record",
  changes: true,
  input: z.object({
    number: JobNumber,
    deed: z.enum(DEEDS).optional(),
    element: key(200).optional(),
    faster: z.number().min(1).max(600).optional(),
    /** Plug it as the record has it now. */
    asRecorded: z.boolean().default(false),
  }),
  run: async (em, { number, deed, element, faster, asRecorded }): Promise<Result<string>> => {
    const job = await findJob(em, number);
    const row = job && (await em.findOne(MachineToken, standing(job.id)));
    if (!job || !row) return no("No simulated machine stands beside this job. Begin one.");
    const build = asRecorded ? asBuilt((await buildOfJob(em, job)).build) : undefined;
    const said = await ask<{ said: string }>("POST", `/machines/${row.simulated}`, {
      ...(deed ? { deed } : {}),
      ...(element ? { element } : {}),
      ...(faster ? { faster } : {}),
      ...(build ? { build } : {}),
    });
    return said.ok ? yes(said.value.said) : said;
  },
});

/** The simulated machine's own reports fill in the sheet as report files do. */
export const readSimulated = jobAction({
  name: "machine.simulated-read",
  permission: "record",
  input: z.object({ number: JobNumber }),
  run: async (unit): Promise<Result<{ lines: number; otherwise: string[] }>> => {
    const row = await unit.tx.findOne(MachineToken, standing(unit.job.id));
    if (!row) return no("No simulated machine stands beside this job. Nothing was read.");
    let lines = 0;
    const otherwise: string[] = [];
    for (const which of ["lshw", "sensors"]) {
      const told = await ask<{ text: string }>("GET", `/machines/${row.simulated}/report/${which}`);
      if (!told.ok) return told;
      const filled = await fillIn(unit, { name: `${row.name}, ${which}`, text: told.value.text, simulated: true });
      if (!filled.ok) return filled;
      lines += filled.value.lines;
      otherwise.push(...filled.value.otherwise);
    }
    return yes({ lines, otherwise });
  },
});

/**
 * The simulated machine that stands here is looked at, or something is done about a fault of its own; what came of it counts in the
 * exercise, and nowhere else.
 */
export const huntSimulated = jobAction({
  name: "faults.simulated",
  permission: "record",
  input: z.union([
    z.strictObject({ number: JobNumber, line: key(200) }),
    z.strictObject({ number: JobNumber, fault: z.number().int().min(1), deed: key(300) }),
  ]),
  run: async (unit, asked): Promise<Result<string>> => {
    const row = await unit.tx.findOne(MachineToken, standing(unit.job.id));
    if (!row) return no("No simulated machine stands beside this job. Nothing was done.");
    const hunt = (what: object) => ask<{ value?: string; result?: string }>("POST", `/machines/${row.simulated}`, { hunt: what });
    if ("line" in asked) {
      const said = await hunt({ line: asked.line, lines: [] });
      if (!said.ok) return said;
      const { value } = said.value;
      if (value === undefined) return no("The simulated machine shows nothing of that line. Nothing was stored.");
      const stored = await see(unit, { lines: [{ line: asked.line, value }], unseenOnly: false }, true);
      return stored.ok ? yes(value) : stored;
    }
    const f = (await unit.faults.open()).find((x) => x.number === asked.fault);
    if (!f) return no(`Fault ${asked.fault} is not open. Nothing was done.`);
    if (!f.simulated) return no(`Fault ${f.number} was seen of the machine itself: of that a stand-in says nothing. Nothing was done.`);
    const said = await hunt({ deed: asked.deed, lines: f.lines });
    if (!said.ok) return said;
    const result = said.value.result ?? "";
    const stored = await act(unit, { number: unit.job.number, fault: f.number, deed: asked.deed, result });
    return stored.ok ? yes(result) : stored;
  },
});

/** Does a simulated machine stand beside the job? */
export const simulatedStands = query({
  name: "machine.simulated-stands",
  input: z.object({ number: JobNumber }),
  run: async (em, { number }): Promise<Result<boolean>> => {
    const job = await findJob(em, number);
    return yes(job ? (await em.count(MachineToken, standing(job.id))) > 0 : false);
  },
});

/** Puts it away, and says what was hidden in it. */
export const endSimulated = jobAction({
  name: "machine.simulated-end",
  permission: "record",
  onClosed: true,
  input: z.object({ number: JobNumber }),
  run: async (unit): Promise<Result<string[]>> => {
    const row = await unit.tx.findOne(MachineToken, standing(unit.job.id));
    if (!row) return no("No simulated machine stands beside this job.");
    const said = await ask<{ hidden: { element: string; mode: string; still: boolean }[] }>("DELETE", `/machines/${row.simulated}`);
    row.withdrawnAt = unit.when.arrived;
    unit.emit("machine-shut-out", { name: row.name });
    // An exercise ends with its machine.
    for (const f of await unit.faults.open()) if (f.simulated) unit.faults.close(f, "Put away with the simulated machine");
    if (!said.ok) return yes([]);
    const { graph } = await unit.build();
    const nameOf = (element: string) => {
      const [lead, port] = element.split("@");
      const [l, p] = [graph.leads.get(lead ?? ""), graph.ports.get(port ?? "")];
      const part = graph.parts.get(element);
      return l && p ? `${l.tag} in ${p.name}` : (part?.part.label ?? part?.type.name ?? element);
    };
    return yes(said.value.hidden.map((h) => `${nameOf(h.element)}: ${h.mode}${h.still ? "" : ", put right"}`));
  },
});

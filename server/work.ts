import { z } from "zod";
import { Address, buildGraph, type Connection, lead as leadOf, port as portOf } from "../core/assembly";
import { closesRing } from "../core/brings";
import { family, mate } from "../core/catalogue";
import { asExpected as isAsExpected, powerOn } from "../core/machine";
import { type EntityManager, Fault, Job, JobPart, type JobRow, Link, LockMode, Observation, ShelfType, StepDone, type TechnicianRow } from "../db";
import { buildOfJob, type JobBuild } from "./build-of-job";
import { alreadyKept, log } from "./log";
import { done, no, type Result } from "./result";

const Number_ = z.string().min(1).max(40);
const EntryKey = z.string().max(80).optional();

/** A tick at the bench: this lead is in this port now; or it is out again. `sawPort` is where the screen showed it. */
export const Tick = z.object({
  number: Number_,
  lead: Address,
  port: Address,
  place: z.array(z.number().int().min(1).max(30)).max(10).optional(),
  state: z.enum(["planned", "plugged", "checked"]),
  sawPort: Address.optional(),
  entryKey: EntryKey,
});
export type Tick = z.infer<typeof Tick>;

/** One entry at a time for a job: the next waits for the last. An entry that was kept already is not kept twice; a refused one changes nothing. */
export async function withJob(
  em: EntityManager,
  entry: { number: string; entryKey?: string | undefined },
  work: (tx: EntityManager, job: JobRow, b: JobBuild) => Promise<Result>,
): Promise<Result> {
  try {
    return await em.transactional(async (tx) => {
      const job = await tx.findOne(Job, { number: entry.number }, { lockMode: LockMode.PESSIMISTIC_WRITE });
      if (!job) return no(`There is no job ${entry.number}. Nothing was changed.`);
      if (await alreadyKept(tx as EntityManager, entry.entryKey)) return done();
      const said = await work(tx as EntityManager, job, await buildOfJob(tx as EntityManager, job));
      if (!said.ok) throw new Refused(said);
      return said;
    });
  } catch (e) {
    if (e instanceof Refused) return e.said;
    throw e;
  }
}

/** A refusal takes back what was written before it: "nothing was changed" is always true. */
class Refused extends Error {
  constructor(readonly said: Result) {
    super("refused");
  }
}

const busy = (b: JobBuild, port: string, place: number[] | undefined, except: string) =>
  b.build.connections.find((c) => c.port === port && c.lead !== except && (!c.place || !place || c.place.some((x) => place.includes(x))));

export async function tick(em: EntityManager, by: TechnicianRow, t: Tick): Promise<Result> {
  return withJob(em, t, async (tx, job, b) => {
    const l = b.graph.leads.get(t.lead);
    const p = b.graph.ports.get(t.port);
    if (!l || !p)
      return no(`The parts of ${t.number} have changed: ${l ? t.port : t.lead} is no longer in it. Nothing was changed. Look at the wiring again.`);
    const link = await tx.findOne(Link, { job: job.id, lead: t.lead });
    // Two benches at once: what this screen saw is no longer so, and the other did not say the same.
    if (link && t.sawPort !== undefined && link.port !== t.sawPort && link.port !== t.port) {
      const elsewhere = portOf(b.graph, link.port).name;
      const fact = link.state === "plugged" || link.state === "checked" ? `is in ${elsewhere} by another entry` : `is now planned for ${elsewhere}`;
      return no(`${l.tag} ${fact}, and you say ${p.name}. Look at the plug, then choose. Nothing was changed.`);
    }
    const m = mate(l.lead.family, p.port.family, l.lead.key, p.port.key);
    if (m.outcome === "keyed" && t.state !== "planned") return no(`${l.tag} does not go into ${p.name}: ${m.because}. Nothing was changed.`);
    const wanted = t.place ?? (link?.port === t.port ? (link.place ?? undefined) : undefined);
    const other = busy(b, t.port, wanted, t.lead);
    if (other && t.state !== "planned") {
      const o = leadOf(b.graph, other.lead);
      if (other.state !== "planned") return no(`${p.name} already holds ${o.tag} (${o.name}). Take that out first. Nothing was changed.`);
      // The plan wanted another plug there: it is free again and the plan no longer whole.
      await tx.nativeDelete(Link, { job: job.id, lead: other.lead });
      log(tx, job, by, "free", `${o.tag} (${o.name}) lost its place in ${p.name}.`);
    }
    const plannedPort = link ? (link.plannedPort ?? (link.state === "planned" || link.state === "fixed" ? link.port : null)) : null;
    const moved = plannedPort !== null && plannedPort !== t.port;
    const back = t.state === "planned";
    // Taken out of where it never belonged: it is free again, not planned for there.
    if (back && plannedPort === null && link && m.outcome !== "fits" && m.outcome !== "loss") {
      tx.remove(link);
      log(tx, job, by, "unplug", `${l.tag} (${l.name}) taken out of ${p.name}.`, t.entryKey ? { entryKey: t.entryKey } : {});
      return done();
    }
    const port = back ? (plannedPort ?? t.port) : t.port;
    const place = t.place ?? (link && link.port === port ? link.place : null) ?? null;
    if (link) Object.assign(link, { port, place, state: t.state, plannedPort: back ? null : plannedPort, changedAt: new Date() });
    else tx.create(Link, { job, lead: t.lead, port, place, state: t.state, plannedPort: null, why: "", planRevision: null, changedAt: new Date() });
    const words = { planned: "taken out of", plugged: "plugged into", checked: "checked in" }[t.state];
    log(
      tx,
      job,
      by,
      t.state === "planned" ? "unplug" : t.state,
      `${l.tag} (${l.name}) ${words} ${p.name}${moved && !back ? `, planned ${portOf(b.graph, plannedPort).name}` : ""}.`,
      { ...(t.entryKey ? { entryKey: t.entryKey } : {}), data: { lead: t.lead, port: t.port } },
    );
    if (job.stage === "planning" || job.stage === "intake") job.stage = "bench";
    return done();
  });
}

export const Fix = z.object({
  number: Number_,
  lead: Address,
  port: Address,
  place: z.array(z.number().int().min(1).max(30)).max(10).optional(),
  fixed: z.boolean(),
});

/** The technician decides where a lead goes; the planner keeps to it. Refuses what does not mate. */
export async function fix(em: EntityManager, by: TechnicianRow, f: z.infer<typeof Fix>): Promise<Result> {
  return withJob(em, f, async (tx, job, b) => {
    const l = b.graph.leads.get(f.lead);
    const p = b.graph.ports.get(f.port);
    if (!l || !p) return no(`The parts of ${f.number} have changed. Nothing was changed. Look at the wiring again.`);
    const m = mate(l.lead.family, p.port.family, l.lead.key, p.port.key);
    if (m.outcome === "keyed" || m.outcome === "harm")
      return no(`${l.tag} (${l.name}) does not go into ${p.name}: ${m.because}. Nothing was changed.`);
    if (f.fixed && closesRing(b.graph, l, p))
      return no(`${l.tag} (${l.name}) in ${p.name} would close a ring that nothing feeds. Nothing was changed.`);
    const link = await tx.findOne(Link, { job: job.id, lead: f.lead });
    if (link && (link.state === "plugged" || link.state === "checked"))
      return no(`${l.tag} is already plugged. Take it out first, then move it. Nothing was changed.`);
    const capacity = p.port.places ?? family(p.port.family).places;
    const there = b.build.connections.filter((c) => c.port === f.port && c.lead !== f.lead);
    const clash = there.filter((c) => (capacity === 1 ? true : !c.place || !f.place || c.place.some((x) => f.place?.includes(x))));
    const held = clash.find((c) => c.state !== "planned");
    if (held) return no(`${p.name} already holds ${leadOf(b.graph, held.lead).tag}, which is ${held.state}. Nothing was changed.`);
    for (const c of clash) await tx.nativeDelete(Link, { job: job.id, lead: c.lead });
    const state = f.fixed ? "fixed" : "planned";
    const samePlace = link?.port === f.port ? link.place : null;
    if (link)
      Object.assign(link, {
        port: f.port,
        place: f.place ?? samePlace,
        state,
        why: f.fixed ? `Fixed here by ${by.name}.` : link.why,
        changedAt: new Date(),
      });
    else
      tx.create(Link, {
        job,
        lead: f.lead,
        port: f.port,
        place: f.place ?? null,
        state,
        why: `Fixed here by ${by.name}.`,
        plannedPort: null,
        planRevision: null,
        changedAt: new Date(),
      });
    const bumped = clash.map((c) => leadOf(b.graph, c.lead).tag);
    log(
      tx,
      job,
      by,
      state,
      `${l.tag} (${l.name}) ${f.fixed ? "fixed in" : "no longer fixed in"} ${p.name}${bumped.length > 0 ? `; ${bumped.join(", ")} free again` : ""}.`,
    );
    return done();
  });
}

export const Step = z.object({
  number: Number_,
  step: z.string().min(1).max(200),
  title: z.string().max(300),
  done: z.boolean(),
  entryKey: EntryKey,
});

export async function step(em: EntityManager, by: TechnicianRow, s: z.infer<typeof Step>): Promise<Result> {
  return withJob(em, s, async (tx, job) => {
    const row = await tx.findOne(StepDone, { job: job.id, step: s.step });
    if (s.done && !row) tx.create(StepDone, { job, step: s.step, by, at: new Date() });
    if (!s.done && row) tx.remove(row);
    log(tx, job, by, s.done ? "step" : "undo", `${s.title}: ${s.done ? "done" : "undone"}.`, s.entryKey ? { entryKey: s.entryKey } : {});
    return done();
  });
}

export const Note = z.object({
  number: Number_,
  text: z.string().trim().min(1).max(2000),
  kind: z.enum(["note", "skip", "problem"]),
  entryKey: EntryKey,
});

export async function note(em: EntityManager, by: TechnicianRow, n: z.infer<typeof Note>): Promise<Result> {
  return withJob(em, n, async (tx, job, _b) => {
    log(tx, job, by, n.kind, n.text, n.entryKey ? { entryKey: n.entryKey } : {});
    if (n.kind === "problem") {
      const last = await tx.findOne(Fault, { job: job.id }, { orderBy: { number: "desc" } });
      tx.create(Fault, {
        job,
        number: (last?.number ?? 0) + 1,
        line: "bench",
        title: n.text,
        expected: "",
        seen: n.text,
        state: "open",
        tried: [],
        finding: null,
        openedBy: by,
        openedAt: new Date(),
        closedAt: null,
      });
    }
    return done();
  });
}

const Seen = z.object({ line: z.string().min(1).max(200), value: z.string().trim().min(1).max(120) });
export const Observe = z.object({ number: Number_, lines: z.array(Seen).min(1).max(200), entryKey: EntryKey });

/** What was seen at first boot. A mismatch opens a fault with the observation; the right value later does not close it. */
export async function observe(em: EntityManager, by: TechnicianRow, o: z.infer<typeof Observe>): Promise<Result> {
  return withJob(em, o, async (tx, job, b) => {
    const lines = new Map(powerOn(b.graph).lines.map((l) => [l.id, l]));
    if (o.lines.some((s) => !lines.has(s.line)))
      return no("A line is no longer on the sheet: the wiring changed. Nothing was stored. Look at the sheet again.");
    const faults = await tx.find(Fault, { job: job.id }, { orderBy: { number: "desc" }, limit: 500 });
    let last = faults[0]?.number ?? 0;
    for (const [n, seen] of o.lines.entries()) {
      const line = lines.get(seen.line);
      if (!line) continue;
      const unit = line.unit ? ` ${line.unit}` : "";
      const asExpected = isAsExpected(line, seen.value);
      const row = await tx.findOne(Observation, { job: job.id, line: seen.line });
      if (row) Object.assign(row, { value: seen.value, asExpected, at: new Date(), by });
      else tx.create(Observation, { job, line: seen.line, value: seen.value, asExpected, by, at: new Date() });
      const text = `${line.what}: ${seen.value}${unit}${asExpected ? ", as expected" : `; expected ${line.expected}${unit}`}.`;
      log(tx, job, by, "seen", text, n === 0 && o.entryKey ? { entryKey: o.entryKey } : {});
      if (asExpected || faults.some((f) => f.line === seen.line && f.state === "open")) continue;
      last += 1;
      const title = `${line.what}: ${seen.value}${unit}, expected ${line.expected}${unit}`;
      const opened = {
        expected: line.expected,
        seen: seen.value,
        state: "open",
        tried: [],
        finding: null,
        openedBy: by,
        openedAt: new Date(),
        closedAt: null,
      };
      tx.create(Fault, { job, number: last, line: seen.line, title, ...opened });
      log(tx, job, by, "fault", `Fault ${last} opened: ${line.what}.`);
    }
    if (["intake", "planning", "bench"].includes(job.stage)) job.stage = "first-boot";
    return done();
  });
}

export const Try = z.object({
  number: Number_,
  element: z.string().min(1).max(300),
  name: z.string().min(1).max(200),
  result: z.enum(["no change", "that was it"]),
  entryKey: EntryKey,
});

/** An action tried on all open faults at once: they are explained together. "That was it" closes them. */
export async function tryAction(em: EntityManager, by: TechnicianRow, t: z.infer<typeof Try>): Promise<Result> {
  return withJob(em, t, async (tx, job, b) => {
    const open = await tx.find(Fault, { job: job.id, state: "open" }, { limit: 200 });
    if (open.length === 0) return no("There is no open fault to try this on. Nothing was stored.");
    const lines = powerOn(b.graph).lines;
    const explained = open.filter((f) => lines.find((l) => l.id === f.line)?.leans.some((e) => e.id === t.element));
    const at = new Date();
    for (const f of explained) {
      f.tried = [...f.tried, { element: t.element, name: t.name, result: t.result, at: at.toISOString() }];
      if (t.result === "that was it") Object.assign(f, { state: "closed", closedAt: at, finding: t.name });
    }
    if (t.result === "that was it") {
      // The old symptoms were about the machine as it was: these lines are to be seen again.
      for (const f of explained) await tx.nativeDelete(Observation, { job: job.id, line: f.line });
    }
    log(
      tx,
      job,
      by,
      "tried",
      `${t.name}: ${t.result}.${t.result === "that was it" ? ` Closed: fault ${explained.map((f) => f.number).join(", ")}. Look at those lines again.` : ""}`,
      t.entryKey ? { entryKey: t.entryKey } : {},
    );
    return done();
  });
}

export const CloseFault = z.object({ number: Number_, fault: z.number().int().min(1), finding: z.string().trim().min(3).max(500) });

export async function closeFault(em: EntityManager, by: TechnicianRow, c: z.infer<typeof CloseFault>): Promise<Result> {
  return withJob(em, c, async (tx, job) => {
    const f = await tx.findOne(Fault, { job: job.id, number: c.fault, state: "open" });
    if (!f) return no(`Fault ${c.fault} is not open. Somebody may have closed it. Nothing was changed.`);
    Object.assign(f, { state: "closed", closedAt: new Date(), finding: c.finding });
    log(tx, job, by, "fault", `Fault ${f.number} closed: ${c.finding}.`);
    return done();
  });
}

export const ChangePart = z.object({
  number: Number_,
  part: z.string().min(1).max(80),
  type: z.string().min(1).max(80).optional(),
  serial: z.string().trim().max(80).optional(),
  label: z.string().trim().max(60).optional(),
});

/** Another type in place of a part, or its serial. A changed type makes the plan stale. */
export async function changePart(em: EntityManager, by: TechnicianRow, c: z.infer<typeof ChangePart>): Promise<Result> {
  return withJob(em, c, async (tx, job, b) => {
    const row = await tx.findOne(JobPart, { job: job.id, key: c.part });
    if (!row) return no(`${c.number} has no part ${c.part} any more. Nothing was changed.`);
    if (c.serial !== undefined) {
      row.serial = c.serial === "" ? null : c.serial;
      log(tx, job, by, "serial", `${row.label ?? c.part}: serial ${c.serial === "" ? "removed" : c.serial}.`);
    }
    if (c.label !== undefined && c.label !== (row.label ?? "")) {
      const there = b.build.parts.find((p) => p.label?.toLowerCase() === c.label?.toLowerCase() && p.id !== c.part);
      if (c.label !== "" && there) return no(`Another part is called ${c.label} already. Nothing was changed. Give this one a name of its own.`);
      log(tx, job, by, "part", `${row.label ?? b.types(row.type)?.name ?? c.part} is called ${c.label || "by its place"} now.`);
      row.label = c.label === "" ? null : c.label;
    }
    return c.type === undefined ? done() : swapPart(tx, by, job, b, c.part, c.type);
  });
}

/** Another type in place of a part. The same type again takes over its correction, where there is one. */
export async function swapPart(tx: EntityManager, by: TechnicianRow, job: JobRow, b: JobBuild, part: string, typeId: string): Promise<Result> {
  const row = await tx.findOne(JobPart, { job: job.id, key: part });
  if (!row) return no(`${job.number} has no part ${part} any more. Nothing was changed.`);
  const type = await tx.findOne(ShelfType, { id: typeId });
  if (!type) return no(`The shelf has no part type ${typeId}. Nothing was changed.`);
  const corrected = type.id === row.type && type.revision > row.typeRevision;
  if (type.id === row.type && !corrected) return done();
  const was = b.types(row.type);
  if (was && type.kind !== was.kind) return no(`${type.name} is a ${type.kind}, not a ${was.kind}. Nothing was changed.`);
  const own = (end: string) => end.startsWith(`${part}:`) || end.startsWith(`${part}/`);
  const touched = b.build.connections.find((x) => (x.state === "plugged" || x.state === "checked") && (own(x.lead) || own(x.port)));
  if (touched && !corrected)
    return no(`${row.label ?? was?.name ?? part} is plugged (${leadOf(b.graph, touched.lead).tag}). Take its plugs out first. Nothing was changed.`);
  Object.assign(row, { type: type.id, body: type.body, typeRevision: type.revision, ...(corrected ? {} : { serial: null }) });
  job.partsRevision += 1;
  await tx.flush();
  await dropLost(tx, job);
  log(
    tx,
    job,
    by,
    "part",
    corrected
      ? `${row.label ?? type.name}: revision ${type.revision} of ${type.name} taken over. The plan is stale.`
      : `${row.label ?? was?.name ?? part}: ${was?.name ?? typeId} replaced by ${type.name}. The plan is stale.`,
  );
  return done();
}

/** Connections whose ends no longer exist after a part changed. */
export async function dropLost(tx: EntityManager, job: JobRow): Promise<void> {
  const links = await tx.find(Link, { job: job.id });
  const b = await buildOfJob(tx, job);
  const g = buildGraph({ ...b.build, connections: [] as Connection[] }, b.types);
  for (const l of links) if (!g.leads.has(l.lead) || !g.ports.has(l.port)) tx.remove(l);
}

export const Setting = z.object({
  number: Number_,
  memoryProfile: z.boolean().optional(),
  cpuFanWarning: z.enum(["halt", "ignore"]).optional(),
  because: z.string().trim().max(500).optional(),
});

export async function setting(em: EntityManager, by: TechnicianRow, s: z.infer<typeof Setting>): Promise<Result> {
  return withJob(em, s, async (tx, job, b) => {
    if (s.cpuFanWarning === "ignore" && !s.because) return no("Ignoring the CPU fan warning needs a written reason. Nothing was changed.");
    job.settings = {
      ...b.build.settings,
      ...(s.memoryProfile === undefined ? {} : { memoryProfile: s.memoryProfile }),
      ...(s.cpuFanWarning ? { cpuFanWarning: s.cpuFanWarning } : {}),
    };
    const words = [
      s.memoryProfile === undefined ? "" : `memory profile ${s.memoryProfile ? "on" : "off"}`,
      s.cpuFanWarning ? `CPU fan warning: ${s.cpuFanWarning}${s.because ? ` (${s.because})` : ""}` : "",
    ]
      .filter(Boolean)
      .join("; ");
    log(tx, job, by, "setting", `Firmware setting: ${words}.`);
    return done();
  });
}

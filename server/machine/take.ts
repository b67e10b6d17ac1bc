import "server-only";
import { RateLimiterMemory } from "rate-limiter-flexible";
import { z } from "zod";
import { parseWith } from "../../core/assembly";
import { readReport } from "../../core/report";
import { type EntityManager, entityManager, MachineToken, Reading } from "../../db";
import { fillIn } from "../first-boot/report";
import { may, mayNot } from "../kernel/actor";
import { bodyAtMost } from "../kernel/body";
import { failed } from "../kernel/failed";
import { type LetIn, letIn } from "../kernel/machine-token";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, text } from "../kernel/text";
import { carryOut, jobAction } from "../unit/action";

const MOST_BYTES = 4_000_000;
const MOST_NAMES = 60;
const MOST_MOMENTS = 400;
/** Readings that one machine may leave: a day and more at five seconds. */
const MOST_READINGS = 20_000;
/** A clock that is so much ahead of the shop's is wrong. */
const AHEAD_MS = 120_000;
/** A clock's reading older than this is not of this stream. */
const OLDEST_MS = 72 * 3_600_000;

const Values = z
  .record(z.string().trim().min(1).max(80), z.number().min(-1000).max(100_000))
  .refine((r) => Object.keys(r).length <= MOST_NAMES, `at most ${MOST_NAMES} readings at a moment`);
const Moment = z.object({
  /** Seconds by the machine's own count; left out: when it comes. */
  atS: z.number().min(0).max(10_000_000).optional(),
  /** By its clock, ISO 8601. */
  at: z.iso.datetime({ offset: true }).optional(),
  readings: Values,
});
const Sent = z.object({ moments: z.array(Moment).min(1).max(MOST_MOMENTS, `at most ${MOST_MOMENTS} moments at once`) });

/** A machine that sends every second or slower is no flood. */
const often = new RateLimiterMemory({ points: 240, duration: 60 });

export interface Taken {
  readings: number;
  lines: number;
  notes: string[];
}

/** A report that a machine sent of itself: recorded as of whoever let it in. */
const machineReport = jobAction({
  name: "machine.report",
  permission: "record",
  input: z.object({ number: JobNumber, id: z.uuid(), text: text(MOST_BYTES) }),
  run: async (unit, r) => {
    const row = await unit.tx.findOne(MachineToken, { id: r.id, job: unit.job.id });
    return row ? fillIn(unit, { name: row.name, text: r.text, simulated: row.simulated !== null }) : no("There is no such token. Nothing was kept.");
  },
});

/** What a machine sends: readings of a moment or of many, or a report as its programs write it. */
export async function takeFromMachine(request: Request): Promise<{ status: number; body: Result<Taken> }> {
  try {
    const em = await entityManager();
    const who = await letIn(em, request.headers.get("authorization"));
    if (!who.ok) return { status: 401, body: who };
    const { value: machine } = who;
    if (!may(machine.actor, "record")) return { status: 403, body: no(`${mayNot(machine.actor, "record")} Nothing was kept.`) };
    const slow = await often.consume(machine.id).then(
      () => false,
      () => true,
    );
    if (slow) return { status: 429, body: no("More than 240 messages in a minute. Nothing of this one was kept. Send every second or slower.") };
    const raw = await bodyAtMost(request.body, MOST_BYTES);
    if (!raw) return { status: 413, body: no(`What was sent is larger than ${MOST_BYTES / 1_000_000} MB. Nothing of it was kept.`) };
    const body = await take(em, machine, raw.toString("utf8"));
    return { status: body.ok ? 200 : 400, body };
  } catch (e) {
    return { status: 500, body: failed(e) };
  }
}

async function take(em: EntityManager, machine: LetIn, sent: string): Promise<Result<Taken>> {
  const json = jsonOf(sent);
  const asMoments = json !== undefined && typeof json === "object" && json !== null && ("moments" in json || "readings" in json);
  if (asMoments) {
    const read = parseWith(Sent, "moments" in json ? json : { moments: [json] });
    return read.ok ? keep(em, machine, read.value.moments) : no("The readings were not understood. Nothing was kept.", read.faults);
  }
  const report = readReport(sent);
  if (typeof report === "string") return no(report);
  // Sensors are readings of a moment; whatever else a machine tells of itself fills in the sheet.
  if (report.from === "sensors") {
    const readings = Object.fromEntries(
      report.read
        .slice(0, MOST_NAMES)
        .flatMap((r) => (typeof r.value === "number" ? [[`${r.id.slice(r.id.indexOf(":") + 1)} ${r.unit ?? ""}`.trim(), r.value]] : [])),
    );
    if (Object.keys(readings).length === 0) return no("No sensor of it reads anything. Nothing was kept.");
    return keep(em, machine, [{ readings }]);
  }
  const filled = await carryOut(em.fork() as EntityManager, machine.actor, machineReport, { number: machine.number, id: machine.id, text: sent });
  return filled.ok ? yes({ readings: 0, lines: filled.value.lines, notes: filled.value.otherwise }) : filled;
}

const jsonOf = (sent: string): unknown => {
  try {
    return JSON.parse(sent);
  } catch {
    return undefined;
  }
};

async function keep(em: EntityManager, machine: LetIn, moments: z.infer<typeof Moment>[]): Promise<Result<Taken>> {
  const now = Date.now();
  const has = await em.count(Reading, { token: machine.id });
  if (has + moments.length > MOST_READINGS)
    return no(
      `${MOST_READINGS} readings are kept of this machine already. Nothing of these was. Keep them as a log at First boot, or send less often.`,
    );
  const notes = new Set<string>();
  const secondsOf = (m: z.infer<typeof Moment>): number => {
    if (m.atS !== undefined) return m.atS;
    const arrived = (now - machine.at.getTime()) / 1000;
    if (m.at === undefined) return arrived;
    const said = Date.parse(m.at);
    if (said > now + AHEAD_MS) {
      notes.add("The machine's clock is ahead of the shop's: those readings are dated by when they came. Set its clock.");
      return arrived;
    }
    if (said < now - OLDEST_MS) {
      notes.add("The machine's clock is days behind: those readings are dated by when they came. Set its clock.");
      return arrived;
    }
    return Math.max(0, (said - machine.at.getTime()) / 1000);
  };
  await em.insertMany(
    Reading,
    moments.map((m) => ({ token: machine.id, atS: secondsOf(m), at: new Date(now), values: m.readings })),
  );
  return yes({ readings: moments.length, lines: 0, notes: [...notes] });
}

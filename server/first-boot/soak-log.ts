import { z } from "zod";
import { MOST_THINNED, type Soak, soakOf } from "../../core/soak";
import { type EntityManager, SoakLog } from "../../db";
import { findJob } from "../build/build-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, line } from "../kernel/text";
import { jobAction, query } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { see } from "./observe";

const MOST_COLUMNS = 60;
const MOST_LOGS = 20;

const LOAD_WORDS: Partial<Record<Soak["verdict"], string>> = { held: "holds", "slowed down": "slows itself down", "too hot": "slows itself down" };

const Column = z.strictObject({
  name: line(120),
  part: z.enum(["cpu", "card", "drive", "board", "memory", "fan", "other"]),
  quantity: z.enum(["temperature", "clock", "power", "speed", "load"]),
});
/** Readings as a browser read and thinned them; a value that is missing is null. */
const Given = z
  .strictObject({
    atS: z.array(z.number().min(0).max(2_000_000)).min(2).max(MOST_THINNED),
    columns: z.array(Column).min(1).max(MOST_COLUMNS, `at most ${MOST_COLUMNS} columns; log fewer sensors`),
    values: z.array(z.array(z.number().min(-50).max(30_000).nullable()).max(MOST_THINNED)).max(MOST_COLUMNS),
  })
  .refine((r) => r.values.length === r.columns.length && r.values.every((v) => v.length === r.atS.length), "the columns are not of one length")
  .refine((r) => r.atS.every((s, i) => i === 0 || s >= (r.atS[i - 1] ?? 0)), "the time does not rise");
export type GivenReadings = z.infer<typeof Given>;

const whole = (r: GivenReadings) => ({ ...r, values: r.values.map((v) => v.map((x) => x ?? Number.NaN)), unknown: [], faults: [] });

/** Room, panels, fans, how the supply sounded: words of whoever was there. */
export const Conditions = line(300).default("");

/** A log joins the job, whoever or whatever read it; what it came to is worked out here. */
export async function joinSoak(
  unit: JobUnit,
  s: { name: string; readings: GivenReadings; conditions: string; simulated: boolean },
): Promise<Result<Soak>> {
  if ((await unit.tx.count(SoakLog, { job: unit.job.id })) >= MOST_LOGS) return no(`${MOST_LOGS} logs are kept already. Nothing was kept.`);
  const soak = soakOf(whole(s.readings));
  unit.tx.create(SoakLog, { job: unit.job, ...s, soak, by: unit.by, at: unit.when.happened });
  // What a log says of full load needs nobody's tick.
  const says = LOAD_WORDS[soak.verdict];
  if (says !== undefined) {
    const kept = await see(unit, { lines: [{ line: "cpu-load", value: says }], unseenOnly: false }, s.simulated);
    if (!kept.ok) return kept;
  }
  const because = soak.because[0] ?? "";
  unit.emit("soak-log", { name: s.name, verdict: soak.verdict, minutes: soak.minutes, because, ...(s.simulated ? { simulated: true } : {}) });
  return yes(soak);
}

/** A log of readings joins the job; what it came to is worked out here, whatever the browser says. */
export const keepSoakLog = jobAction({
  name: "boot.soak-log",
  permission: "record",
  input: z.object({ number: JobNumber, name: line(200).refine((s) => s.length > 0, "is missing"), readings: Given, conditions: Conditions }),
  run: (unit, s) => joinSoak(unit, { name: s.name, readings: s.readings, conditions: s.conditions, simulated: false }),
});

export interface SoakView {
  id: string;
  name: string;
  by: string;
  at: string;
  soak: Soak;
  simulated: boolean;
  conditions: string;
  readings: GivenReadings;
}

/** The logs of a job, the latest first; readings of the latest ones only. */
export async function soaksOf(em: EntityManager, jobId: string): Promise<SoakView[]> {
  const rows = await em.find(SoakLog, { job: jobId }, { orderBy: { at: "desc" }, limit: 3, populate: ["by"] });
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    by: r.by.name,
    at: r.at.toISOString(),
    soak: r.soak as Soak,
    simulated: r.simulated,
    conditions: r.conditions,
    readings: Given.parse(r.readings),
  }));
}

export const soakLogs = query({
  name: "boot.soak-logs",
  input: z.object({ number: JobNumber }),
  run: async (em, { number }): Promise<Result<SoakView[]>> => {
    const job = await findJob(em, number);
    return job ? yes(await soaksOf(em, job.id)) : no(`There is no job ${number}.`);
  },
});

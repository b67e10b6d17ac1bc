import { z } from "zod";
import { type ReadMoment, readingsOf, thinned } from "../../core/soak";
import { type EntityManager, MachineToken, Reading } from "../../db";
import { findJob } from "../build/build-of-job";
import { namedColumns } from "../first-boot/name-column";
import { Conditions, type GivenReadings, joinSoak } from "../first-boot/soak-log";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { jobAction, query } from "../unit/action";

const MOST_TOKENS = 10;
const MOST_COLUMNS = 60;
const MINUTE_S = 60;

/** Who may send to a job, and what came. */
export interface StreamView {
  id: string;
  name: string;
  by: string;
  until: string;
  /** It may still send. */
  open: boolean;
  simulated: boolean;
  /** Readings that wait to be kept as a log. */
  readings: number;
  /** By the machine's own count: readings of its last minute, and its minutes. */
  inLastMinute: number;
  minutes: number;
  /** When the last came, ISO 8601; null: none. */
  lastAt: string | null;
  last: Record<string, number>;
  /** What came, thinned; empty until it is two moments. */
  log: GivenReadings | null;
}

async function momentsOf(em: EntityManager, token: string): Promise<(ReadMoment & { at: Date })[]> {
  const rows = await em.find(Reading, { token }, { orderBy: { atS: "asc" }, limit: 20_000 });
  return rows.map((r) => ({ atS: r.atS, readings: r.values, at: r.at }));
}

function logOf(moments: readonly ReadMoment[], named: Parameters<typeof readingsOf>[1]): GivenReadings | null {
  const read = readingsOf(moments, named);
  if (read.atS.length < 2 || read.columns.length === 0) return null;
  const t = thinned(read);
  return { atS: t.atS, columns: read.columns.slice(0, MOST_COLUMNS), values: t.values.slice(0, MOST_COLUMNS) };
}

export const machineStreams = query({
  name: "machine.streams",
  input: z.object({ number: JobNumber }),
  run: async (em, { number }): Promise<Result<StreamView[]>> => {
    const job = await findJob(em, number);
    if (!job) return no(`There is no job ${number}.`);
    const tokens = await em.find(MachineToken, { job: job.id }, { orderBy: { at: "desc" }, limit: MOST_TOKENS, populate: ["by"] });
    const named = await namedColumns(em);
    const out: StreamView[] = [];
    for (const t of tokens) {
      const moments = await momentsOf(em, t.id);
      const open = t.withdrawnAt === null && t.until.getTime() > Date.now();
      if (!open && moments.length === 0) continue;
      const last = moments.at(-1);
      out.push({
        id: t.id,
        name: t.name,
        by: t.by.name,
        until: t.until.toISOString(),
        open,
        simulated: t.simulated !== null,
        readings: moments.length,
        inLastMinute: last ? moments.filter((m) => m.atS > last.atS - MINUTE_S).length : 0,
        minutes: last ? Math.round((last.atS - (moments[0]?.atS ?? 0)) / MINUTE_S) : 0,
        lastAt: last ? new Date(Math.max(...moments.map((m) => m.at.getTime()))).toISOString() : null,
        last: last?.readings ?? {},
        log: logOf(moments, named),
      });
    }
    return yes(out);
  },
});

/** What came joins the job as a log and is judged; the stream begins anew. */
export const keepStream = jobAction({
  name: "machine.keep-stream",
  permission: "record",
  input: z.object({ number: JobNumber, id: z.uuid(), conditions: Conditions }),
  run: async (unit, { id, conditions }) => {
    const token = await unit.tx.findOne(MachineToken, { id, job: unit.job.id });
    if (!token) return no("There is no such stream at this job. Nothing was kept.");
    const log = logOf(await momentsOf(unit.tx, token.id), await namedColumns(unit.tx));
    if (!log) return no("Fewer than two readings came that Imbra understands. Nothing was kept. Let it go on.");
    const said = await joinSoak(unit, { name: token.name, readings: log, conditions, simulated: token.simulated !== null });
    if (said.ok) await unit.tx.nativeDelete(Reading, { token: token.id });
    return said;
  },
});

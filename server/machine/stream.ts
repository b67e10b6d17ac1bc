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
const MOST_READINGS = 20_000;
const MOST_SHOWN = 2000;

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

/** The last readings of a stream, the oldest first. */
async function momentsOf(em: EntityManager, token: string, most = MOST_READINGS): Promise<ReadMoment[]> {
  const rows = await em.find(Reading, { token }, { orderBy: { atS: "desc" }, limit: most });
  return rows.reverse().map((r) => ({ atS: r.atS, readings: r.values }));
}

/** How many there are, over how long, how many in the machine's last minute, and when the last was heard. */
async function extentOf(em: EntityManager, token: string) {
  const [row] = await em.execute<{ n: number; first: number | null; last: number | null; minute: number; heard: string | Date | null }[]>(
    `select count(*)::int as "n", min("at_s") as "first", max("at_s") as "last", max("at") as "heard",
       (count(*) filter (where "at_s" > (select max("at_s") from "reading" where "token_id" = ?) - ${MINUTE_S}))::int as "minute"
     from "reading" where "token_id" = ?`,
    [token, token],
  );
  return {
    n: row?.n ?? 0,
    minutes: Math.round(((row?.last ?? 0) - (row?.first ?? 0)) / MINUTE_S),
    inLastMinute: row?.minute ?? 0,
    heard: row?.heard ? new Date(row.heard).toISOString() : null,
  };
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
      const is = await extentOf(em, t.id);
      const open = t.withdrawnAt === null && t.until.getTime() > Date.now();
      if (!open && is.n === 0) continue;
      // What is looked at while it comes: two hours and more at five seconds.
      const moments = is.n === 0 ? [] : await momentsOf(em, t.id, MOST_SHOWN);
      out.push({
        id: t.id,
        name: t.name,
        by: t.by.name,
        until: t.until.toISOString(),
        open,
        simulated: t.simulated !== null,
        readings: is.n,
        inLastMinute: is.inLastMinute,
        minutes: is.minutes,
        lastAt: is.heard,
        last: moments.at(-1)?.readings ?? {},
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

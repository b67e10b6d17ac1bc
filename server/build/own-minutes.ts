import { z } from "zod";
import { type History, MEASURES_SET } from "../../core/order";
import { type EntityManager, Shop } from "../../db";

/** The shop's own figures are worked out again after so long, ms. */
const KEPT_MS = 300_000;

const holder = globalThis as typeof globalThis & { imbraMinutes?: { at: number; of: Promise<History> } };

/** What a shop says of itself how long hands take, by measure, minutes. */
export const MinutesSaid = z.partialRecord(z.enum(MEASURES_SET), z.number().min(0.5, "at least half a minute").max(600, "at most 600 minutes"));

/** What hands really took, by measure: the median over all jobs, minutes, and of how many times; and what the shop says of itself. */
export async function ownMinutes(em: EntityManager): Promise<History> {
  const taken = await takenSoFar(em);
  const shop = await em.findOne(Shop, { id: 1 });
  const minutes = MinutesSaid.safeParse((shop?.defaults as { minutes?: unknown } | undefined)?.minutes ?? {}).data ?? {};
  const all = new Map(taken);
  for (const [measure, said] of Object.entries(minutes)) all.set(measure, { minutes: 0, times: 0, ...all.get(measure), said });
  return all;
}

function takenSoFar(em: EntityManager): Promise<History> {
  const known = holder.imbraMinutes;
  if (known && Date.now() - known.at < KEPT_MS) return known.of;
  const of = read(em);
  holder.imbraMinutes = { at: Date.now(), of };
  of.catch(() => {
    delete holder.imbraMinutes;
  });
  return of;
}

async function read(em: EntityManager): Promise<History> {
  const rows = await em.execute<{ measure: string; minutes: number; times: number }[]>(
    `select "measure", percentile_cont(0.5) within group (order by "seconds") / 60.0 as "minutes", count(*)::int as "times" from "step_time"
     group by "measure" limit 500`,
  );
  return new Map(rows.map((r) => [r.measure, { minutes: Number(r.minutes), times: r.times }]));
}

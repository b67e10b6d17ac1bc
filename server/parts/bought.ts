import type { Bought } from "../../core/offer";
import { type EntityManager, JobPart } from "../../db";
import { day } from "../kernel/text";

/** How the parts of a job come. */
export async function boughtOf(em: EntityManager, jobId: string): Promise<Bought[]> {
  const rows = await em.find(JobPart, { job: jobId }, { limit: 250 });
  return rows.map((r) => ({
    part: r.key,
    arrived: r.arrivedAt !== null && r.arrivedAt !== undefined,
    supplier: r.supplier ?? undefined,
    priceFrom: r.priceFrom ?? undefined,
    priceOn: day(r.priceOn) ?? undefined,
    availability: r.availability ?? undefined,
    orderedOn: day(r.orderedOn) ?? undefined,
    expectedOn: day(r.expectedOn) ?? undefined,
  }));
}

/** What a part type cost the last time, at another job. */
export interface LastPrice {
  price: number;
  supplier: string | null;
  on: string | null;
  job: string;
}

/** By type, the last price that was paid elsewhere. */
export async function lastPrices(em: EntityManager, jobId: string, types: readonly string[]): Promise<Record<string, LastPrice>> {
  if (types.length === 0) return {};
  const rows = await em.execute<{ type: string; price_cents: number; supplier: string | null; on: string | null; number: string }[]>(
    `select distinct on (p."type") p."type", p."price_cents", p."supplier", to_char(coalesce(p."price_on", p."arrived_at"::date), 'YYYY-MM-DD') as "on", j."number"
     from "job_part" p join "job" j on j."id" = p."job_id"
     where p."type" in (${types.map(() => "?").join(", ")}) and p."job_id" <> ? and p."price_cents" is not null
     order by p."type", coalesce(p."price_on", p."arrived_at"::date, j."created_at"::date) desc, j."number" desc`,
    [...types, jobId],
  );
  return Object.fromEntries(rows.map((r) => [r.type, { price: r.price_cents / 100, supplier: r.supplier, on: r.on, job: r.number }]));
}

import { Agreed, type OfferAsked, offerOf } from "../../core/offer";
import { type EntityManager, JobHead, type JobRow, Offer } from "../../db";
import { buildOfJob } from "../build/build-of-job";
import { Brief } from "../job/brief";
import { day } from "../kernel/text";
import { shopDefaults } from "../shop/defaults";

/** An offer as it was made, and who accepted it. */
export interface OfferView {
  count: number;
  body: Agreed;
  by: string;
  at: string;
  acceptedBy: string | null;
  acceptedOn: string | null;
}

export const MOST_OFFERS = 50;

export async function offersOf(em: EntityManager, jobId: string): Promise<OfferView[]> {
  const rows = await em.find(Offer, { job: jobId }, { orderBy: { count: "desc" }, limit: MOST_OFFERS, populate: ["by"] });
  return rows.map((r) => ({
    count: r.count,
    body: Agreed.parse(r.body),
    by: r.by.name,
    at: r.at.toISOString(),
    acceptedBy: r.acceptedBy ?? null,
    acceptedOn: day(r.acceptedOn),
  }));
}

/** Hours of work that the steps of the order take, in quarters. Nothing is known of it: none. */
async function hoursLikely(em: EntityManager, jobId: string): Promise<number> {
  const head = await em.findOne(JobHead, { job: jobId });
  return Math.ceil((head?.minutes ?? 0) / 15) / 4;
}

/** What would be offered as the job stands. */
export async function offerNow(
  em: EntityManager,
  job: JobRow,
  more: { hours?: number | undefined; words?: string | undefined } = {},
): Promise<Agreed> {
  const { build, types } = await buildOfJob(em, job);
  const brief = Brief.parse(job.brief ?? {});
  const shop = await shopDefaults(em);
  const dueOn = day(job.dueOn);
  const asked: OfferAsked = {
    beside: brief.extras.map((x) => ({
      what: x.words,
      count: Math.max(1, x.count),
      ...(x.own ? { own: true } : x.price === undefined ? {} : { each: x.price }),
    })),
    hours: more.hours ?? (await hoursLikely(em, job.id)),
    rate: shop.rate,
    machines: brief.machines,
    currency: shop.currency,
    due: dueOn ? { on: dueOn, ...(brief.dueHour ? { hour: brief.dueHour } : {}), promised: brief.duePromised } : undefined,
    promises: brief.promises.map(({ about, words }) => ({ about, words })),
    words: more.words ?? shop.offerWords,
  };
  return offerOf(build, types, asked);
}

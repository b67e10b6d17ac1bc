import { z } from "zod";
import { Agreed, sumsOf } from "../../core/offer";
import { LockMode, Offer } from "../../db";
import { done, no, type Result, yes } from "../kernel/result";
import { Day, JobNumber, key, text } from "../kernel/text";
import { jobAction } from "../unit/action";
import { MOST_OFFERS, offerNow } from "./offers";

/** The job as it stands is offered: parts with their prices, work, the moment, what is promised. What was offered before stays beside it. */
export const makeOffer = jobAction({
  name: "job.offer",
  permission: "run jobs",
  input: z.object({ number: JobNumber, hours: z.number().min(0).max(1000).optional(), words: text(2000).optional() }),
  run: async (unit, o): Promise<Result<number>> => {
    const body = await offerNow(unit.tx, unit.job, o);
    if (body.parts.length === 0) return no("The parts list is empty. Nothing was offered. Choose the parts first.");
    const count = (await unit.tx.count(Offer, { job: unit.job.id })) + 1;
    if (count > MOST_OFFERS) return no(`${MOST_OFFERS} offers were made already. Nothing was offered.`);
    unit.tx.create(Offer, {
      job: unit.job,
      count,
      body,
      by: unit.by,
      at: unit.when.happened,
      acceptedBy: null,
      acceptedOn: null,
      acceptedToldBy: null,
    });
    unit.emit("offered", { count, total: sumsOf(body).total, unpriced: sumsOf(body).unpriced });
    return yes(count);
  },
});

const dayOf = (at: Date, days = 0): string => new Date(at.getTime() + days * 86_400_000).toISOString().slice(0, 10);

/** The client said yes: who, and on which day. From then on it is what was agreed. */
export const acceptOffer = jobAction({
  name: "job.offer-accepted",
  permission: "run jobs",
  input: z.object({ number: JobNumber, count: z.number().int().min(1).max(MOST_OFFERS), by: key(120), on: Day }),
  run: async (unit, a): Promise<Result> => {
    const row = await unit.tx.findOne(Offer, { job: unit.job.id, count: a.count }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (!row) return no(`There is no offer ${a.count}. Nothing was changed. Look again.`);
    if (row.acceptedBy) return no(`Offer ${a.count} was accepted by ${row.acceptedBy} already. Nothing was changed.`);
    const last = await unit.tx.findOne(Offer, { job: unit.job.id }, { orderBy: { count: "desc" } });
    if (last && last.count !== a.count) return no(`Offer ${last.count} was made since. Nothing was changed. It is the one to accept.`);
    // A day of slack on either side: the day is that of the person's own clock.
    if (a.on < dayOf(row.at, -1)) return no(`Offer ${a.count} was made on ${dayOf(row.at)}, later than that day. Nothing was changed.`);
    if (a.on > dayOf(unit.when.arrived, 1)) return no(`${a.on} is still to come. Nothing was changed. Give the day on which the client said yes.`);
    Object.assign(row, { acceptedBy: a.by, acceptedOn: a.on, acceptedToldBy: unit.by });
    unit.emit("offer-accepted", { count: a.count, by: a.by, on: a.on, total: sumsOf(Agreed.parse(row.body)).total });
    return done();
  },
});

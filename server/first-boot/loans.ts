import { z } from "zod";
import { ByItself, Loan, Secret } from "../../db";
import { done, no, type Result, yes } from "../kernel/result";
import { openText, sealText } from "../kernel/sealed-text";
import { JobNumber, line } from "../kernel/text";
import { jobAction } from "../unit/action";

const MOST = 40;
const said = (most: number) => line(most).refine((s) => s.length > 0, "is missing");
const MINUTE_MS = 60_000;

/** A start drive, a stick, a spare supply goes into the machine for a while. */
export const lend = jobAction({
  name: "boot.lend",
  permission: "record",
  input: z.object({ number: JobNumber, what: said(80), owner: said(80), serial: line(60).default("") }),
  run: async (unit, { what, owner, serial }): Promise<Result> => {
    const { tx, job } = unit;
    if ((await tx.count(Loan, { job: job.id, backAt: null })) >= MOST) return no(`${MOST} things are on loan in ${job.number}. Nothing was changed.`);
    // One thing is in one machine: known by its serial.
    const elsewhere = serial === "" ? null : await tx.findOne(Loan, { serial, backAt: null }, { populate: ["job"] });
    if (elsewhere) return no(`${what}, ${serial}, is on loan in ${elsewhere.job.number}. Take it out there first. Nothing was changed.`);
    tx.create(Loan, { job, what, owner, serial, by: unit.by, at: unit.when.happened, backAt: null, backBy: null });
    unit.emit("lent", { what, owner, serial });
    return done();
  },
});

export const giveBack = jobAction({
  name: "boot.give-back",
  permission: "record",
  onClosed: true,
  input: z.object({ number: JobNumber, id: z.uuid() }),
  run: async (unit, { id }): Promise<Result> => {
    const row = await unit.tx.findOne(Loan, { id, job: unit.job.id });
    if (!row) return no("That is not on loan in this machine. Nothing was changed.");
    if (row.backAt !== null) return done();
    Object.assign(row, { backAt: unit.when.happened, backBy: unit.by });
    unit.emit("loan-back", { what: row.what, serial: row.serial });
    return done();
  },
});

/** A first user's password, a licence key: sealed, in no paper, no log and no file. */
export const keepSecret = jobAction({
  name: "boot.keep-secret",
  permission: "record",
  input: z.object({ number: JobNumber, what: said(80), secret: said(400) }),
  run: async (unit, { what, secret }): Promise<Result> => {
    const { tx, job } = unit;
    if ((await tx.count(Secret, { job: job.id })) >= MOST) return no(`${MOST} secrets are kept with ${job.number} already. Nothing was kept.`);
    tx.create(Secret, { job, what, sealed: sealText(secret, job.id), by: unit.by, at: unit.when.happened, shownAt: null, shownTo: null });
    unit.emit("secret-kept", { what });
    return done();
  },
});

/** Shown to one person, once; from then on nothing of it is left here. */
export const showSecret = jobAction({
  name: "boot.show-secret",
  permission: "run jobs",
  onClosed: true,
  input: z.object({ number: JobNumber, id: z.uuid() }),
  run: async (unit, { id }): Promise<Result<string>> => {
    const row = await unit.tx.findOne(Secret, { id, job: unit.job.id }, { populate: ["shownTo"] });
    if (!row) return no("There is no such secret with this job.");
    const { sealed } = row;
    if (!sealed) return no(`${row.what} was shown to ${row.shownTo?.name ?? "somebody"} and is not kept any more. Set a new one on the machine.`);
    const text = openText(sealed, unit.job.id);
    if (text === undefined) return no(`${row.what} was sealed by another server's secret and cannot be opened here. Nothing was changed.`);
    Object.assign(row, { sealed: null, shownAt: unit.when.happened, shownTo: unit.by });
    unit.emit("secret-shown", { what: row.what });
    return yes(text);
  },
});

/** The machine does something by itself: hands are free, and are called when it should be over. */
export const leaveAlone = jobAction({
  name: "boot.leave-alone",
  permission: "record",
  input: z.object({ number: JobNumber, what: said(80), minutes: z.number().int().min(1).max(1440) }),
  run: async (unit, { what, minutes }): Promise<Result> => {
    const { tx, job } = unit;
    if ((await tx.count(ByItself, { job: job.id, seenAt: null })) >= MOST)
      return no(`${MOST} things run by themselves already. Nothing was changed.`);
    tx.create(ByItself, { job, what, minutes, by: unit.by, at: unit.when.happened, seenAt: null });
    unit.emit("by-itself", { what, minutes });
    return done();
  },
});

export const lookedAt = jobAction({
  name: "boot.looked-at",
  permission: "record",
  input: z.object({ number: JobNumber, id: z.uuid() }),
  run: async (unit, { id }): Promise<Result> => {
    const row = await unit.tx.findOne(ByItself, { id, job: unit.job.id });
    if (!row) return no("Nothing of that name runs in this machine. Nothing was changed.");
    if (row.seenAt !== null) return done();
    row.seenAt = unit.when.happened;
    unit.emit("by-itself-seen", { what: row.what, afterMinutes: Math.round((unit.when.happened.getTime() - row.at.getTime()) / MINUTE_MS) });
    return done();
  },
});

import { z } from "zod";
import { Wishes } from "../../core/assembly";
import { Person, type PersonRow } from "../../db";
import { done, no } from "../kernel/result";
import { Day, day, JobNumber, line } from "../kernel/text";
import { jobAction } from "../unit/action";

const Bench = z.number().int().min(1, "benches are numbered from 1").max(99, "at most bench 99");

export const Details = z.object({
  number: JobNumber,
  client: line(120)
    .refine((s) => s.length > 0, "name the client")
    .optional(),
  title: line(120)
    .refine((s) => s.length > 0, "say what the machine is")
    .optional(),
  purpose: line(300).optional(),
  dueOn: Day.nullable().optional(),
  bench: Bench.nullable().optional(),
  technician: z.uuid().nullable().optional(),
  /** What the screen showed of each of these before: what somebody else changed meanwhile is not written over. */
  saw: z.record(z.string().max(20), z.union([z.string().max(300), z.number(), z.null()])).default({}),
});

const WORD = { client: "client", title: "machine", purpose: "purpose", dueOn: "due", bench: "bench", technician: "technician" } as const;

/** Who the job is for, what it is, until when, where and by whom it is built. */
export const changeDetails = jobAction({
  name: "job.details",
  permission: "run jobs",
  input: Details,
  run: async (unit, d) => {
    const { job } = unit;
    const technician = d.technician ? ((await unit.tx.findOne(Person, { id: d.technician, active: true })) as PersonRow | null) : null;
    if (d.technician && (!technician || technician.role === "reader"))
      return no("That person does not build machines here any more. Nothing was changed. Choose another.");
    const by = job.technician ? ((await unit.tx.findOne(Person, { id: job.technician.id })) as PersonRow | null) : null;
    const was: Record<keyof typeof WORD, string | number | null> = {
      client: job.client,
      title: job.title,
      purpose: job.purpose,
      dueOn: day(job.dueOn),
      bench: job.bench ?? null,
      technician: by?.name ?? null,
    };
    const now: typeof was = {
      client: d.client ?? was.client,
      title: d.title ?? was.title,
      purpose: d.purpose ?? was.purpose,
      dueOn: d.dueOn === undefined ? was.dueOn : d.dueOn,
      bench: d.bench === undefined ? was.bench : d.bench,
      technician: d.technician === undefined ? was.technician : (technician?.name ?? null),
    };
    const changes = (Object.keys(WORD) as (keyof typeof WORD)[])
      .filter((k) => was[k] !== now[k])
      .map((k) => ({ what: WORD[k], was: was[k], now: now[k] }));
    if (changes.length === 0) return done();
    const other = (Object.keys(WORD) as (keyof typeof WORD)[]).find((k) => was[k] !== now[k] && d.saw[k] !== undefined && d.saw[k] !== was[k]);
    if (other) return no(`Somebody has changed the ${WORD[other]} to ${was[other] ?? "none"} meanwhile. Nothing was changed. Look, then choose.`);
    Object.assign(job, { client: now.client, title: now.title, purpose: now.purpose, dueOn: now.dueOn, bench: now.bench });
    if (d.technician !== undefined) job.technician = technician;
    if (d.purpose !== undefined) {
      const wishes: Record<string, unknown> = { ...Wishes.parse(job.wishes), purpose: d.purpose };
      job.wishes = wishes;
    }
    unit.emit("details", { changes });
    return done();
  },
});

import { z } from "zod";
import { Build, Policy, Settings, Wishes } from "../../core/assembly";
import { type PartType, TYPICAL_KINDS } from "../../core/catalogue";
import type { Fix, MailLine } from "../../core/intake";
import { MOST_ROWS } from "../../core/table";
import { Job, JobPart, layPart, ShelfType } from "../../db";
import { buildOfJob, findJob } from "../build/build-of-job";
import { joinParts } from "../build/join";
import { entryOf } from "../build/parts-of-job";
import { serialTaken } from "../build/serial";
import { no, type Result, yes } from "../kernel/result";
import { Day, JobNumber, key, line, TypeId } from "../kernel/text";
import { SchoolsPicked } from "../schools/follow";
import { shopDefaults } from "../shop/defaults";
import { shopAction } from "../unit/action";
import { JobUnit, jobRead } from "../unit/unit";
import { briefOf } from "./brief";
import { keepMade } from "./keep-made";
import { readMailBeside } from "./list-thread";
import { nextNumber } from "./number";
import { Fixes, MailText, today } from "./read-mail";

export const NewJob = z.object({
  client: line(120).refine((s) => s.length > 0, "name the client"),
  title: line(120).refine((s) => s.length > 0, "say what the machine is"),
  purpose: line(300).default(""),
  dueOn: Day.nullable().default(null),
  budget: z.number().min(0).max(1_000_000).optional(),
  lighting: z.enum(["wanted", "indifferent", "none"]).default("indifferent"),
  noiseDb: z.number().min(10).max(80).optional(),
  monitors: Wishes.shape.monitors,
  wireless: z.boolean().default(false),
  /** An earlier job whose parts and schools are taken over. */
  copyOf: JobNumber.optional(),
  /** Schools that differ from the shop's, or from the earlier job's. */
  policy: SchoolsPicked.default({}),
  parts: z
    .array(
      z.object({
        type: TypeId,
        count: z.number().int().min(1).max(20),
        /** For the first so many of them. */
        serials: z.array(key(80)).max(20).default([]),
        /** The client's own, used again. */
        reused: z.boolean().default(false),
      }),
    )
    .max(200)
    .default([]),
  /** The client's mail, with what was corrected of it: its parts join those of the list. */
  mail: z.object({ text: MailText, fixes: Fixes }).optional(),
  phone: line(60).default(""),
  /** When on the day it is due. */
  dueHour: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/, "give an hour, such as 15:00")
    .optional(),
  duePromised: z.boolean().default(false),
  /** Equal machines: a job each. */
  machines: z.number().int().min(1).max(20).default(1),
  aside: z.array(line(300)).max(MOST_ROWS).default([]),
});

/** A new job: from an earlier one, from a list, or both. What was not understood stays with it, in its own words. */
export const newJob = shopAction({
  name: "job.make",
  permission: "run jobs",
  input: NewJob,
  run: async (unit, n): Promise<Result<string>> => {
    const tx = unit.tx;
    const earlier = n.copyOf ? await findJob(tx, n.copyOf) : undefined;
    if (n.copyOf && !earlier) return no(`There is no job ${n.copyOf} to copy. Nothing was stored.`);
    const base = earlier ? await buildOfJob(tx, earlier) : undefined;
    const wanted = await tx.find(ShelfType, { id: { $in: n.parts.map((p) => p.type) } }, { limit: 400 });
    const types = new Map(wanted.map((t) => [t.id, entryOf(t.body)]));
    const unknown = n.parts.filter((p) => !types.has(p.type));
    if (unknown.length > 0) return no(`The shelf has no part type ${unknown.map((u) => u.type).join(", ")}. Nothing was stored.`);
    const read = n.mail ? await readMailBeside(n.mail.text, n.mail.fixes as Fix[], today()) : undefined;
    if (n.mail && !read) return { ...no("Many lists are read at this moment. Nothing was stored. Try again."), later: "again" as const };
    const joined = read ? await keepMade(unit, read, n.title) : undefined;
    const total =
      (joined?.length ?? 0) + n.parts.reduce((s, p) => s + p.count, 0) + (base?.build.parts.filter((p) => p.from === "client").length ?? 0);
    if (total > 200) return no(`${total} parts; a job holds at most 200. Nothing was stored.`);
    const serials = n.parts.flatMap((p) => p.serials);
    const twice = serials.find((x, i) => serials.findIndex((y) => y.toLowerCase() === x.toLowerCase()) !== i);
    if (twice) return no(`Serial ${twice} is given to two parts. Nothing was stored. Correct the list.`);
    const taken = await serialTaken(tx, serials);
    if (taken) return no(`${taken}. Nothing was stored. Look at the label again.`);
    const shop = await shopDefaults(tx);
    const wishes = Wishes.parse({
      purpose: n.purpose,
      lighting: n.lighting,
      monitors: n.monitors,
      wireless: n.wireless,
      ...(n.budget === undefined ? {} : { budget: n.budget }),
      ...(n.noiseDb === undefined ? {} : { noiseDb: n.noiseDb }),
    });
    // Equal machines are a job each: each has its own serials, its own bench and its own faults.
    let first = "";
    for (let at = 1; at <= n.machines; at++) {
      const number = await nextNumber(tx);
      const job = tx.create(Job, {
        number,
        client: n.client,
        title: at === 1 && n.machines === 1 ? n.title : `${n.title} (${at} of ${n.machines})`.slice(0, 120),
        purpose: n.purpose,
        stage: "intake",
        technician: unit.by,
        dueOn: n.dueOn,
        policy: Policy.parse({ ...shop.schools, ...base?.build.policy, ...n.policy }),
        settings: Settings.parse({}),
        wishes,
        brief: briefOf({ ...n, dueHour: n.dueHour ?? (n.dueOn && shop.dueHour ? shop.dueHour : undefined) }, read?.mail),
        aside: [...n.aside, ...(read ? asideOf(read.mail.lines) : [])].slice(0, MOST_ROWS),
        partsRevision: 1,
        version: 1,
        revision: 1,
        createdAt: unit.when.happened,
      });
      if (base && earlier) {
        const rows = await tx.find(JobPart, { job: earlier.id, origin: "client" }, { orderBy: { position: "asc" } });
        const parts = new Map(base.build.parts.map((p) => [p.id, p]));
        for (const r of rows) {
          const part = parts.get(r.key);
          // What belonged to the earlier client does not come along.
          if (part)
            layPart(
              tx,
              job,
              { ...part, serial: undefined, reused: undefined, price: undefined, measured: undefined },
              base.types(part.type),
              r.position,
            );
        }
      }
      const skeleton = Build.parse({
        format: "imbra-build",
        version: 1,
        name: n.title,
        partTypes: base?.build.partTypes ?? [],
        parts: base?.build.parts.filter((p) => p.from === "client") ?? [{ id: "none", type: "none" }],
      });
      if (!base) skeleton.parts = [];
      joinParts(tx, job, skeleton, [
        ...(joined ?? []),
        ...n.parts.flatMap((p) =>
          Array.from({ length: p.count }, (_, i) => ({
            type: types.get(p.type) as PartType,
            serial: at === 1 ? p.serials[i] : undefined,
            reused: p.reused || undefined,
          })),
        ),
      ]);
      await tx.flush();
      const made = new JobUnit(tx, unit.actor, unit.when, jobRead(job), undefined);
      made.emit("job-made", {
        number,
        client: n.client,
        parts: total,
        from: "list",
        ...(earlier ? { copyOf: earlier.number } : {}),
        ...(n.aside.length > 0 ? { aside: n.aside.length } : {}),
      });
      await made.keepEvents();
      first ||= number;
    }
    return yes(first);
  },
});

/** Lines that ask for a part of no kind that a machine has: they stay with the job, in their words. */
const asideOf = (lines: readonly MailLine[]): string[] =>
  lines.flatMap((l) =>
    l.as === "part" && !l.known && !(l.kind && TYPICAL_KINDS.includes(l.kind)) ? [`Line ${l.line}: ${l.text}`.slice(0, 300)] : [],
  );

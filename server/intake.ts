import { z } from "zod";
import { Build, Policy, Settings, Wishes } from "../core/assembly";
import type { PartType } from "../core/catalogue";
import { type ListRow, matchRows } from "../core/intake";
import { MOST_ROWS } from "../core/table";
import { type EntityManager, Job, JobPart, layPart, ShelfType, type TechnicianRow } from "../db";
import { buildOfJob, entryOf, findJob } from "./build-of-job";
import { nextNumber } from "./jobs";
import { log } from "./log";
import { joinParts } from "./parts";
import { no, type Result, yes } from "./result";
import { SchoolsPicked } from "./schools";

const Row = z.object({
  line: z.number().int().min(1),
  text: z.string().trim().min(1).max(200),
  count: z.number().int().min(0).max(99),
  serial: z.string().max(80).optional(),
});
const Rows = z.array(Row).max(MOST_ROWS, `at most ${MOST_ROWS} rows; split the list`);

async function shelfTypes(em: EntityManager): Promise<PartType[]> {
  const rows = await em.createQueryBuilder(ShelfType).select(["body"]).limit(20_000).execute<{ body: PartType }[]>("all");
  return rows.map((r) => r.body);
}

export interface ListAnswer {
  matched: { line: number; text: string; count: number; serial?: string; type: string; name: string; kind: string }[];
  aside: { line: number; text: string; count: number; serial?: string; because: string; near: { id: string; name: string }[] }[];
}

export const ReadRows = z.object({ rows: Rows });

/** Rows of a list against the shelf: what was understood, and what is kept aside with what comes near. */
export async function readRows(em: EntityManager, _by: TechnicianRow, r: z.infer<typeof ReadRows>): Promise<Result<ListAnswer>> {
  const read = matchRows(r.rows as ListRow[], await shelfTypes(em));
  return yes({
    matched: read.matched.map((m) => ({
      line: m.row.line,
      text: m.row.text,
      count: m.row.count,
      ...(m.row.serial ? { serial: m.row.serial } : {}),
      type: m.type.id,
      name: m.type.name,
      kind: m.type.kind,
    })),
    aside: read.aside.map((a) => ({
      line: a.row.line,
      text: a.row.text,
      count: a.row.count,
      ...(a.row.serial ? { serial: a.row.serial } : {}),
      because: a.because,
      near: a.near,
    })),
  });
}

export const NewJob = z.object({
  client: z.string().trim().min(1, "name the client").max(120),
  title: z.string().trim().min(1, "say what the machine is").max(120),
  purpose: z.string().trim().max(300).default(""),
  dueOn: z.iso.date().nullable().default(null),
  budget: z.number().min(0).max(1_000_000).optional(),
  lighting: z.enum(["wanted", "indifferent", "none"]).default("indifferent"),
  noiseDb: z.number().min(10).max(80).optional(),
  monitors: Wishes.shape.monitors,
  wireless: z.boolean().default(false),
  /** An earlier job whose parts and schools are taken over. */
  copyOf: z.string().max(40).optional(),
  /** Schools that differ from the shop's, or from the earlier job's. */
  policy: SchoolsPicked.default({}),
  parts: z
    .array(
      z.object({
        type: z.string().min(1).max(80),
        count: z.number().int().min(1).max(20),
        /** For the first so many of them. */
        serials: z.array(z.string().trim().min(1).max(80)).max(20).default([]),
        /** The client's own, used again. */
        reused: z.boolean().default(false),
      }),
    )
    .max(200)
    .default([]),
  aside: z.array(z.string().max(300)).max(MOST_ROWS).default([]),
});

/** A new job: from an earlier one, from a list, or both. What was not understood stays with it, in its own words. */
export async function newJob(em: EntityManager, by: TechnicianRow, n: z.infer<typeof NewJob>): Promise<Result<string>> {
  const earlier = n.copyOf ? await findJob(em, n.copyOf) : undefined;
  if (n.copyOf && !earlier) return no(`There is no job ${n.copyOf} to copy. Nothing was stored.`);
  const base = earlier ? await buildOfJob(em, earlier) : undefined;
  const wanted = await em.find(ShelfType, { id: { $in: n.parts.map((p) => p.type) } }, { limit: 400 });
  const types = new Map(wanted.map((t) => [t.id, entryOf(t.body)]));
  const unknown = n.parts.filter((p) => !types.has(p.type));
  if (unknown.length > 0) return no(`The shelf has no part type ${unknown.map((u) => u.type).join(", ")}. Nothing was stored.`);
  const total = n.parts.reduce((s, p) => s + p.count, 0) + (base?.build.parts.filter((p) => p.from === "client").length ?? 0);
  if (total > 200) return no(`${total} parts; a job holds at most 200. Nothing was stored.`);
  const serials = n.parts.flatMap((p) => p.serials);
  const twice = serials.find((x, i) => serials.indexOf(x) !== i);
  if (twice) return no(`Serial ${twice} is given to two parts. Nothing was stored. Correct the list.`);
  const taken = await em.findOne(JobPart, { serial: { $in: serials } }, { populate: ["job"] });
  if (taken)
    return no(
      `Serial ${taken.serial} is already on ${taken.label ?? taken.key} of ${taken.job.number}. Nothing was stored. Look at the label again.`,
    );
  return em.transactional(async (raw) => {
    const tx = raw as EntityManager;
    const number = await nextNumber(tx);
    const wishes = Wishes.parse({
      purpose: n.purpose,
      lighting: n.lighting,
      monitors: n.monitors,
      wireless: n.wireless,
      ...(n.budget === undefined ? {} : { budget: n.budget }),
      ...(n.noiseDb === undefined ? {} : { noiseDb: n.noiseDb }),
    });
    const job = tx.create(Job, {
      number,
      client: n.client,
      title: n.title,
      purpose: n.purpose,
      stage: "intake",
      technician: by,
      dueOn: n.dueOn,
      policy: Policy.parse({ ...base?.build.policy, ...n.policy }),
      settings: Settings.parse({}),
      wishes,
      aside: n.aside,
      partsRevision: 1,
      version: 1,
      createdAt: new Date(),
    });
    if (base && earlier) {
      const rows = await tx.find(JobPart, { job: earlier.id, origin: "client" }, { orderBy: { position: "asc" } });
      const parts = new Map(base.build.parts.map((p) => [p.id, p]));
      for (const r of rows) {
        const part = parts.get(r.key);
        // What belonged to the earlier client does not come along.
        if (part) layPart(tx, job, { ...part, serial: undefined, reused: undefined, price: undefined }, base.types(part.type), r.position);
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
    joinParts(
      tx,
      job,
      skeleton,
      n.parts.flatMap((p) =>
        Array.from({ length: p.count }, (_, i) => ({ type: types.get(p.type) as PartType, serial: p.serials[i], reused: p.reused || undefined })),
      ),
    );
    await tx.flush();
    log(
      tx,
      job,
      by,
      "job",
      `Job ${number} made for ${n.client}: ${total} parts${earlier ? `, copied from ${earlier.number}` : ""}${n.aside.length > 0 ? `; ${n.aside.length} lines kept aside` : ""}.`,
    );
    return yes(number);
  });
}

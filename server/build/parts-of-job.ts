import { LRUCache } from "lru-cache";
import { fromStored, type PartType } from "../../core/catalogue";
import { type EntityManager, JobPart, ShelfType } from "../../db";

/** Kinds that the planner may take from the shelf. */
const ACCESSORIES = ["splitter", "extension", "hub", "usb-hub", "adapter"];

/** Jobs whose parts are kept in this process: their catalogue entries are a few hundred kilobytes each. */
const MOST_KEPT = 60;

export interface PartRow {
  key: string;
  type: string;
  label: string | null;
  mount: string | null;
  zone: string | null;
  serial: string | null;
  origin: string;
  placing: unknown;
  priceCents: number | null;
  /** Of this very piece, as somebody read it off; null: not known. */
  firmware: number | null;
  arrivedAt: unknown;
}

export interface JobParts {
  rows: readonly PartRow[];
  /** The entries that its parts were planned with, then those of the shelf. */
  types: ReadonlyMap<string, PartType>;
  /** What the shelf has of each accessory that is promised to no job. */
  shelf: readonly { id: string; free: number }[];
}

/** What moves with every entry of a bench. */
export interface JobMoves {
  links: readonly { lead: string; port: string; place: number[] | null; state: string }[];
  /** Steps that are done and make no connection. */
  steps: readonly string[];
}

interface Kept {
  stamp: string;
  parts: JobParts;
}
const holder = globalThis as typeof globalThis & { imbraParts?: LRUCache<string, Kept> };

/** Entries were parsed when they were stored and are trusted; those of an earlier version go through the steps that came since. */
export const entryOf = (body: unknown): PartType => fromStored(body);

/** As many steps as a build file holds. */
const MOST_STEPS = 1000;

/**
 * The parts of a job, what the shelf has beside them, and what hands have done. Catalogue entries are large, so they are read once: the
 * versions of the job's rows and the shelf's revision say whether anything is another. Within a transaction its own changes count.
 */
export async function partsOfJob(em: EntityManager, job: string): Promise<JobParts & JobMoves> {
  holder.imbraParts ??= new LRUCache<string, Kept>({ max: MOST_KEPT });
  const [row] = await em.execute<({ stamp: string } & JobMoves)[]>(
    `select coalesce((select md5(string_agg(p."id"::text || p."xmin"::text, ' ' order by p."position", p."id")) from "job_part" p where p."job_id" = ?), '')
       || ' ' || coalesce((select "shelf_revision" from "shop" where "id" = 1), 0) as "stamp",
       coalesce((select json_agg(json_build_object('lead', c."lead", 'port', c."port", 'place', c."place", 'state', c."state") order by c."lead")
         from "connection" c where c."job_id" = ?), '[]') as "links",
       coalesce((select json_agg(d."step" order by d."step") from (select "step" from "step_done" where "job_id" = ? order by "step" limit ${MOST_STEPS}) d), '[]')
         as "steps"`,
    [job, job, job],
  );
  const { stamp, links, steps } = row ?? { stamp: "", links: [], steps: [] };
  const kept = holder.imbraParts.get(job);
  if (kept?.stamp === stamp) return { ...kept.parts, links, steps };
  const parts = await read(em, job);
  holder.imbraParts.set(job, { stamp, parts });
  return { ...parts, links, steps };
}

/** "F12", "version 12": the number of a firmware as it is written on boxes and screens. */
function numberIn(said: unknown): number | null {
  const m = typeof said === "string" ? /\d+(?:\.\d+)?/.exec(said) : null;
  return m ? Number(m[0]) : null;
}

async function read(em: EntityManager, job: string): Promise<JobParts> {
  // Plain rows: nothing here is written back. One after the other: inside a transaction there is one connection.
  const all = await em
    .createQueryBuilder(JobPart)
    .select("*")
    .where({ job })
    .orderBy({ position: "asc" })
    .execute<(PartRow & { body: unknown; facts: unknown })[]>("all");
  const shelf = await em
    .createQueryBuilder(ShelfType)
    .select(["id", "stock", "body"])
    .where({ kind: { $in: ACCESSORIES } })
    .execute<{ id: string; stock: number; body: unknown }[]>("all");
  // A job that was cancelled takes nothing from the shelf.
  const reserved = await em.execute<{ type: string; count: number }[]>(
    `select p."type", count(*)::int as "count" from "job_part" p join "job" j on j."id" = p."job_id"
     where p."origin" = 'shelf' and j."stage" <> 'cancelled' group by p."type"`,
  );
  const taken = new Map(reserved.map((r) => [r.type, r.count]));
  const types = new Map(all.map((r) => [r.type, entryOf(r.body)]));
  for (const s of shelf) if (!types.has(s.id)) types.set(s.id, entryOf(s.body));
  return {
    rows: all.map(({ body: _, facts, ...row }) => ({ ...row, firmware: numberIn((facts as { firmware?: unknown } | null)?.firmware) })),
    types,
    shelf: shelf.map((s) => ({ id: s.id, free: Math.max(0, s.stock - (taken.get(s.id) ?? 0)) })),
  };
}

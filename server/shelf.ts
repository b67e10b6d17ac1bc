import { z } from "zod";
import { parseWith, readBuild } from "../core/assembly";
import { PartType } from "../core/catalogue";
import { type EntityManager, JobPart, LockMode, ShelfRevision, ShelfType, type TechnicianRow } from "../db";
import { entryOf } from "./build-of-job";
import { no, type Result, yes } from "./result";

const MOST_SHOWN = 60;
export const MOST_TYPES = 100_000;

export interface ShelfRow {
  id: string;
  kind: string;
  maker: string;
  name: string;
  revision: number;
  stock: number;
  spares: number;
}

/** The condition for words and a kind. */
export function shelfWhere(text: string, kind?: string): { where: string; values: unknown[] } {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8);
  const where = words.map(() => `lower("maker" || ' ' || "name" || ' ' || "id" || ' ' || "kind") like ?`);
  const values: unknown[] = words.map((w) => `%${w.replace(/[\\%_]/g, (c) => `\\${c}`)}%`);
  if (kind) {
    where.push(`"kind" = ?`);
    values.push(kind);
  }
  return { where: where.length > 0 ? `where ${where.join(" and ")}` : "", values };
}

/** The shelf by words: each must stand somewhere in maker, name, id or kind. Bounded, by name. */
export async function searchShelf(em: EntityManager, text: string, kind?: string): Promise<{ rows: ShelfRow[]; more: boolean }> {
  const { where, values } = shelfWhere(text, kind);
  const rows = await em.execute<ShelfRow[]>(
    `select "id", "kind", "maker", "name", "revision", "stock", "spares" from "shelf_type" ${where} order by "name", "id" limit ${MOST_SHOWN + 1}`,
    values,
  );
  return { rows: rows.slice(0, MOST_SHOWN), more: rows.length > MOST_SHOWN };
}

export interface ShelfEntry {
  type: PartType;
  stock: number;
  usedBy: { number: string; title: string; revision: number }[];
  revisions: { revision: number; at: string; by: string; because: string }[];
}

export async function shelfEntry(em: EntityManager, id: string): Promise<ShelfEntry | undefined> {
  const row = await em.findOne(ShelfType, { id });
  if (!row) return undefined;
  const parts = await em.find(JobPart, { type: id }, { populate: ["job"], limit: 200 });
  const jobs = new Map(parts.map((p) => [p.job.number, { number: p.job.number, title: p.job.title, revision: p.typeRevision }]));
  const revisions = await em.find(ShelfRevision, { type: id }, { orderBy: { revision: "desc" }, limit: 50, populate: ["by"] });
  return {
    type: entryOf(row.body),
    stock: row.stock,
    usedBy: [...jobs.values()].sort((a, b) => (a.number < b.number ? -1 : 1)),
    revisions: revisions.map((r) => ({ revision: r.revision, at: r.at.toISOString(), by: r.by.name, because: r.because })),
  };
}

export const SaveType = z.object({
  text: z.string().min(2).max(400_000),
  /** The revision the editor began with; left out for a new part type. */
  from: z.number().int().min(1).optional(),
  because: z.string().trim().max(500).default(""),
});

/**
 * A part type made or corrected. It gets the next revision; jobs keep the entry they were planned with and are told.
 * A port that a plug of some job is in cannot go.
 */
export async function saveType(
  em: EntityManager,
  by: TechnicianRow,
  s: z.infer<typeof SaveType>,
): Promise<Result<{ id: string; revision: number; jobs: string[] }>> {
  let data: unknown;
  try {
    data = JSON.parse(s.text);
  } catch {
    return no("This is not JSON. Nothing was stored.");
  }
  const parsed = parseWith(PartType, data);
  if (!parsed.ok) return no("Nothing was stored. Correct these and save again.", parsed.faults);
  const type = parsed.value;
  // Read as part of a build of one: the same sentences for references that lead nowhere.
  const whole = readBuild({ format: "imbra-build", version: 1, name: "check", partTypes: [type], parts: [{ id: "part", type: type.id }] }, []);
  if (!whole.ok)
    return no(
      "Nothing was stored. Correct these and save again.",
      whole.faults.map((f) => f.replace("partTypes[0].", "")),
    );
  return em.transactional(async (raw) => {
    const tx = raw as EntityManager;
    const row = await tx.findOne(ShelfType, { id: type.id }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (s.from === undefined && row) return no(`The shelf already has a part type ${type.id}. Give the new one another id. Nothing was stored.`);
    if (s.from !== undefined && !row)
      return no(`${type.id} is not on the shelf. Its id cannot change: save it as a new part type. Nothing was stored.`);
    if (row && s.from !== undefined && row.revision !== s.from)
      return no(
        `${type.name} was corrected meanwhile: revision ${row.revision}, yours began at ${s.from}. Nothing was stored. Open it again and repeat the change.`,
      );
    if (row && row.kind !== type.kind)
      return no(`${type.id} is a ${row.kind} and stays one. Save a ${type.kind} under another id. Nothing was stored.`);
    if (!row && (await tx.count(ShelfType)) >= MOST_TYPES) return no(`The shelf is full: ${MOST_TYPES} part types. Nothing was stored.`);
    const users = row ? await tx.find(JobPart, { type: type.id }, { populate: ["job"], limit: 500 }) : [];
    const lost = row ? await lostEnds(tx, entryOf(row.body), type) : [];
    if (lost.length > 0) return no(`${lost.slice(0, 3).join(" ")} Nothing was stored. Keep the port, or take the plug out first.`);
    const revision = (row?.revision ?? 0) + 1;
    const body = { ...type, revision };
    if (row) Object.assign(row, { maker: type.maker, name: type.name, revision, body });
    else tx.create(ShelfType, { id: type.id, kind: type.kind, maker: type.maker, name: type.name, revision, body, stock: 0, spares: 0 });
    tx.create(ShelfRevision, { type: type.id, revision, body, by, at: new Date(), because: s.because });
    return yes({ id: type.id, revision, jobs: [...new Set(users.map((u) => u.job.number))] });
  });
}

/** Plugged connections whose end the corrected part type no longer has. */
async function lostEnds(tx: EntityManager, was: PartType, now: PartType): Promise<string[]> {
  const ids = (t: PartType) => new Set([...t.ports.map((p) => p.id), ...t.leads.map((l) => l.id)]);
  const gone = [...ids(was)].filter((id) => !ids(now).has(id));
  if (gone.length === 0) return [];
  const rows = await tx.execute<{ number: string; lead: string; port: string }[]>(
    `select j."number", c."lead", c."port" from "connection" c join "job" j on j."id" = c."job_id" join "job_part" p on p."job_id" = j."id" and p."type" = ?
     where c."state" in ('plugged', 'checked') and (${gone.map(() => `c."lead" = p."key" || ':' || ? or c."port" = p."key" || ':' || ?`).join(" or ")}) limit 5`,
    [was.id, ...gone.flatMap((g) => [g, g])],
  );
  return rows.map(
    (r) => `${gone.find((g) => r.lead.endsWith(`:${g}`) || r.port.endsWith(`:${g}`))} is in use: ${r.number} has ${r.lead} in ${r.port}.`,
  );
}

export const StockChange = z.object({
  type: z.string().min(1).max(80),
  stock: z.number().int().min(0).max(9999).optional(),
  spares: z.number().int().min(0).max(999).optional(),
});

/** How many are in stock, and how many are kept as known-good spares for testing. */
export async function setStock(em: EntityManager, _by: TechnicianRow, s: z.infer<typeof StockChange>): Promise<Result> {
  if (s.stock === undefined && s.spares === undefined) return no("No count was given. Nothing was changed.");
  const n = await em.nativeUpdate(
    ShelfType,
    { id: s.type },
    { ...(s.stock === undefined ? {} : { stock: s.stock }), ...(s.spares === undefined ? {} : { spares: s.spares }) },
  );
  return n === 1 ? yes(undefined) : no(`The shelf has no part type ${s.type}. Nothing was changed.`);
}

export interface OldEntry {
  part: string;
  name: string;
  had: number;
  now: number;
}

/** Parts of a job whose type was corrected after they joined. */
export async function correctedSince(em: EntityManager, jobId: string): Promise<OldEntry[]> {
  return em.execute<OldEntry[]>(
    `select p."key" as "part", s."name" as "name", p."type_revision" as "had", s."revision" as "now" from "job_part" p join "shelf_type" s on s."id" = p."type" where p."job_id" = ? and s."revision" > p."type_revision" order by p."position" limit 200`,
    [jobId],
  );
}

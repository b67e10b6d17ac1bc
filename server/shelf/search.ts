import { z } from "zod";
import { type Measured, measurable, type PartType } from "../../core/catalogue";
import { type EntityManager, JobPart, ShelfRevision, ShelfType } from "../../db";
import { entryOf } from "../build/parts-of-job";
import { yes } from "../kernel/result";
import { line } from "../kernel/text";
import { query } from "../unit/action";
import { type TipView, tipsOf } from "./tips";
import { type TypePhotoView, typePhotoOf } from "./type-photo";

const MOST_SHOWN = 60;
/** Pages of it that can be leafed through. */
const MOST_PAGES = 2000;

/** By what the shelf is sorted; the name decides between equals. */
const ORDER = {
  name: `"name", "id"`,
  kind: `"kind", "name", "id"`,
  maker: `"maker", "name", "id"`,
  stock: `"stock" desc, "name", "id"`,
  jobs: `"jobs" desc, "name", "id"`,
} as const;
export type ShelfOrder = keyof typeof ORDER;
export const SHELF_ORDERS = Object.keys(ORDER) as [ShelfOrder, ...ShelfOrder[]];

export interface ShelfRow {
  id: string;
  kind: string;
  maker: string;
  name: string;
  revision: number;
  stock: number;
  spares: number;
  /** Open and closed jobs that have such a part. */
  jobs: number;
  provisional: boolean;
}

/** As jsonb writes it: some figure of the entry is only taken to be so. */
const IS_PROVISIONAL = `("body"->'figures')::text like '%"is": "typical"%'`;

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

/** The shelf by words: each must stand somewhere in maker, name, id or kind. A page of it, sorted. */
export async function searchShelf(
  em: EntityManager,
  text: string,
  kind?: string,
  { order = "name", page = 0, provisional = false }: { order?: ShelfOrder; page?: number; provisional?: boolean } = {},
): Promise<{ rows: ShelfRow[]; more: boolean; total: number }> {
  const { where, values } = shelfWhere(text, kind);
  const only = provisional ? `${where ? `${where} and` : "where"} ${IS_PROVISIONAL}` : where;
  const rows = await em.execute<ShelfRow[]>(
    `select "id", "kind", "maker", "name", "revision", "stock", "spares", coalesce(${IS_PROVISIONAL}, false) as "provisional",
       (select count(distinct p."job_id")::int from "job_part" p where p."type" = "shelf_type"."id") as "jobs"
     from "shelf_type" ${only} order by ${ORDER[order]} limit ${MOST_SHOWN} offset ${MOST_SHOWN * Math.min(page, MOST_PAGES)}`,
    values,
  );
  const [n] = await em.execute<{ n: number }[]>(`select count(*)::int as n from "shelf_type" ${only}`, values);
  const total = n?.n ?? 0;
  return { rows, more: total > MOST_SHOWN * (page + 1), total };
}

export interface ShelfEntry {
  type: PartType;
  stock: number;
  usedBy: { number: string; title: string; revision: number }[];
  /** What hands measured otherwise on parts of this type. */
  measured: { number: string; part: string; what: string; word: string; mm: number; says: number | null }[];
  revisions: { revision: number; at: string; by: string; because: string }[];
  tips: TipView[];
  photo: TypePhotoView | null;
}

interface MeasuredPart {
  job: { number: string };
  key: string;
  label?: string | null | undefined;
  placing: unknown;
}

function otherwise(type: PartType, part: MeasuredPart): ShelfEntry["measured"] {
  const lengths = new Map(measurable(type).map((m) => [m.what, m]));
  return ((part.placing as { measured?: Measured[] }).measured ?? []).flatMap(({ what, mm }) => {
    const length = lengths.get(what);
    return length && length.mm !== mm
      ? [{ number: part.job.number, part: part.label ?? part.key, what, word: length.word, mm, says: length.mm ?? null }]
      : [];
  });
}

export async function shelfEntry(em: EntityManager, id: string): Promise<ShelfEntry | undefined> {
  const row = await em.findOne(ShelfType, { id });
  if (!row) return undefined;
  const parts = await em.find(JobPart, { type: id }, { populate: ["job"], limit: 200 });
  const type = entryOf(row.body);
  const jobs = new Map(parts.map((p) => [p.job.number, { number: p.job.number, title: p.job.title, revision: p.typeRevision }]));
  const revisions = await em.find(ShelfRevision, { type: id }, { orderBy: { revision: "desc" }, limit: 50, populate: ["by"] });
  return {
    type,
    stock: row.stock,
    usedBy: [...jobs.values()].sort((a, b) => (a.number < b.number ? -1 : 1)),
    measured: parts.flatMap((p) => otherwise(type, p)),
    revisions: revisions.map((r) => ({ revision: r.revision, at: r.at.toISOString(), by: r.by.name, because: r.because })),
    tips: await tipsOf(em, [id]),
    photo: await typePhotoOf(em, id),
  };
}

export const search = query({
  name: "shelf.search",
  input: z.object({
    text: line(80),
    kind: line(30).optional(),
    order: z.enum(SHELF_ORDERS).default("name"),
    page: z.number().int().min(0).max(MOST_PAGES).default(0),
    provisional: z.boolean().default(false),
  }),
  run: async (em, v) => yes(await searchShelf(em, v.text, v.kind, v)),
});

import { z } from "zod";
import { parseJson, parseWith } from "../../core/assembly";
import { contradictions, FLAT_FIELDS, flatValues, PartType, withFlatValues } from "../../core/catalogue";
import { plainCell, readCsv, writeCsv } from "../../core/table";
import { type EntityManager, ShelfType } from "../../db";
import { entryOf } from "../build/parts-of-job";
import { inTurns } from "../kernel/in-turns";
import { no, type Result, yes } from "../kernel/result";
import { fileText, key, line } from "../kernel/text";
import { carryOut, query } from "../unit/action";
import { MOST_TYPES, saveType } from "./save";
import { shelfWhere } from "./search";
import { setStock } from "./stock";
import { type BesideTypes, besideTypes, takeBeside } from "./type-file";

const MOST_ENTRIES = 2000;
const MOST_CHARS = 4_000_000;
const OWN_COLUMNS = ["id", "kind", "maker", "name", "revision", "stock", "like"] as const;

/**
 * Part types as a file: JSON whole, or CSV with one row each and the values that fit into a cell. Narrowed by words and
 * kind as the list is.
 */
export async function shelfFile(em: EntityManager, as: "json" | "csv", text: string, kind?: string): Promise<string> {
  const { where, values } = shelfWhere(text, kind);
  const rows = await em.execute<{ body: unknown; stock: number }[]>(
    `select "body", "stock" from "shelf_type" ${where} order by "kind", "id" limit ${MOST_TYPES}`,
    values,
  );
  const types = rows.map((r) => ({ type: entryOf(r.body), stock: r.stock }));
  if (as === "json")
    return `${JSON.stringify(
      types.map((t) => t.type),
      null,
      1,
    )}\n`;
  const flat = types.map((t) => flatValues(t.type));
  const used = FLAT_FIELDS.map((f) => f.path).filter((path) => flat.some((v) => v.has(path)));
  return writeCsv(
    [...OWN_COLUMNS, ...used],
    types.map(({ type, stock }, i) => [
      type.id,
      type.kind,
      type.maker,
      type.name,
      String(type.revision),
      String(stock),
      "",
      ...used.map((path) => flat[i]?.get(path) ?? ""),
    ]),
  );
}

export interface FileRow {
  line: number;
  id: string;
  name: string;
  what: "new" | "corrected" | "stock" | "beside" | "same" | "left out";
  faults: string[];
  /** The revision that the row was compared with. */
  seen: number | null;
}

interface Wanted extends FileRow {
  type?: PartType;
  stock?: number;
}

const File = { name: line(200), text: fileText(MOST_CHARS) };
export const JudgeFile = z.object(File);
export const TakeFile = z.object({
  ...File,
  /** Rows as they were judged: what was corrected meanwhile is left out. */
  rows: z.array(z.object({ id: key(80), seen: z.number().int().nullable() })).max(MOST_ENTRIES),
});

/** A file of part types against the shelf: what is new, corrected or left out, and why. Nothing is stored. */
export const judgeShelfFile = query({
  name: "shelf.judge-file",
  permission: "keep the shelf",
  input: JudgeFile,
  run: async (em, f): Promise<Result<{ rows: FileRow[]; said: string[] }>> => {
    const read = await wanted(em, f.text);
    if (!read.ok) return read;
    return yes({ rows: read.value.rows.map(({ type: _t, stock: _s, ...row }) => row), said: read.value.said });
  },
});

/** Stores what was judged to be new or corrected; each entry for itself, so that one that cannot go leaves the others alone. */
export const takeShelfFile = query({
  name: "shelf.take-file",
  permission: "keep the shelf",
  input: TakeFile,
  run: async (em, f, actor): Promise<Result<{ made: number; corrected: number; stock: number; beside: number; left: string[] }>> => {
    const read = await wanted(em, f.text);
    if (!read.ok) return read;
    const seen = new Map(f.rows.map((r) => [r.id, r.seen]));
    const out = { made: 0, corrected: 0, stock: 0, beside: 0, left: [] as string[] };
    for (const row of read.value.rows) {
      if (row.what === "left out" || row.what === "same" || !seen.has(row.id) || !row.type) continue;
      if (seen.get(row.id) !== row.seen) {
        out.left.push(`${row.name}: corrected by somebody else since the file was read. Read the file again.`);
        continue;
      }
      if (row.what === "new" || row.what === "corrected") {
        const r = await carryOut(em.fork() as EntityManager, actor, saveType, {
          text: JSON.stringify(row.type),
          ...(row.seen === null ? {} : { from: row.seen }),
          because: `From ${f.name}`.slice(0, 500),
        });
        if (!r.ok) {
          out.left.push(`${row.name}: ${r.sentence}`);
          continue;
        }
        out[row.what === "new" ? "made" : "corrected"] += 1;
      }
      if (row.stock !== undefined) {
        await carryOut(em.fork() as EntityManager, actor, setStock, { type: row.id, stock: row.stock });
        if (row.what === "stock") out.stock += 1;
      }
    }
    const { beside } = read.value;
    if (beside) {
      const more = await takeBeside(
        em,
        actor,
        beside,
        new Set(read.value.rows.filter((r) => r.what !== "left out" && seen.has(r.id)).map((r) => r.id)),
      );
      out.beside = more.taken;
      out.left.push(...more.left);
    }
    return yes(out);
  },
});

interface Read {
  rows: Wanted[];
  said: string[];
  beside?: BesideTypes;
}

async function wanted(em: EntityManager, text: string): Promise<Result<Read>> {
  const isJson = /^[\ufeff\s]*[[{]/.test(text);
  const raw = isJson ? await fromJson(text) : await fromCsv(em, text);
  if (!raw.ok) return raw;
  const ids = [...new Set(raw.value.rows.map((r) => r.id))];
  const now = new Map((await em.find(ShelfType, { id: { $in: ids } }, { limit: MOST_ENTRIES })).map((s) => [s.id, s]));
  const first = new Map<string, number>();
  const { beside } = raw.value;
  const withMore = new Set([...(beside?.tips ?? []), ...(beside?.photos ?? [])].map((x) => x.type));
  await inTurns(raw.value.rows, (row) => {
    const before = first.get(row.id);
    if (before !== undefined) row.faults.push(`The id is on line ${before} already.`);
    else first.set(row.id, row.line);
    const there = now.get(row.id);
    row.seen = there?.revision ?? null;
    if (row.type) row.faults.push(...contradictions(row.type));
    if (there && row.type && there.kind !== row.type.kind) row.faults.push(`It is a ${there.kind} on the shelf and stays one.`);
    const stock = row.stock !== undefined && row.stock !== (there?.stock ?? 0);
    if (!stock) delete row.stock;
    if (row.faults.length > 0 || !row.type) row.what = "left out";
    else if (!there) row.what = "new";
    else row.what = canonical(entryOf(there.body)) !== canonical(row.type) ? "corrected" : stock ? "stock" : withMore.has(row.id) ? "beside" : "same";
  });
  return yes(raw.value);
}

/** Without the revision, which the shelf gives, and whatever the order of the fields. */
const canonical = (t: PartType) =>
  JSON.stringify({ ...t, revision: 0 }, (_k, v) =>
    v !== null && typeof v === "object" && !Array.isArray(v) ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1))) : v,
  );

const rowOf = (line: number, id: string, name: string, faults: string[], type?: PartType, stock?: number): Wanted => ({
  line,
  id,
  name: name || id || `line ${line}`,
  what: "left out",
  faults,
  seen: null,
  ...(type ? { type } : {}),
  ...(stock === undefined ? {} : { stock }),
});

async function fromJson(text: string): Promise<Result<Read>> {
  const read = parseJson(text.replace(/^\ufeff/, ""));
  if (!read.ok) return no("Nothing was read.", read.faults);
  const more = besideTypes(read.value);
  if (typeof more === "string") return no("Nothing was read.", [more]);
  const all = more ? more.types : Array.isArray(read.value) ? read.value : [read.value];
  if (all.length === 0) return no("The file holds no part type. Nothing was read.");
  if (all.length > MOST_ENTRIES) return no(`${all.length} part types; at most ${MOST_ENTRIES}. Nothing was read. Split the file.`);
  const word = (v: unknown) => (typeof v === "string" ? v.slice(0, 120) : "");
  const beside = more?.beside;
  return yes({
    said: [],
    ...(beside ? { beside } : {}),
    rows: await inTurns(all, (data, i) => {
      const parsed = parseWith(PartType, data);
      const raw = (data ?? {}) as Record<string, unknown>;
      return rowOf(i + 1, word(raw.id), word(raw.name), parsed.ok ? [] : parsed.faults.slice(0, 5), parsed.ok ? parsed.value : undefined);
    }),
  });
}

async function fromCsv(em: EntityManager, text: string): Promise<Result<Read>> {
  const read = readCsv(text, true);
  if (!read.ok) return no(read.sentence);
  const { columns, rows } = read.table;
  if (!columns.includes("id")) return no(`There is no column "id"; the columns are ${columns.slice(0, 8).join(", ")}. Nothing was read.`);
  const known = new Set<string>([...OWN_COLUMNS, ...FLAT_FIELDS.map((f) => f.path)]);
  const unknown = columns.filter((c) => !known.has(c));
  const at = (row: readonly string[], column: string) => {
    const i = columns.indexOf(column);
    return i < 0 ? undefined : plainCell(row[i] ?? "");
  };
  const wantedIds = rows.flatMap((r) => [at(r, "id") ?? "", at(r, "like") ?? ""]).filter(Boolean);
  const shelf = new Map(
    (await em.find(ShelfType, { id: { $in: [...new Set(wantedIds)] } }, { limit: 2 * MOST_ENTRIES })).map((s) => [s.id, entryOf(s.body)]),
  );
  return yes({
    said: unknown.length > 0 ? [`Columns that are not known were not read: ${unknown.slice(0, 8).join(", ")}.`] : [],
    rows: await inTurns(rows, (r, i) => {
      const line = i + 2;
      const id = at(r, "id") ?? "";
      const like = at(r, "like") ?? "";
      const name = at(r, "name") ?? "";
      if (id === "") return rowOf(line, "", name, ["It has no id."]);
      const base = shelf.get(id) ?? shelf.get(like);
      if (!base)
        return rowOf(line, id, name, [
          like
            ? `The shelf has no part type ${like} to be like.`
            : `The shelf has no part type ${id}. Name one that it is like in the column "like": ports and leads come from there.`,
        ]);
      const cells = new Map(columns.map((c) => [c, at(r, c) ?? ""]));
      const flat = withFlatValues(base, cells);
      const own = { ...(flat.data as object), id, ...(name ? { name } : {}), ...(cells.get("maker") ? { maker: cells.get("maker") } : {}) };
      const kind = cells.get("kind");
      const faults = [...flat.faults, ...(kind && kind !== base.kind ? [`It is called a ${kind}; ${base.id} is a ${base.kind}.`] : [])];
      const parsed = parseWith(PartType, own);
      if (!parsed.ok) faults.push(...parsed.faults);
      const count = cells.get("stock");
      const stock = count ? Number(count) : undefined;
      if (stock !== undefined && !(Number.isInteger(stock) && stock >= 0 && stock <= 9999))
        faults.push(`stock: "${count?.slice(0, 40)}" is not a whole number from 0 to 9999.`);
      return rowOf(line, id, name || base.name, faults.slice(0, 5), parsed.ok ? parsed.value : undefined, stock);
    }),
  });
}

import { z } from "zod";
import { opened } from "../../archive";
import { readBuildText } from "../../core/assembly";
import { isStage } from "../../core/job";
import { columnsOf, type EntityManager } from "../../db";
import { paperOf } from "../documents/papers";
import { tellJob } from "../kernel/news";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { tell } from "../people/shop-log";
import { uprightBeside } from "../photos/beside";
import { photoStore } from "../photos/store";
import { shopAction } from "../unit/action";
import { jobView } from "../views/job-view";
import { RECORD_VERSION } from "./make";
import { COUNTED, NAMES_PERSON, TABLES } from "./tables";

const Row = z.record(z.string().max(60), z.unknown());
type Row = z.infer<typeof Row>;
const Record = z.object({
  version: z.literal(RECORD_VERSION),
  job: z.looseObject({ id: z.uuid(), number: JobNumber, revision: z.number().int().min(1), stage: z.string().refine(isStage, "is no stage") }),
  tables: z.partialRecord(z.enum(TABLES), z.array(Row).max(20_000)),
  people: z.array(z.object({ id: z.uuid(), name: z.string().min(1).max(80) })).max(500),
});
type Record = z.infer<typeof Record>;

const isId = (id: unknown): id is string => z.uuid().safeParse(id).success;

/** Takes a job in again, from the file that was made of it: whole, or nothing of it. What is here already is not doubled. */
export const takeIn = shopAction({
  name: "archive.take-in",
  permission: "keep the shop",
  input: z.object({ bytes: z.instanceof(Buffer) }),
  run: async (unit, { bytes }): Promise<Result<string>> => {
    const read = await opened(bytes);
    if (!read.ok) return no(read.sentence);
    if (read.changed.length > 0)
      return no(`This archive is not as it was made: ${read.changed.slice(0, 4).join(" ")} Nothing was taken in. Take the file that was kept first.`);
    const build = readBuildText(read.files.get("build.json")?.toString("utf8") ?? "", []);
    if (!build.ok) return no(`The build in this archive is not understood: ${build.faults[0]} Nothing was taken in.`);
    const record = recordIn(read.files.get("record.json"));
    if (typeof record === "string") return no(record);
    const { number } = record.job;
    const [there] = await unit.tx.execute<{ number: string }[]>(`select "number" from "job" where "id" = ? or "number" = ?`, [record.job.id, number]);
    if (there) return no(`${there.number} is here already. Nothing was taken in, and nothing is doubled.`);
    await keepRows(unit.tx, record);
    // What was taken in is looked at before it is kept: what no screen could show is taken back.
    if (!(await shows(unit.tx, number))) return no("What is in this archive cannot be shown by this Imbra. Nothing was taken in.");
    const refused = await keepPhotos(record, read.files);
    if (refused) return no(refused);
    tellJob(unit.tx, number, record.job.revision);
    tell(unit, "archive-taken-in", { number, title: read.manifest.title });
    return yes(number);
  },
});

function recordIn(bytes: Buffer | undefined): Record | string {
  let json: unknown;
  try {
    json = JSON.parse(bytes?.toString("utf8") ?? "");
  } catch {
    return "This archive has no record in it: it was made on the command line, of a build alone. Read its build.json in on Intake. Nothing was taken in.";
  }
  const read = Record.safeParse(json);
  return read.success
    ? read.data
    : `The record in this archive is not understood: ${read.error.issues[0]?.path.join(".")} ${read.error.issues[0]?.message}. Nothing was taken in.`;
}

/** Who did what: somebody of the same name here, else a name that signs in nowhere. */
async function peopleHere(tx: EntityManager, people: Record["people"]): Promise<Map<string, string>> {
  const out = new Map<string, string>();
  for (const p of people) {
    const [here] = await tx.execute<{ id: string }[]>(`select "id" from "person" where "name" = ? order by ("id" = ?) desc limit 1`, [p.name, p.id]);
    if (here) {
      out.set(p.id, here.id);
      continue;
    }
    await tx.execute(`insert into "person" ("id", "name", "role", "active") values (?, ?, 'reader', false)`, [p.id, p.name]);
    out.set(p.id, p.id);
  }
  return out;
}

async function keepRows(tx: EntityManager, record: Record): Promise<void> {
  const here = await peopleHere(tx, record.people);
  const named = (row: Row): Row =>
    Object.fromEntries(Object.entries(row).map(([k, v]) => [k, NAMES_PERSON.test(k) && v !== null ? (here.get(String(v)) ?? null) : v]));
  // A bench of another day is nobody's now, and the machine's earlier job may not be here.
  const before = record.job.service_of_id;
  const [there] = isId(before) ? await tx.execute<{ id: string }[]>(`select "id" from "job" where "id" = ?`, [before]) : [];
  await put(tx, "job", [{ ...named(record.job), bench: null, version: 1, service_of_id: there?.id ?? null }]);
  for (const t of TABLES)
    await put(
      tx,
      t,
      (record.tables[t] ?? []).map((r) => ({ ...named(r), job_id: record.job.id })),
    );
}

/** Rows as the table has them: columns are the table's own, whatever a file says. */
async function put(tx: EntityManager, table: string, rows: readonly Row[]): Promise<void> {
  if (rows.length === 0) return;
  const own = (await columnsOf(tx, table)).filter((c) => (c !== "id" || !COUNTED.has(table)) && rows.some((r) => r[c] !== undefined));
  const list = own.map((c) => `"${c}"`).join(", ");
  await tx.execute(`insert into "${table}" (${list}) select ${list} from jsonb_populate_recordset(null::"${table}", ?::jsonb)`, [
    JSON.stringify(rows),
  ]);
}

/** Photos are looked at like new ones; without one the record stands all the same. */
async function keepPhotos(record: Record, files: ReadonlyMap<string, Buffer>): Promise<string | undefined> {
  for (const p of record.tables.photo ?? []) {
    const bytes = isId(p.id) ? files.get(`photos/${p.id}.jpg`) : undefined;
    if (!bytes || !isId(p.id)) continue;
    const made = await uprightBeside(bytes);
    if (made === "busy") return "Many photos come in at this moment. Nothing was taken in. Try again.";
    if (!made) return `photos/${p.id}.jpg is no photo. Nothing was taken in.`;
    await photoStore.put(p.id, made.bytes);
  }
  return undefined;
}

async function shows(tx: EntityManager, number: string): Promise<boolean> {
  try {
    // Its screens, and the papers that read what else is kept with it.
    const papers = [await paperOf(tx, number, "shop"), await paperOf(tx, number, "parcel")];
    return (await jobView(tx, number)) !== undefined && papers.every((p) => p !== undefined);
  } catch {
    return false;
  }
}

import {
  type Build,
  buildGraph,
  type Connection,
  type Graph,
  Part,
  Policy,
  type ReadFaults,
  readBuild,
  Settings,
  type TypeLookup,
  typeLookup,
  Wishes,
} from "../../core/assembly";
import { PartType } from "../../core/catalogue";
import { type EntityManager, Job, JobPart, type JobRow, Link, ShelfType, StepDone } from "../../db";

/** Kinds that the planner may take from the shelf. */
const ACCESSORIES = ["splitter", "extension", "hub", "usb-hub", "adapter"];

export interface JobBuild {
  job: JobRow;
  build: Build;
  graph: Graph;
  types: TypeLookup;
  /** Parts that have not arrived, where the shop keeps receipts of this job. */
  notHere: string[];
}

interface PartRow {
  key: string;
  type: string;
  label: string | null;
  mount: string | null;
  zone: string | null;
  serial: string | null;
  origin: string;
  placing: unknown;
  priceCents: number | null;
  arrivedAt: unknown;
  body: unknown;
}
interface LinkPick {
  lead: string;
  port: string;
  place: number[] | null;
  state: string;
}
interface ShelfPick {
  id: string;
  stock: number;
  body: unknown;
}

export async function findJob(em: EntityManager, number: string): Promise<JobRow | undefined> {
  return (await em.findOne(Job, { number }, { populate: ["technician"] })) ?? undefined;
}

/** Entries were parsed when they were stored and are trusted, but those of an earlier version lack what came later. */
export function entryOf(body: unknown): PartType {
  const stored = body as PartType;
  // The newest list that an entry of today always has: one stored before is read anew.
  return stored.body?.cagePlaces === undefined ? PartType.parse(body) : stored;
}

/** As many as a build file holds. */
const MOST_STEPS = 1000;

/** What a step that is done says of how a part is fitted: whoever does it has set the standoffs for this board, or screwed it in. */
const STEP_SAYS: Record<string, { kind: string; says: Partial<Part> }> = {
  standoffs: { kind: "case", says: { standoffsSet: true } },
  "board-in": { kind: "board", says: { inCase: true } },
};
const saidBySteps = (kind: string | undefined, done: ReadonlySet<string>): Partial<Part> =>
  Object.assign({}, ...Object.entries(STEP_SAYS).flatMap(([step, s]) => (s.kind === kind && done.has(step) ? [s.says] : [])));

/** The job's build as the core knows it: parts with the entries they were planned with, stock, connections as they are. */
export async function buildOfJob(em: EntityManager, job: JobRow): Promise<JobBuild> {
  // Plain rows: the catalogue entries are large, and nothing here is written back.
  // One after the other: inside a transaction there is one connection.
  const rows = await em.createQueryBuilder(JobPart).select("*").where({ job: job.id }).orderBy({ position: "asc" }).execute<PartRow[]>("all");
  const links = await em
    .createQueryBuilder(Link)
    .select(["lead", "port", "place", "state"])
    .where({ job: job.id })
    .orderBy({ lead: "asc" })
    .execute<LinkPick[]>("all");
  const shelf = await em
    .createQueryBuilder(ShelfType)
    .select(["id", "stock", "body"])
    .where({ kind: { $in: ACCESSORIES } })
    .execute<ShelfPick[]>("all");
  // A job that was cancelled takes nothing from the shelf.
  const reserved = await em.execute<{ type: string }[]>(
    `select p."type" from "job_part" p join "job" j on j."id" = p."job_id" where p."origin" = 'shelf' and j."stage" <> 'cancelled'`,
  );
  // What is on the order list already may be planned with, whether anything more may be ordered or not.
  const ordered = new Map<string, number>();
  for (const r of rows) if (r.origin === "order") ordered.set(r.type, (ordered.get(r.type) ?? 0) + 1);
  const policy = Policy.parse(job.policy);
  const awaited = rows.some((r) => r.origin === "client" && r.arrivedAt === null);
  const taken = new Map<string, number>();
  for (const r of reserved) taken.set(r.type, (taken.get(r.type) ?? 0) + 1);
  const own = new Map(rows.map((r) => [r.type, entryOf(r.body)]));
  for (const s of shelf) if (!own.has(s.id)) own.set(s.id, entryOf(s.body));
  const steps = await em
    .createQueryBuilder(StepDone)
    .select(["step"])
    .where({ job: job.id })
    .orderBy({ step: "asc" })
    .limit(MOST_STEPS)
    .execute<{ step: string }[]>("all");
  const done = new Set(steps.map((s) => s.step));
  const parts = rows.map((r) =>
    Part.parse({
      id: r.key,
      type: r.type,
      from: r.origin,
      ...(r.label ? { label: r.label } : {}),
      ...(r.mount ? { mount: r.mount } : {}),
      ...(r.zone ? { zone: r.zone } : {}),
      ...(r.serial ? { serial: r.serial } : {}),
      ...(r.priceCents === null ? {} : { price: r.priceCents / 100 }),
      ...(r.placing as object),
      ...saidBySteps(own.get(r.type)?.kind, done),
    }),
  );
  const connections = links.map(
    (l): Connection => ({ lead: l.lead, port: l.port, state: l.state as Connection["state"], ...(l.place ? { place: l.place } : {}) }),
  );
  const build: Build = {
    format: "imbra-build",
    version: 1,
    name: `${job.number} ${job.title}`,
    client: job.client,
    // Once everything is here, a plan uses what is here; to order more is a decision of its own.
    policy: { ...policy, mayOrder: policy.mayOrder && awaited },
    settings: Settings.parse(job.settings),
    wishes: Wishes.parse(job.wishes),
    partTypes: [...own.values()],
    parts,
    accessories: shelf.map((s) => ({
      type: s.id,
      count: Math.max(0, s.stock - (taken.get(s.id) ?? 0)),
      ...(ordered.has(s.id) ? { ordered: Math.min(99, ordered.get(s.id) ?? 0) } : {}),
    })),
    connections,
    ...waysOf(job.ways),
    ...(steps.length > 0 ? { done: steps.map((s) => s.step) } : {}),
    ...(job.pulled.length > 0 ? { pulled: job.pulled } : {}),
  };
  const types = typeLookup(build, []);
  // Where nothing was ever received the shop keeps no receipts: nobody is asked.
  const receipts = rows.some((r) => r.arrivedAt !== null);
  const notHere = receipts ? rows.filter((r) => r.origin === "client" && r.arrivedAt === null).map((r) => r.key) : [];
  return { job, build, graph: buildGraph(build, types), types, notHere };
}

function waysOf(ways: Record<string, string>): Pick<Build, "ways"> {
  const list = Object.entries(ways).map(([lead, cutout]) => ({ lead, cutout }));
  return list.length > 0 ? { ways: list.sort((a, b) => (a.lead < b.lead ? -1 : 1)) } : {};
}

/** Reads a build file against the shelf as the database holds it. */
export async function readAgainstShelf(em: EntityManager, data: unknown): Promise<{ ok: true; build: Build; types: TypeLookup } | ReadFaults> {
  const shelf = (await em.find(ShelfType, {}, { limit: 5000 })).map((s) => entryOf(s.body));
  const read = readBuild(data, shelf);
  return read.ok ? { ok: true, build: read.build, types: typeLookup(read.build, shelf) } : read;
}

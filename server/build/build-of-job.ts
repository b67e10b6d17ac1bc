import {
  type Build,
  buildGraph,
  type Connection,
  type Graph,
  Part,
  Policy,
  type ReadFaults,
  readingBuild,
  Settings,
  type TypeLookup,
  typeLookup,
  Wishes,
} from "../../core/assembly";
import { type EntityManager, Job, type JobRow, ShelfType } from "../../db";
import { toTheEnd } from "../kernel/in-turns";
import { entryOf, partsOfJob } from "./parts-of-job";

export interface JobBuild {
  job: JobRow;
  build: Build;
  graph: Graph;
  types: TypeLookup;
  /** Parts that have not arrived, where the shop keeps receipts of this job. */
  notHere: string[];
}

export async function findJob(em: EntityManager, number: string): Promise<JobRow | undefined> {
  return (await em.findOne(Job, { number }, { populate: ["technician"] })) ?? undefined;
}

/** What a step that is done says of how a part is fitted: whoever does it has set the standoffs for this board, or screwed it in. */
const STEP_SAYS: Record<string, { kind: string; says: Partial<Part> }> = {
  standoffs: { kind: "case", says: { standoffsSet: true } },
  "board-in": { kind: "board", says: { inCase: true } },
};
const saidBySteps = (kind: string | undefined, done: ReadonlySet<string>): Partial<Part> =>
  Object.assign({}, ...Object.entries(STEP_SAYS).flatMap(([step, s]) => (s.kind === kind && done.has(step) ? [s.says] : [])));

/** The job's build as the core knows it: parts with the entries they were planned with, stock, connections as they are. */
export async function buildOfJob(em: EntityManager, job: JobRow): Promise<JobBuild> {
  const { rows, types: own, shelf, links, steps } = await partsOfJob(em, job.id);
  // What is on the order list already may be planned with, whether anything more may be ordered or not.
  const ordered = new Map<string, number>();
  for (const r of rows) if (r.origin === "order") ordered.set(r.type, (ordered.get(r.type) ?? 0) + 1);
  const policy = Policy.parse(job.policy);
  const awaited = rows.some((r) => r.origin === "client" && r.arrivedAt === null);
  const done = new Set(steps);
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
      ...(r.firmware === null ? {} : { firmware: r.firmware }),
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
      count: s.free,
      ...(ordered.has(s.id) ? { ordered: Math.min(99, ordered.get(s.id) ?? 0) } : {}),
    })),
    connections,
    ...waysOf(job.ways),
    ...(steps.length > 0 ? { done: [...steps] } : {}),
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

/** A file names no more part types than this; what is beyond is refused when it is read. */
const MOST_NAMED = 300;

/** What a file calls the part types of its parts and accessories, before anybody has looked whether it is one. */
const namedIn = (data: unknown): string[] =>
  ["parts", "accessories"].flatMap((list) => {
    const all = data !== null && typeof data === "object" ? (data as Record<string, unknown>)[list] : undefined;
    return Array.isArray(all) ? all.slice(0, MOST_NAMED).flatMap((p) => (typeof p?.type === "string" ? [p.type as string] : [])) : [];
  });

/** Reads a build file against the shelf as the database holds it, in turns with whatever else the server does. */
export async function readAgainstShelf(em: EntityManager, data: unknown): Promise<{ ok: true; build: Build; types: TypeLookup } | ReadFaults> {
  const shelf = (await em.find(ShelfType, { id: { $in: [...new Set(namedIn(data))] } })).map((s) => entryOf(s.body));
  const read = await toTheEnd(readingBuild(data, shelf));
  return read.ok ? { ok: true, build: read.build, types: typeLookup(read.build, shelf) } : read;
}

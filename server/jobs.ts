import { type Build, parseJson, type TypeLookup } from "../core/assembly";
import { type EntityManager, Job, JobPart, type JobRow, Link, layPart, type TechnicianRow } from "../db";
import { readAgainstShelf } from "./build-of-job";
import { log } from "./log";
import { no, type Result, yes } from "./result";

const MOST_JOBS = 5000;

/** What of a part goes into its `placing`. */
export /** Stores a build that has been read as a job. Inside the caller's transaction. */
function createJob(em: EntityManager, build: Build, types: TypeLookup, number: string, by: TechnicianRow): JobRow {
  const job = em.create(Job, {
    number,
    client: build.client ?? "No client named",
    title: build.name.slice(0, 120),
    stage: "intake",
    technician: by,
    policy: build.policy,
    settings: build.settings,
    wishes: build.wishes,
    aside: [],
    partsRevision: 1,
    version: 1,
    createdAt: new Date(),
  });
  build.parts.forEach((p, position) => {
    layPart(em, job, p, types(p.type), position);
  });
  for (const c of build.connections) {
    em.create(Link, {
      job,
      lead: c.lead,
      port: c.port,
      place: c.place ?? null,
      state: c.state,
      plannedPort: null,
      why: "From the build file.",
      planRevision: null,
      changedAt: new Date(),
    });
  }
  return job;
}

/** The next free number. Two people at once wait for each other until the transaction ends. */
export async function nextNumber(em: EntityManager): Promise<string> {
  await em.execute("select pg_advisory_xact_lock(1041)");
  const [last] = await em.execute<{ n: number | null }[]>(`select max(substring(number from '^FS-([0-9]{1,9})$')::int) as n from job`);
  return `FS-${(last?.n ?? 1040) + 1}`;
}

/** A new job from a build file. Bad files give a sentence a fault and store nothing. */
export async function importBuild(em: EntityManager, by: TechnicianRow, text: string): Promise<Result<string>> {
  const json = parseJson(text);
  if (!json.ok) return no("Nothing was stored. Correct the file and read it again.", json.faults);
  const read = await readAgainstShelf(em, json.value);
  if (!read.ok) return no("Nothing was stored. Correct the file and read it again.", read.faults);
  if ((await em.count(Job)) >= MOST_JOBS) return no(`There are already ${MOST_JOBS} jobs. Nothing was stored.`);
  return em.transactional(async (tx) => {
    const number = await nextNumber(tx as EntityManager);
    const job = createJob(tx as EntityManager, read.build, read.types, number, by);
    await tx.flush();
    log(tx as EntityManager, job, by, "job", `Job ${number} made from a build file: ${read.build.parts.length} parts.`);
    return yes(number);
  });
}

export async function findJobs(em: EntityManager, text: string): Promise<{ number: string; title: string; client: string; because: string }[]> {
  const like = `%${text.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
  const jobs = await em.find(
    Job,
    { $or: [{ number: { $ilike: like } }, { client: { $ilike: like } }, { title: { $ilike: like } }] },
    { limit: 20, orderBy: { number: "asc" } },
  );
  const serials = await em.find(JobPart, { serial: { $ilike: like } }, { limit: 20, populate: ["job"] });
  return [
    ...jobs.map((j) => ({ number: j.number, title: j.title, client: j.client, because: "" })),
    ...serials.map((s) => ({ number: s.job.number, title: s.job.title, client: s.job.client, because: `serial ${s.serial ?? ""}` })),
  ];
}

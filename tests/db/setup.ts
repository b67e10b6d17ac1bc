import { MikroORM } from "@mikro-orm/postgresql";
import { afterAll, beforeAll } from "vitest";
import { type Build, typeLookup } from "../../core/assembly";
import { plan } from "../../core/plan";
import { type EntityManager, Job, ormConfig, Person, type PersonRow } from "../../db";
import { carryOut } from "../../server/unit/action";
import { allJobs, type BenchJob } from "../../server/views/benches";
import { renewHeads } from "../../server/views/heads";
import { type JobView, jobView } from "../../server/views/job-view";

interface TestDatabase {
  em: () => EntityManager;
  by: () => Promise<PersonRow>;
  view: (number: string) => Promise<JobView>;
  /** The open jobs and those handed over last, their heads renewed. */
  benches: () => Promise<BenchJob[]>;
  /** Lets go of the database before the end of the file. */
  close: () => Promise<void>;
}

/** The database of a test file, seeded for the 23rd of November 2026; `then` is done before it, too. */
export function testDatabase(then?: (db: TestDatabase) => Promise<unknown>): TestDatabase {
  let orm: MikroORM | undefined;
  const em = () => (orm as MikroORM).em.fork() as EntityManager;
  const db: TestDatabase = {
    em,
    by: async () => (await em().findOneOrFail(Person, { name: "Mirel Quist" })) as PersonRow,
    view: async (number) => {
      const v = await jobView(em(), number);
      if (!v) throw new Error(number);
      return v;
    },
    benches: async () => {
      while ((await renewHeads(em())) > 0);
      const all = await carryOut(em(), await db.by(), allJobs, {});
      return all.ok ? all.value.jobs : [];
    },
    close: async () => {
      await orm?.close();
      orm = undefined;
      // And what the application itself has opened, to tell its news: a moment after what they are of.
      await new Promise((resolve) => setTimeout(resolve, 200));
      const kept = globalThis as typeof globalThis & { imbraOrm?: Promise<MikroORM> | undefined };
      await (await kept.imbraOrm)?.close();
      kept.imbraOrm = undefined;
    },
  };
  beforeAll(async () => {
    orm = await freshDatabase();
    await then?.(db);
  }, 120_000);
  afterAll(async () => {
    await orm?.close();
  });
  return db;
}

async function freshDatabase(): Promise<MikroORM> {
  return MikroORM.init(ormConfig(process.env.DATABASE_URL ?? ""));
}

/** Plans by what was asked for: files of this process ask for the same ones again and again. */
const plans = globalThis as typeof globalThis & { imbraTestPlans?: Map<string, ReturnType<typeof plan>> };

/** The planner without its thread, which exists only in a built server; the same build is planned once. */
export const make = async (build: Build) => {
  plans.imbraTestPlans ??= new Map();
  const key = JSON.stringify(build);
  const made = plans.imbraTestPlans.get(key) ?? plan(build, typeLookup(build, []));
  plans.imbraTestPlans.set(key, made);
  return structuredClone(await made);
};

export const jobOf = (em: EntityManager, number: string) => em.findOneOrFail(Job, { number });

import { MikroORM } from "@mikro-orm/postgresql";
import { type Build, typeLookup } from "../../core/build";
import { plan } from "../../core/plan";
import { type EntityManager, Job, ormConfig, Technician, type TechnicianRow } from "../../db";
import { seed } from "../../db/seed";
import { type JobView, jobView } from "../../server/views";

let orm: MikroORM | undefined;

/** The test database, migrated and seeded anew. */
export async function freshDatabase(): Promise<{
  em: () => EntityManager;
  by: () => Promise<TechnicianRow>;
  view: (number: string) => Promise<JobView>;
  close: () => Promise<void>;
}> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error("DATABASE_URL is not set: run npm test, which starts the test database");
  orm = await MikroORM.init(ormConfig(url));
  await orm.em.getConnection().execute("drop schema public cascade; create schema public");
  await orm.migrator.up();
  await seed(orm.em.fork() as EntityManager, process.cwd(), new Date("2026-11-23T09:00:00Z"), () => {});
  const fork = () => (orm as MikroORM).em.fork() as EntityManager;
  return {
    em: fork,
    by: async () => (await fork().findOneOrFail(Technician, { name: "Mirel Quist" })) as TechnicianRow,
    view: async (number) => {
      const v = await jobView(fork(), number);
      if (!v) throw new Error(number);
      return v;
    },
    close: async () => {
      await orm?.close();
    },
  };
}

/** The planner without its thread, which exists only in a built server. */
export const make = (build: Build) => plan(build, typeLookup(build, []));

export const jobOf = (em: EntityManager, number: string) => em.findOneOrFail(Job, { number });

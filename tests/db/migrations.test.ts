import { MikroORM } from "@mikro-orm/postgresql";
import { afterAll, describe, expect, it } from "vitest";
import { type EntityManager, Job, LogEntry, ormConfig, ShelfType } from "../../db";
import { seed } from "../../db/seed";
import { jobView } from "../../server/read/job-view";

let orm: MikroORM | undefined;
afterAll(async () => {
  await orm?.close();
});

describe("migrations", () => {
  it("go up one by one on a database that has jobs in it already, and lose nothing", async () => {
    orm = await MikroORM.init(ormConfig(process.env.DATABASE_URL ?? ""));
    const sql = orm.em.getConnection();
    await sql.execute("drop schema public cascade; create schema public");
    await orm.migrator.up({ to: "0001-thin-slice" });
    // A job as the first version stored it.
    await sql.execute(
      `insert into technician (name, role) values ('Runa Thistlewood', 'lead');
       insert into job (number, client, title, stage, technician_id, policy, settings, version) select 'FS-0900', 'An earlier client', 'Kept', 'intake', id, '{}', '{}', 1 from technician;
       insert into job_part (job_id, key, type, position, body) select id, 'fan-1', 'f', 0, '{"id":"f","kind":"fan","maker":"","name":"f","revision":1,"ports":[],"leads":[],"cables":[],"body":{"holes":[],"mounts":[],"cutouts":[],"landmarks":[]},"ratings":{}}' from job;
       insert into job_part (job_id, key, type, position, body) select id, 'case', 'c', 1, '{"id":"c","kind":"case","maker":"","name":"c","revision":1,"ports":[],"leads":[],"cables":[],"body":{"widthMm":450,"heightMm":450,"maxCardMm":300,"holes":[],"mounts":[{"id":"front-1","label":"front","region":"front","takes":["fan"],"at":{"xMm":440,"yMm":100},"sizeMm":120}],"cutouts":[],"landmarks":[]},"ratings":{}}' from job;
       insert into log_entry (job_id, by_id, kind, text) select j.id, t.id, 'job', 'made' from job j, technician t;`,
    );
    await orm.migrator.up();
    const em = orm.em.fork() as EntityManager;
    expect(await em.count(Job)).toBe(1);
    expect(await em.count(LogEntry)).toBe(1);
    const job = await em.findOneOrFail(Job, { number: "FS-0900" });
    expect([job.wishes, job.aside]).toEqual([{}, []]);
  });
  it("an entry stored before the newest fields still opens: what it lacks is filled in", async () => {
    const v = await jobView(orm?.em.fork() as EntityManager, "FS-0900");
    expect(v?.build.parts.map((p) => p.id)).toEqual(["fan-1", "case"]);
    const shell = v?.build.partTypes.find((t) => t.id === "c");
    expect([shell?.body.radiatorPlaces, shell?.body.mounts[0]?.frame]).toEqual([[], "inside"]);
    expect(v?.build.wishes.lighting).toBe("indifferent");
    expect(v?.findings.length).toBeGreaterThan(0);
  });
  it("go down and up again", async () => {
    await orm?.migrator.down({ to: 0 });
    await orm?.migrator.up();
    if (!orm) throw new Error("the first test did not run");
    const em = orm.em;
    await seed(em.fork() as EntityManager, process.cwd(), new Date("2026-11-23T09:00:00Z"), () => {});
    expect(await em.fork().count(Job)).toBe(8);
    expect(await em.fork().count(ShelfType)).toBeGreaterThan(100);
  }, 120_000);
});

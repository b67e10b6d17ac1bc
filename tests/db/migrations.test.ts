import { MikroORM } from "@mikro-orm/postgresql";
import { afterAll, describe, expect, it } from "vitest";
import { type EntityManager, Job, LogEntry, ShelfType } from "../../db";
import { migratingConfig } from "../../db/migrating";
import { MIGRATIONS } from "../../db/migrations";
import { seed } from "../../db/seed";
import { jobView } from "../../server/views/job-view";

let orm: MikroORM | undefined;
afterAll(async () => {
  await orm?.close();
});

describe("migrations", () => {
  it("go up one by one on a database that has jobs in it already, and lose nothing", async () => {
    orm = await MikroORM.init(migratingConfig(process.env.DATABASE_URL ?? ""));
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
    // Each later version stored something that the one before did not know.
    const since: Record<string, string> = {
      "0002-parts": `insert into shelf_type (id, kind, maker, name, revision, body) values ('f', 'fan', '', 'f', 1, '{}');
        insert into shelf_revision (type, revision, body, by_id, because) select 'f', 1, '{}', id, 'as it was' from technician`,
      "0003-money-and-spares": `update shelf_type set spares = 2; update job_part set price_cents = 1250 where key = 'fan-1'`,
      "0004-overrides": `insert into finding_override (job_id, finding, rule, severity, message, reason, by_id) select j.id, 'x', 'x', 'warn', 'm', 'because', t.id from job j, technician t`,
      "0005-ways": `insert into plan (job_id, revision, parts_revision, status, cost, free, cables, connections, made_by_id, took_ms, ways) select j.id, 1, 1, 'proved', '{}', '[]', '{"used":[],"inBag":[]}', '[]', t.id, 5, null from job j, technician t`,
      "0006-proof": `update plan set proof = 'Best down to length.'`,
      "0007-proof-key": `update plan set proof_key = 'k'; insert into log_entry (job_id, by_id, kind, text, entry_key) select j.id, t.id, 'note', 'kept with its key', 'k-1' from job j, technician t`,
      "0008-events": `insert into log_entry (job_id, by_id, kind, data, entry_key) select j.id, t.id, 'note', '{"text":"an event"}', 'k-2' from job j, technician t`,
      "0009-heads-and-news": `insert into job_head select id, 1, 'next', 0, 0, 3, 1, 9, 4, 2 from job`,
      "0010-plan-runs": `insert into plan_run (job_id, hash, asked_by_id) select j.id, 'h', t.id from job j, technician t`,
      "0011-people": `insert into credential (person_id, password_hash) select id, 'h' from person;
        insert into session (token_hash, device, person_id, label) select 't', gen_random_uuid(), id, 'a browser' from person;
        insert into shop_log (by_id, kind, data) select id, 'left', '{}' from person`,
      "0012-ways": `update job set ways = '{"fan-1:lead":"right-1"}'; insert into step_done (job_id, step, by_id) select j.id, 'mount:fan-1', t.id from job j, person t`,
      "0013-order": `update job set pulled = '[{"step":"look","before":"close"}]';
        insert into step_skipped (job_id, step, reason, by_id) select j.id, 'look', 'later', t.id from job j, person t;
        insert into step_time (job_id, step, measure, seconds, by_id) select j.id, 'look', 'look', 60, t.id from job j, person t`,
      "0014-photos": `insert into photo (job_id, step, width, height, bytes, by_id) select j.id, 'look', 2, 2, 9, t.id from job j, person t`,
      "0015-head-news": `update job_head set revision = revision + 1`,
      "0016-turns": `insert into turn (device, session_id, person_id) select gen_random_uuid(), s.id, s.person_id from session s where not exists (select from turn t where t.session_id = s.id);
        insert into shop_log (kind, data) values ('wrong-tries', '{}')`,
      "0017-news-after-commit": `update job_part set serial = 'AB-1' where key = 'fan-1'`,
      "0018-returns": `insert into part_return (job_id, part, name, why, by_id) select j.id, 'fan-1', 'Front fan', 'dead', t.id from job j, person t`,
      "0019-brief": `update job set brief = '{"mail":"Good morning, three fans please.","phone":"555 0100"}'`,
      "0020-shop-and-offer": `update shop set defaults = '{"rate":60}'; update job_part set ordered_on = '2026-11-20' where key = 'fan-1';
        insert into offer (job_id, count, body, by_id) select j.id, 1, '{}', t.id from job j, person t;
        insert into tip (type, words, by_id) select 'f', 'its screws are short', id from person;
        insert into type_photo (type, width, height, bytes, by_id) select 'f', 2, 2, 9, id from person`,
      "0021-soak": `insert into soak_log (job_id, name, readings, soak, by_id) select j.id, 'log.csv', '{}', '{}', t.id from job j, person t`,
      "0022-beside-parts": `update tip set photo = gen_random_uuid(), photo_width = 2, photo_height = 2, photo_bytes = 9; update job_part set availability = 'in three days' where key = 'fan-1'`,
      "0023-after-the-start": `insert into setup_done (job_id, item, target, state, after, by_id) select j.id, 'firmware', '12', 'set', '12', t.id from job j, person t;
        insert into proof (job_id, about, words, body, by_id) select j.id, 'quiet', 'quiet', '{"result":"seen","conditions":"","why":""}', t.id from job j, person t`,
      "0024-machine-speaks": `insert into machine_token (job_id, token_hash, name, by_id, until) select j.id, 'hash', 'the machine', t.id, now() from job j, person t;
        insert into reading (token_id, at_s, "values") select m.id, 5, '{"CPU °C":41}' from machine_token m`,
      "0025-on-loan": `insert into loan (job_id, what, owner, by_id) select j.id, 'start drive 2', 'the shop', t.id from job j, person t;
        insert into secret (job_id, what, sealed, by_id) select j.id, 'first user', 'sealed', t.id from job j, person t;
        insert into by_itself (job_id, what, minutes, by_id) select j.id, 'updates', 30, t.id from job j, person t`,
      "0026-incidents": `insert into fault_event (job_id, fault, line, value, by_id) select j.id, 1, 'standby', 'dark', t.id from job j, person t;`,
      "0027-leaving": `update job set leaving = '{"way":"travels"}'`,
      "0028-comes-back": `update job set service_of_id = null`,
      "0029-client-page": `insert into client_page (id, job_id, token_hash, by_id) select gen_random_uuid(), j.id, 'hash', t.id from job j, person t`,
    };
    for (const { name } of MIGRATIONS.slice(1)) {
      await orm.migrator.up({ to: name });
      const stored = since[name];
      if (!stored) throw new Error(`${name} has no rows of its time in this test`);
      await sql.execute(stored);
    }
    const em = orm.em.fork() as EntityManager;
    expect(await em.count(Job)).toBe(1);
    expect(await em.count(LogEntry)).toBe(3);
    const counts = await Promise.all(
      ["shelf_type", "shelf_revision", "job_part", "finding_override", "plan", "job_head", "plan_run"].map(async (t) => {
        const [row] = await em.fork().execute<{ n: number }[]>(`select count(*)::int as n from "${t}"`);
        return [t, row?.n];
      }),
    );
    expect(Object.fromEntries(counts)).toEqual({
      shelf_type: 1,
      shelf_revision: 1,
      job_part: 2,
      finding_override: 1,
      plan: 1,
      job_head: 1,
      plan_run: 1,
    });
    const log = await em.execute<{ at: unknown; happened_at: unknown }[]>(`select at, happened_at from log_entry where kind = 'job'`);
    expect(log[0]?.happened_at).toEqual(log[0]?.at);
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
    expect(v?.log.map((e) => e.text)).toEqual(["an event", "kept with its key", "made"]);
    expect(v?.setAside.map((s) => s.reason)).toEqual(["because"]);
  });
  it("go down and up again", async () => {
    await orm?.migrator.down({ to: 0 });
    await orm?.migrator.up();
    if (!orm) throw new Error("the first test did not run");
    const em = orm.em;
    await seed(
      em.fork() as EntityManager,
      process.cwd(),
      new Date("2026-11-23T09:00:00Z"),
      () => {},
      async (secret) => secret,
    );
    expect(await em.fork().count(Job)).toBe(8);
    expect(await em.fork().count(ShelfType)).toBeGreaterThan(100);
  }, 120_000);
});

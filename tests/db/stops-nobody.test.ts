import pg from "pg";
import { describe, expect, it } from "vitest";
import { Job, LogEntry } from "../../db";
import { note } from "../../server/bench/note";
import { changeDetails } from "../../server/job/details";
import { listen, type News } from "../../server/live/channel";
import { carryOut } from "../../server/unit/action";
import { jobOf, testDatabase } from "./setup";

const db = testDatabase();

describe("nobody stops everybody", () => {
  it("many who wait for one held job leave the connections to others, and are told to come again where they are too many", async () => {
    const held = db.em();
    await held.begin();
    await held.execute(`select 1 from job where number = 'FS-1048' for update`);
    const by = await db.by();
    let over = 0;
    const waiting = Array.from({ length: 90 }, (_, n) =>
      carryOut(db.em(), by, note, { number: "FS-1048", kind: "problem", text: `waits ${n}` })
        .catch(() => undefined)
        .finally(() => over++),
    );
    // Another job's entry and a page are answered though ninety wait: the pool has ten connections.
    const other = await carryOut(db.em(), by, note, { number: "FS-1047", kind: "problem", text: "goes on" });
    expect(other).toMatchObject({ ok: true });
    expect(await db.view("FS-1046")).toBeDefined();
    expect(over).toBeLessThan(90);
    await held.rollback();
    const said = await Promise.all(waiting);
    expect(said.filter((r) => r?.ok).length).toBeGreaterThanOrEqual(50);
    expect(said.filter((r) => r && !r.ok && r.later === "again").length).toBeGreaterThan(0);
    expect(said.filter((r) => r === undefined)).toEqual([]);
  }, 60_000);

  it("an event that nobody can word is one line that says so, and every other line stands", async () => {
    const job = (await jobOf(db.em(), "FS-1045")).id;
    const by = (await db.by()).id;
    for (const [kind, data] of [
      ["received", "{}"],
      ["tried", `{"closed": null, "result": "that was it"}`],
      ["of-tomorrow", `{"x": 1}`],
      ["details", "null"],
    ])
      await db.em().execute(`insert into log_entry (job_id, by_id, kind, data) values (?, ?, ?, ?::jsonb)`, [job, by, kind, data]);
    const { log } = await db.view("FS-1045");
    expect(log.slice(0, 4).map((e) => e.text)).toEqual(
      ["details", "of-tomorrow", "tried", "received"].map((k) => `Something happened that this version of Imbra has no words for (${k}).`),
    );
    expect(log.length).toBeGreaterThan(4);
  });

  it("days that no calendar has are a sentence, not a fault of the server", async () => {
    const by = await db.by();
    for (const dueOn of ["0000-01-01", "0001-01-01", "9999-12-31", "2026-02-30"])
      expect([dueOn, await carryOut(db.em(), by, changeDetails, { number: "FS-1044", dueOn })]).toEqual([
        dueOn,
        expect.objectContaining({ ok: false }),
      ]);
    expect(await carryOut(db.em(), by, changeDetails, { number: "FS-1044", dueOn: "2027-01-31" })).toMatchObject({ ok: true });
  });
});

describe("news", () => {
  it("are told after the commit: never of what was taken back, nothing inside of a transaction; what nobody told is looked for", async () => {
    const heard: News[] = [];
    const deaf = listen((n) => heard.push(n));
    const of = (number: string) => heard.filter((n) => "job" in n && n.job === number);
    try {
      const said = async () => carryOut(db.em(), await db.by(), note, { number: "FS-1041", kind: "note", text: "heard" });
      await expect.poll(async () => ((await said()).ok ? of("FS-1041").length : 0), { timeout: 20_000, interval: 200 }).toBeGreaterThan(0);
      // No trigger of the job, of heads or of the shop notifies any more: that would hold the one lock inside of each transaction.
      const triggers = await db.em().execute<{ t: string }[]>(
        `select c.relname || ' ' || t.tgname as t from pg_trigger t join pg_class c on c.oid = t.tgrelid join pg_proc p on p.oid = t.tgfoid
         where not t.tgisinternal and p.prosrc like '%pg_notify%' order by 1`,
      );
      expect(triggers.every((t) => t.t.startsWith("plan_run"))).toBe(true);
      // A refusal tells nothing.
      await carryOut(db.em(), await db.by(), changeDetails, { number: "FS-1043", client: "x", saw: { client: "somebody else" } });
      // Written by who tells nobody, as a server that dies right after its commit.
      const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
      await client.connect();
      await client.query(`update job set revision = revision + 1 where number = 'FS-1042'`);
      await client.end();
      await expect.poll(() => of("FS-1042").length, { timeout: 30_000, interval: 200 }).toBeGreaterThan(0);
      expect(of("FS-1043")).toEqual([]);
      expect((await db.em().count(LogEntry, { job: (await db.em().findOneOrFail(Job, { number: "FS-1043" })).id })) >= 0).toBe(true);
    } finally {
      deaf();
    }
  }, 60_000);
});

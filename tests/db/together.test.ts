import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { Fault, Job, Link, LogEntry, StepDone } from "../../db";
import { seed } from "../../db/seed";
import { Note, note } from "../../server/bench/note";
import { Plug, plug } from "../../server/bench/plug";
import { Step, step } from "../../server/bench/step";
import { actOn } from "../../server/faults/act";
import { closeFault } from "../../server/faults/close";
import { Observe, observe } from "../../server/first-boot/observe";
import { jobFromFile } from "../../server/job/from-file";
import { failed } from "../../server/kernel/failed";
import { changePart } from "../../server/parts/change";
import { Fix, fix } from "../../server/plan/fix";
import { planJob } from "../../server/plan/plan-job";
import { carryOut } from "../../server/unit/action";
import { jobOf, make, testDatabase } from "./setup";

const db = testDatabase();

const view = (n: string) => db.view(n);
const entries = async (n: string) => {
  const em = db.em();
  return em.count(LogEntry, { job: (await jobOf(em, n)).id });
};

describe("many hands on one job", () => {
  it("the same entry sent eight times at once is kept once", async () => {
    const by = await db.by();
    const l = (await view("FS-1044")).leads.find((x) => x.state === "planned" && x.port);
    const before = await entries("FS-1044");
    const all = await Promise.all(
      Array.from({ length: 8 }, () =>
        carryOut(db.em(), by, plug, { number: "FS-1044", lead: l?.address ?? "", port: l?.port ?? "", state: "plugged" }, { key: "eight" }),
      ),
    );
    expect(all.map((r) => r.ok)).toEqual(Array(8).fill(true));
    expect(await entries("FS-1044")).toBe(before + 1);
  });
  it("three fans said to be in one port at once: one is, the others are told which", async () => {
    const by = await db.by();
    const v = await view("FS-1042");
    const free = ["board:SYS_FAN1", "board:SYS_FAN2", "board:SYS_FAN3"].find((p) => !v.leads.some((l) => l.port === p));
    const fans = v.leads.filter((l) => l.family === "fan-4" && l.state !== "plugged").slice(0, 3);
    expect(fans.length).toBeGreaterThan(1);
    const all = await Promise.all(
      fans.map((f) => carryOut(db.em(), by, plug, { number: "FS-1042", lead: f.address, port: free ?? "", state: "plugged" })),
    );
    expect(all.filter((r) => r.ok)).toHaveLength(1);
    for (const r of all) if (!r.ok) expect(r.sentence).toMatch(/already holds FN-\d+ .*Take that out first\. Nothing was changed\./);
    expect((await view("FS-1042")).leads.filter((l) => l.port === free)).toHaveLength(1);
  });
  it("twenty steps ticked and unticked at once leave one answer each, and an entry for each", async () => {
    const by = await db.by();
    const before = await entries("FS-1043");
    const steps = (await view("FS-1043")).steps.filter((x) => !x.lead).slice(0, 5);
    expect(steps).toHaveLength(5);
    await Promise.all(
      Array.from({ length: 20 }, (_, i) => carryOut(db.em(), by, step, { number: "FS-1043", step: steps[i % 5]?.id ?? "", done: i % 2 === 0 })),
    );
    const em = db.em();
    const rows = await em.find(StepDone, { job: (await jobOf(em, "FS-1043")).id });
    expect(new Set(rows.map((r) => r.step)).size).toBe(rows.length);
    expect(await entries("FS-1043")).toBe(before + 20);
    expect(await carryOut(db.em(), by, step, { number: "FS-1043", step: "no-such-step", done: true })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("no such step"),
    });
  });
  it("two files read in at once become two jobs with numbers of their own, also past four digits", async () => {
    const by = await db.by();
    const text = readFileSync("examples/fs-1046.json", "utf8");
    const all = await Promise.all([1, 2, 3].map(() => carryOut(db.em(), by, jobFromFile, { text: text })));
    expect(all.map((r) => r.ok && r.value).sort()).toEqual(["FS-1049", "FS-1050", "FS-1051"]);
    const em = db.em();
    const last = await em.findOneOrFail(Job, { number: "FS-1051" });
    last.number = "FS-10000";
    await em.flush();
    expect(await carryOut(db.em(), by, jobFromFile, { text: text })).toEqual({ ok: true, value: "FS-10001" });
    const again = db.em();
    const made = await again.find(Job, { number: { $in: ["FS-1049", "FS-1050", "FS-10000", "FS-10001"] } });
    expect(made).toHaveLength(4);
  });
  it("two problems at once are two faults with numbers of their own", async () => {
    const by = await db.by();
    await Promise.all(["one", "two", "three"].map((text) => carryOut(db.em(), by, note, { number: "FS-1043", kind: "problem", text })));
    const em = db.em();
    const faults = await em.find(Fault, { job: (await jobOf(em, "FS-1043")).id });
    expect(faults.map((f) => f.number).sort()).toEqual([1, 2, 3]);
  });
});

describe("a plan made while hands go on working", () => {
  it.each([
    ["a plug goes in", "plugged" as const],
    ["a plug comes out", "planned" as const],
  ])(
    "%s meanwhile: that plan is not stored; it is planned again, and hands are right",
    async (_, state) => {
      const by = await db.by();
      await planJob(db.em(), "FS-1045", by, make);
      const l = (await view("FS-1045")).leads.find((x) => x.port && x.family === "fan-4" && x.loom === "fans" && !x.out);
      const say = (s: "plugged" | "planned") =>
        carryOut(db.em(), by, plug, { number: "FS-1045", lead: l?.address ?? "", port: l?.port ?? "", state: s });
      await say(state === "plugged" ? "planned" : "plugged");
      const before = (await view("FS-1045")).plan?.revision;
      const r = await planJob(db.em(), "FS-1045", by, async (build) => {
        const made = await make(build);
        expect((await say(state)).ok).toBe(true);
        return made;
      });
      expect(r).toMatchObject({ ok: true });
      expect((await view("FS-1045")).plan?.revision).toBe((before ?? 0) + 1);
      expect((await view("FS-1045")).leads.find((x) => x.address === l?.address)?.state).toBe(state);
    },
    120_000,
  );
  it("a part is changed meanwhile: the plan that is stored knows it; changed each time, none is, and it says so", async () => {
    const by = await db.by();
    const before = (await view("FS-1048")).plan?.revision ?? 0;
    let times = 0;
    const types = ["halcyra-75", "halcyra-160"];
    const changing = (most: number) => () =>
      planJob(db.em(), "FS-1048", by, async (build) => {
        const made = await make(build);
        if (times++ < most)
          expect((await carryOut(db.em(), by, changePart, { number: "FS-1048", part: "card", type: types[times % 2] ?? "" })).ok).toBe(true);
        return made;
      });
    expect(await changing(1)()).toMatchObject({ ok: true });
    expect((await view("FS-1048")).plan).toMatchObject({ revision: before + 1, stale: false });
    times = 1;
    expect(await changing(9)()).toMatchObject({ ok: false, sentence: expect.stringContaining("Nothing was stored. Plan again.") });
    expect((await view("FS-1048")).plan?.revision).toBe(before + 1);
  }, 120_000);
  it("a planner that fails leaves the wiring as it was, in a sentence", async () => {
    const by = await db.by();
    const before = (await view("FS-1045")).leads.map((l) => [l.address, l.port]);
    const r = await planJob(db.em(), "FS-1045", by, async () => {
      throw new Error("no plan after 70 s");
    });
    expect(r).toMatchObject({ ok: false, sentence: "No plan was made: no plan after 70 s. The wiring is as it was. Try again." });
    expect((await view("FS-1045")).leads.map((l) => [l.address, l.port])).toEqual(before);
  });
});

describe("whatever hands plug, the shop's page stays", () => {
  it("a ring of splitters is recorded as the fact it is; every page still opens, and the plan refuses to fix one", async () => {
    const by = await db.by();
    await planJob(db.em(), "FS-1041", by, make);
    const v = await view("FS-1041");
    const inputs = v.leads.filter((l) => l.address.endsWith(":in") && l.family === "fan-4").map((l) => l.address);
    const [a, b] = inputs;
    if (!a || !b) throw new Error(`two splitters are wanted, not ${inputs.length}: ${v.leads.length} leads`);
    const outOf = (lead: string) => `${lead.split(":")[0]}:out-3`;
    for (const port of [outOf(b), outOf(a)]) {
      const there = (await view("FS-1041")).leads.find((l) => l.port === port);
      if (there) await carryOut(db.em(), by, plug, { number: "FS-1041", lead: there.address, port, state: "planned" });
    }
    expect((await carryOut(db.em(), by, plug, { number: "FS-1041", lead: a, port: outOf(b), state: "plugged" })).ok).toBe(true);
    expect(await carryOut(db.em(), by, fix, { number: "FS-1041", lead: b, port: outOf(a), fixed: true })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("close a ring"),
    });
    expect((await carryOut(db.em(), by, plug, { number: "FS-1041", lead: b, port: outOf(a), state: "plugged" })).ok).toBe(true);
    const after = await view("FS-1041");
    expect(after.findings.some((f) => f.severity === "stop" && /leads back to itself/.test(f.message))).toBe(true);
    expect((await db.benches()).length).toBe(12);
  }, 120_000);
});

describe("every action parses what it is given", () => {
  const long = "x".repeat(5000);
  it.each([
    ["Plug", Plug, { number: "FS-1041", lead: "a:b", port: "c:d", state: "plugged" }],
    ["Fix", Fix, { number: "FS-1041", lead: "a:b", port: "c:d", fixed: true }],
    ["Step", Step, { number: "FS-1041", step: "s", done: true }],
    ["Note", Note, { number: "FS-1041", text: "t", kind: "note" }],
    ["Observe", Observe, { number: "FS-1041", lines: [{ line: "l", value: "v" }] }],
  ] as const)("%s refuses a missing, a wrong and an endless field", (_, schema, good) => {
    expect(schema.safeParse(good).success).toBe(true);
    for (const key of Object.keys(good)) {
      const { [key as never]: _gone, ...rest } = good as Record<string, unknown>;
      expect([key, schema.safeParse(rest).success]).toEqual([key, false]);
      expect([key, schema.safeParse({ ...good, [key]: { $ne: null } }).success]).toEqual([key, false]);
      if (typeof (good as Record<string, unknown>)[key] === "string")
        expect([key, schema.safeParse({ ...good, [key]: long }).success]).toEqual([key, false]);
    }
  });
  it("a list without end is refused", () => {
    expect(Observe.safeParse({ number: "x", lines: Array.from({ length: 201 }, () => ({ line: "l", value: "v" })) }).success).toBe(false);
    expect(Plug.safeParse({ number: "x", lead: "a:b", port: "c:d", state: "plugged", place: Array.from({ length: 11 }, () => 1) }).success).toBe(
      false,
    );
  });
  it("what names nothing is a sentence and changes nothing", async () => {
    const by = await db.by();
    const em = db.em();
    const before = await em.count(LogEntry);
    const all = [
      await carryOut(db.em(), by, plug, { number: "FS-1041", lead: "ghost:x", port: "board:PUMP1", state: "plugged" }),
      await carryOut(db.em(), by, fix, { number: "FS-1041", lead: "ghost:x", port: "board:PUMP1", fixed: true }),
      await carryOut(db.em(), by, observe, { number: "FS-1041", lines: [{ line: "ghost", value: "v" }] }),
      await carryOut(db.em(), by, closeFault, { number: "FS-1041", fault: 99, finding: "x" }),
      await carryOut(db.em(), by, changePart, { number: "FS-1041", part: "ghost", type: "whirrow-120" }),
      await carryOut(db.em(), by, changePart, { number: "FS-1041", part: "card", type: "ghost" }),
      await carryOut(db.em(), by, actOn, { number: "FS-0", fault: 1, deed: "x", result: "no change" }),
    ];
    for (const r of all) {
      expect(r.ok).toBe(false);
      expect(!r.ok && r.sentence).toMatch(/\.$/);
    }
    expect(await db.em().count(LogEntry)).toBe(before);
  });
});

describe("the database itself", () => {
  it("is what the entities say: no difference between migrations and schema", async () => {
    const { MikroORM } = await import("@mikro-orm/postgresql");
    const { ormConfig } = await import("../../db");
    const orm = await MikroORM.init(ormConfig(process.env.DATABASE_URL ?? ""));
    const sql = await orm.schema.getUpdateSchemaSQL({ wrap: false });
    const real = sql.split("\n").filter((l) => l.trim() && !/mikro_orm_migrations/.test(l));
    await orm.close();
    expect(real.join("\n")).toBe("");
  });
  it("keeps the log as it was told: no entry is changed, deleted or emptied away", async () => {
    for (const wish of [`update log_entry set kind = 'x'`, `delete from log_entry`, `truncate log_entry`, `truncate log_entry, job cascade`])
      await expect(db.em().execute(wish), wish).rejects.toThrow(/append-only/);
  });
  it("does not let one held row stop others for long: who waits five seconds is told to try again", async () => {
    const held = db.em();
    await held.begin();
    await held.execute(`select 1 from job where number = 'FS-1048' for update`);
    const began = Date.now();
    const r = await carryOut(db.em(), await db.by(), note, { number: "FS-1048", kind: "note", text: "waits" }).catch((e) => failed(e));
    expect(Date.now() - began).toBeLessThan(9000);
    await held.rollback();
    expect(r).toMatchObject({ ok: false, later: "again", sentence: expect.stringContaining("Try again") });
  }, 30_000);
  it("seeded a second time, keeps what is there", async () => {
    const em = db.em();
    const before = [await em.count(Job), await em.count(Link), await em.count(LogEntry)];
    await seed(
      db.em(),
      process.cwd(),
      new Date("2026-12-01T09:00:00Z"),
      () => {},
      async (secret) => secret,
    );
    const after = db.em();
    expect([await after.count(Job), await after.count(Link), await after.count(LogEntry)]).toEqual(before);
  });
});

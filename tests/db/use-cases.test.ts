import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { buildGraph, typeLookup } from "../../core/assembly";
import { cutoutsFor } from "../../core/routes";
import { type EntityManager, Fault, Job, JobPart, Link, LogEntry, type PersonRow, Plan } from "../../db";
import { note } from "../../server/bench/note";
import { plug } from "../../server/bench/plug";
import { step } from "../../server/bench/step";
import { buildOfJob } from "../../server/build/build-of-job";
import { actOn } from "../../server/faults/act";
import { anotherModel } from "../../server/faults/another-model";
import { closeFault } from "../../server/faults/close";
import { sparesFor } from "../../server/faults/spares";
import { observe } from "../../server/first-boot/observe";
import { setting } from "../../server/first-boot/setting";
import { findAll } from "../../server/job/find";
import { jobFromFile } from "../../server/job/from-file";
import { changePart } from "../../server/parts/change";
import { fix } from "../../server/plan/fix";
import { planJob as planJobIn } from "../../server/plan/plan-job";
import { leadThrough } from "../../server/plan/way";
import { replacementCame } from "../../server/receipt/replacement";
import { carryOut } from "../../server/unit/action";
import { diagnosesOf } from "../../server/views/diagnoses";
import { jobOf, make, testDatabase } from "./setup";

/** The thread is the browser tests' business: it exists only in a built server. */
const planJob = (em: EntityManager, number: string, by: PersonRow) => planJobIn(em, number, by, make);

const db = testDatabase();

const view = (n: string) => db.view(n);
const count = async (n: string) => {
  const em = db.em();
  return em.count(LogEntry, { job: (await jobOf(em, n)).id });
};

describe("the demo", () => {
  it("stands at eight different places, dates following the day of the seed", async () => {
    const jobs = await db.benches();
    expect(jobs.map((j) => j.stage).sort()).toEqual(["bench", "bench", "first-boot", "handed-over", "intake", "planning", "soak", "waiting"]);
    expect(jobs.find((j) => j.number === "FS-1048")).toMatchObject({
      waitingUntil: "2026-11-25",
      next: expect.stringContaining("Waits for a replacement power supply"),
    });
    expect(jobs.find((j) => j.number === "FS-1041")?.next).toMatch(/leads, none planned\. Plan the wiring/);
    expect(jobs.find((j) => j.number === "FS-1047")?.openFaults).toBe(1);
  });
  it("is found by number, client and serial", async () => {
    expect((await findAll(db.em(), "1043")).map((h) => h.href)).toContain("/job/FS-1043");
    expect((await findAll(db.em(), "choir")).map((h) => h.href)).toEqual(["/job/FS-1042"]);
    const serial = await db.em().findOneOrFail(JobPart, { serial: { $ne: null } }, { populate: ["job"] });
    expect((await findAll(db.em(), serial.serial ?? "")).length).toBeGreaterThan(0);
    expect(await findAll(db.em(), "100%_none")).toEqual([]);
  });
});

describe("one job from its parts to its first boot", () => {
  it("is planned, stored with its revision, logged under a name", async () => {
    const r = await planJob(db.em(), "FS-1041", await db.by());
    expect(r).toMatchObject({ ok: true, value: { revision: 1, status: "proved", free: 0 } });
    const v = await view("FS-1041");
    expect(v.plan).toMatchObject({ revision: 1, stale: false, madeBy: "Mirel Quist" });
    expect(v.leads.filter((l) => !l.port && l.loom !== "seat" && !l.out)).toEqual([]);
    expect(v.log[0]).toMatchObject({ by: "Mirel Quist", kind: "planned", planRevision: 1 });
    const again = await planJob(db.em(), "FS-1041", await db.by());
    expect(again).toMatchObject({ ok: true, value: { revision: 2, moved: 0 } });
    const em = db.em();
    expect(await em.count(JobPart, { job: (await jobOf(em, "FS-1041")).id, origin: "shelf" })).toBe(1);
  });
  it("a lead is led through another cut-out: it stays so over a plan, is told, and can be taken back; no other cut-out is taken", async () => {
    const by = await db.by();
    const say = (cutout: string | null) => carryOut(db.em(), by, leadThrough, { number: "FS-1041", lead: "fan-rear:lead", cutout });
    expect(await say("nowhere")).toMatchObject({ ok: false, sentence: expect.stringContaining("cannot be led through such a cut-out") });
    const [way] = cutoutsFor((await buildOfJob(db.em(), await jobOf(db.em(), "FS-1041"))).graph, "fan-rear:lead");
    if (!way) throw new Error("the rear fan's lead can be led through no cut-out");
    expect(await say(way.id)).toMatchObject({ ok: true });
    await planJob(db.em(), "FS-1041", by);
    const v = await view("FS-1041");
    expect(v.build.ways).toEqual([{ lead: "fan-rear:lead", cutout: way.id }]);
    expect(v.log.some((l) => /^FN-\d+ \(Rear fan\) is led through the cut-out /.test(l.text) && l.text.includes(way.label))).toBe(true);
    expect(await say(null)).toMatchObject({ ok: true });
    expect((await view("FS-1041")).build.ways).toBeUndefined();
  });
  it("a tick sent twice is kept once; every step ticked, the machine starts", async () => {
    const by = await db.by();
    const before = await count("FS-1041");
    const first = (await view("FS-1041")).steps.find((s) => s.lead);
    for (let i = 0; i < 2; i++)
      expect(
        await carryOut(db.em(), by, plug, { number: "FS-1041", lead: first?.lead ?? "", port: first?.port ?? "", state: "plugged" }, { key: "k-1" }),
      ).toMatchObject({ ok: true });
    expect(await count("FS-1041")).toBe(before + 1);
    for (const s of (await view("FS-1041")).steps) {
      if (s.done) continue;
      const r =
        s.lead && s.port
          ? await carryOut(db.em(), by, plug, { number: "FS-1041", lead: s.lead, port: s.port, state: "plugged" })
          : await carryOut(db.em(), by, step, { number: "FS-1041", step: s.id, done: true });
      expect([s.title, r.ok]).toEqual([s.title, true]);
    }
    const v = await view("FS-1041");
    expect(v.steps.every((s) => s.done)).toBe(true);
    expect(v.power.verdict).toBe("If you press now: it starts, all fans turn.");
  });
  it("a mismatch opens a fault with its observation, once; what was it closes it and asks to look again", async () => {
    const by = await db.by();
    const lines = (await view("FS-1041")).power.lines;
    await carryOut(db.em(), by, observe, {
      number: "FS-1041",
      lines: lines.filter((l) => l.id !== "cpu-load").map((l) => ({ line: l.id, value: l.id.startsWith("turns:fan-front") ? "still" : l.expected })),
    });
    await carryOut(db.em(), by, observe, { number: "FS-1041", lines: [{ line: "turns:fan-front-1:lead", value: "still" }] });
    // "The others as expected" from a screen that had not heard of it yet says nothing over it.
    await carryOut(db.em(), by, observe, { number: "FS-1041", lines: [{ line: "turns:fan-front-1:lead", value: "turns" }], unseenOnly: true });
    expect((await db.view("FS-1041")).seen["turns:fan-front-1:lead"]?.value).toBe("still");
    const v = await view("FS-1041");
    // Three fans that share a splitter are one fault.
    const open = v.faults.filter((f) => f.state === "open");
    expect(open.map((f) => [...f.lines].sort())).toEqual([["turns:fan-front-1:lead", "turns:fan-front-2:lead", "turns:fan-front-3:lead"]]);
    const number = open[0]?.number ?? 0;
    const diagnosis = async () => (await diagnosesOf(db.em(), await view("FS-1041")))[number];
    const next = (await diagnosis())?.next;
    expect(next?.kind).toBe("press home");
    const act = (deed: string, result: string, more = {}) =>
      carryOut(db.em(), by, actOn, { number: "FS-1041", fault: number, deed, result, ...more });
    expect(await act(next?.id ?? "", "it sang")).toMatchObject({ ok: false, sentence: expect.stringContaining("cannot come of that") });
    expect(await act("swap:nobody", "no change")).toMatchObject({ ok: false });
    expect(await act(next?.id ?? "", "no change")).toMatchObject({ ok: true });
    const second = (await diagnosis())?.next;
    expect(second?.id).not.toBe(next?.id);
    expect((await view("FS-1041")).faults.find((f) => f.number === number)?.events.at(-1)).toMatchObject({ deed: next?.id, result: "no change" });
    await act(second?.id ?? "", "that was it");
    const after = await view("FS-1041");
    expect(after.progress.faults).toBe(0);
    expect(after.seen["turns:fan-front-1:lead"]).toBeUndefined();
    const closed = after.faults.find((f) => f.number === number);
    expect([closed?.state, (closed?.finding ?? "").length > 5, closed?.causes.length]).toEqual(["closed", true, 1]);
    // What was seen and done is kept for good.
    await expect(db.em().execute(`delete from "fault_event"`)).rejects.toThrow(/append-only/);
  });
  it("a swapped part asks for its serial, and the dead one goes back; without a spare the job waits", async () => {
    const by = await db.by();
    const lines = [{ line: "standby", value: "dark" }];
    await carryOut(db.em(), by, observe, { number: "FS-1041", lines });
    const fault = (await view("FS-1041")).faults.find((f) => f.state === "open" && f.lines.includes("standby"));
    const act = (more: object) => carryOut(db.em(), by, actOn, { number: "FS-1041", fault: fault?.number ?? 0, deed: "swap:supply", ...more });
    // The shelf keeps a supply and modules of its sort for testing, and no case; where it keeps nothing, it is not asked.
    const { build } = await view("FS-1041");
    const here = await sparesFor(db.em(), build);
    expect([here?.includes("supply"), here?.includes("case"), here?.includes("memory")]).toEqual([true, false, true]);
    await db.em().execute(`update shelf_type set spares = 0 where kind = 'supply'`);
    const swap = async () => {
      const answer = (await diagnosesOf(db.em(), await view("FS-1041")))[fault?.number ?? 0];
      return [answer?.next, ...(answer?.others ?? [])].find((d) => d?.id === "swap:supply");
    };
    const without = (await swap())?.waits;
    await db.em().execute(`update shelf_type set spares = 1 where kind = 'supply'`);
    expect([without === undefined || without, (await swap())?.waits]).toEqual([true, undefined]);
    await db.em().execute("update shelf_type set spares = 0");
    expect(await sparesFor(db.em(), build)).toBeUndefined();
    const stage = (await view("FS-1041")).head.stage;
    expect(await act({ result: "waits" })).toMatchObject({ ok: false, sentence: expect.stringContaining("until when") });
    expect(await act({ result: "waits", waitUntil: "2027-01-08" })).toMatchObject({ ok: true });
    const waiting = await view("FS-1041");
    expect([waiting.head.stage, waiting.away.map((a) => a.part)]).toEqual(["waiting", ["supply"]]);
    expect(await carryOut(db.em(), by, replacementCame, { number: "FS-1041", part: "supply" })).toMatchObject({ ok: true });
    expect(await act({ result: "that was it", serial: "SP-NEW-1" })).toMatchObject({ ok: true });
    const after = await view("FS-1041");
    expect([after.progress.faults, after.build.parts.find((p) => p.id === "supply")?.serial ?? "SP-NEW-1"]).toEqual([0, "SP-NEW-1"]);
    expect(after.faults.find((f) => f.number === fault?.number)?.finding).toMatch(/swapped/);
    expect([stage, after.head.stage === "waiting"]).toEqual([stage, false]);
  });
  it("expected follows the settings; ignoring the warning needs a reason", async () => {
    const by = await db.by();
    const speed = async () => (await view("FS-1041")).power.lines.find((l) => l.id === "memory-speed")?.expected;
    expect(await speed()).toBe("4800");
    await carryOut(db.em(), by, setting, { number: "FS-1041", memoryProfile: true });
    expect(await speed()).toBe("6000");
    expect(await carryOut(db.em(), by, setting, { number: "FS-1041", cpuFanWarning: "ignore" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("written reason"),
    });
  });
  it("a dead supply is replaced by another model: only its own leads are out and planned anew, what was cleared stays seen", async () => {
    const by = await db.by();
    const number = "FS-1041";
    await carryOut(db.em(), by, observe, { number, lines: [{ line: "standby", value: "dark" }] });
    const before = await view(number);
    const fault = before.faults.find((f) => f.state === "open" && f.lines.includes("standby"))?.number ?? 0;
    const say = (more: object) =>
      carryOut(db.em(), by, anotherModel, { number, fault, deed: "swap:supply", model: "mossgate-1000m", serial: "SP-1000-7", ...more });
    expect(await say({ model: before.build.parts.find((p) => p.id === "supply")?.type })).toMatchObject({ ok: false });
    expect(await say({ model: "whirrow-120" })).toMatchObject({ ok: false, sentence: expect.stringContaining("is a fan, not a supply") });
    expect(await say({ deed: "bridge" })).toMatchObject({ ok: false, sentence: expect.stringContaining("Only a part that is swapped") });
    expect((await view(number)).build).toEqual(before.build);
    expect(await say({})).toMatchObject({ ok: true });
    expect(await say({})).toMatchObject({ ok: false, sentence: expect.stringContaining("is not open") });
    expect(await planJob(db.em(), number, by)).toMatchObject({ ok: true, value: { free: 0 } });
    const after = await view(number);
    const ends = (v: typeof after, own: boolean) =>
      v.build.connections
        .filter((c) => (c.lead.startsWith("supply") || c.port.startsWith("supply")) === own)
        .map((c) => `${c.lead} ${c.port} ${c.state}`)
        .sort();
    expect(ends(after, false)).toEqual(ends(before, false));
    expect(ends(after, true).length).toBeGreaterThan(5);
    expect(ends(after, true).every((e) => e.endsWith(" planned"))).toBe(true);
    const em = db.em();
    expect(await em.findOneOrFail(JobPart, { job: (await jobOf(em, number)).id, key: "supply" })).toMatchObject({
      type: "mossgate-1000m",
      serial: "SP-1000-7",
    });
    expect(after.steps.filter((s) => !s.done && s.parts.includes("supply")).length).toBeGreaterThan(0);
    expect(after.faults.find((f) => f.number === fault)).toMatchObject({ state: "closed", finding: expect.stringMatching(/replaced by .*1000/) });
    // It is built again to its end, and starts.
    for (const s of after.steps) {
      if (s.done) continue;
      const r =
        s.lead && s.port
          ? await carryOut(db.em(), by, plug, { number, lead: s.lead, port: s.port, state: "plugged" })
          : await carryOut(db.em(), by, step, { number, step: s.id, done: true });
      expect([s.title, r.ok || r.sentence]).toEqual([s.title, true]);
    }
    const again = await view(number);
    expect([again.steps.every((s) => s.done), again.power.verdict]).toEqual([true, "If you press now: it starts, all fans turn."]);
    // What was seen of the rest stands; only the fault's own lines are to be seen again.
    expect(after.seen.standby).toBeUndefined();
    expect(Object.keys(after.seen).length).toBe(Object.keys(before.seen).length - 1);
    const back = await db.em().execute("select serial, why, words from part_return where part = 'supply' order by since desc limit 1");
    expect(back).toMatchObject([{ why: "exchanged", words: expect.stringContaining("Found dead") }]);
  });
});

describe("parts and plans", () => {
  it("a changed part makes the plan stale, and planning again mends that", async () => {
    const by = await db.by();
    const stored = await carryOut(db.em(), by, jobFromFile, { text: readFileSync("examples/fs-1048.json", "utf8") });
    if (!stored.ok) throw new Error(stored.sentence);
    const number = stored.value;
    await planJob(db.em(), number, by);
    expect((await view(number)).leads.some((l) => l.address === "cooler:pump")).toBe(false);
    expect(await carryOut(db.em(), by, changePart, { number, part: "cooler", type: "coldwharf-360" })).toMatchObject({ ok: true });
    const v = await view(number);
    expect(v.plan?.stale).toBe(true);
    const pump = (at: typeof v) => at.leads.find((l) => l.address === "cooler:pump");
    expect(pump(v)).toMatchObject({ free: expect.stringContaining("Plan again") });
    expect(pump(v)?.port).toBeUndefined();
    await planJob(db.em(), number, by);
    const again = await view(number);
    expect(again.plan).toMatchObject({ revision: 2, stale: false });
    expect(pump(again)?.port).toBe("board:PUMP1");
  }, 120_000);
  it("refuses to replace what is plugged, to mix kinds, to fix what does not mate", async () => {
    const by = await db.by();
    expect(await carryOut(db.em(), by, changePart, { number: "FS-1041", part: "card", type: "halcyra-75" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("is plugged"),
    });
    expect(await carryOut(db.em(), by, changePart, { number: "FS-1043", part: "card-1", type: "whirrow-120" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("not a card"),
    });
    expect(await carryOut(db.em(), by, fix, { number: "FS-1043", lead: "case:audio", port: "board:USB2_1", fixed: true })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("the blank is position"),
    });
  });
  it("what the technician fixed stays when planned again", async () => {
    const by = await db.by();
    const v = await view("FS-1043");
    const fan = v.leads.find((l) => l.address === "fan-rear-1:lead");
    const to = fan?.port === "board:SYS_FAN1" ? "board:SYS_FAN2" : "board:SYS_FAN1";
    expect(await carryOut(db.em(), by, fix, { number: "FS-1043", lead: "fan-rear-1:lead", port: to, fixed: true })).toMatchObject({ ok: true });
    await planJob(db.em(), "FS-1043", by);
    expect((await view("FS-1043")).leads.find((l) => l.address === "fan-rear-1:lead")).toMatchObject({ port: to, fixed: true });
  }, 120_000);
  it("plugged elsewhere is kept beside what was planned", async () => {
    const by = await db.by();
    const v = await view("FS-1042");
    const audio = v.leads.find((l) => l.family === "fan-4" && l.state === "planned" && l.port?.startsWith("board:SYS_FAN"));
    const free = ["board:SYS_FAN1", "board:SYS_FAN2", "board:SYS_FAN3"].find((p) => !v.leads.some((l) => l.port === p));
    await carryOut(db.em(), by, plug, { number: "FS-1042", lead: audio?.address ?? "", port: free ?? "", state: "plugged" });
    expect((await view("FS-1042")).leads.find((l) => l.address === audio?.address)).toMatchObject({
      port: free,
      plannedPort: audio?.port,
      state: "plugged",
    });
    await carryOut(db.em(), by, plug, { number: "FS-1042", lead: audio?.address ?? "", port: free ?? "", state: "planned" });
    expect((await view("FS-1042")).leads.find((l) => l.address === audio?.address)).toMatchObject({ port: audio?.port, state: "planned" });
  });
  it("two benches with two facts: the second is asked to look, nothing is changed", async () => {
    const by = await db.by();
    const v = await view("FS-1042");
    const fan = v.leads.find((x) => x.state === "planned" && x.family === "fan-4" && x.fromPart !== "cooler");
    const planned = fan?.port ?? "";
    const free = [...buildGraph(v.build, typeLookup(v.build, [])).ports.values()]
      .filter((p) => p.port.flow === "out" && p.port.family === "fan-4" && p.part.id !== fan?.fromPart && !v.leads.some((l) => l.port === p.address))
      .map((p) => p.address);
    const other = free[0] ?? v.leads.find((x) => x.family === "fan-4" && x.port !== undefined && x !== fan)?.port ?? "";
    const say = (port: string) =>
      carryOut(db.em(), by, plug, { number: "FS-1042", lead: fan?.address ?? "", port, state: "plugged", saw: { port: planned, state: "planned" } });
    expect(await say(other)).toMatchObject({ ok: true });
    const before = await count("FS-1042");
    expect(await say(planned)).toMatchObject({
      ok: false,
      sentence: expect.stringMatching(
        /^FN-\d+ is in .+ \(Mirel Quist, [\dT:.-]+Z\) and in .+ \(Mirel Quist, [\dT:.-]+Z\)\. Look at the plug, then choose\./,
      ),
    });
    expect(await count("FS-1042")).toBe(before);
    expect((await view("FS-1042")).leads.find((l) => l.address === fan?.address)?.port).toBe(other);
  });
  it("a half-built machine goes out as a file and comes in again as far as it was", async () => {
    const v = await view("FS-1042");
    const made = await carryOut(db.em(), await db.by(), jobFromFile, { text: JSON.stringify(v.build) });
    const again = await view(made.ok ? made.value : "");
    const done = (list: typeof v.steps) =>
      list
        .filter((s) => s.done)
        .map((s) => s.id)
        .sort();
    expect(done(again.steps)).toEqual(done(v.steps));
    expect(done(again.steps).length).toBeGreaterThan(10);
  });
  it("two plugs cannot both be in one port", async () => {
    const by = await db.by();
    expect(await carryOut(db.em(), by, plug, { number: "FS-1041", lead: "fan-front-1:lead", port: "board:PUMP1", state: "plugged" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("already holds FN-01"),
    });
  });
});

describe("bad files and the log", () => {
  it("a bad file stores nothing and says what is wrong where", async () => {
    const by = await db.by();
    const before = await db.em().count(Job);
    for (const text of ["{", "[]", '{"format":"imbra-build","version":1,"name":"x","parts":[{"id":"a","type":"ghost"}]}']) {
      const r = await carryOut(db.em(), by, jobFromFile, { text: text });
      expect(r).toMatchObject({ ok: false, sentence: "Nothing was stored. Correct the file and read it again." });
      expect(!r.ok && (r.more ?? []).length).toBeGreaterThan(0);
    }
    expect(await db.em().count(Job)).toBe(before);
  });
  it("a good file becomes a job with the next number", async () => {
    // Two were read in above.
    const r = await carryOut(db.em(), await db.by(), jobFromFile, { text: readFileSync("examples/fs-1046.json", "utf8") });
    expect(r).toEqual({ ok: true, value: "FS-1051" });
    expect((await view("FS-1051")).build.parts.length).toBe(10);
  });
  it("the log refuses to be changed or deleted, by the database itself", async () => {
    const em = db.em();
    await expect(em.getConnection().execute("update log_entry set text = 'x'")).rejects.toThrow(/append-only/);
    await expect(em.getConnection().execute("delete from log_entry")).rejects.toThrow(/append-only/);
  });
  it("a problem at the bench opens a fault; closing it twice says so", async () => {
    const by = await db.by();
    await carryOut(db.em(), by, note, { number: "FS-1044", kind: "problem", text: "USB3_1 has a bent pin" });
    const em = db.em();
    const f = await em.findOneOrFail(Fault, { job: (await jobOf(em, "FS-1044")).id });
    expect(await carryOut(db.em(), by, closeFault, { number: "FS-1044", fault: f.number, finding: "Pin straightened" })).toMatchObject({ ok: true });
    expect(await carryOut(db.em(), by, closeFault, { number: "FS-1044", fault: f.number, finding: "Pin straightened" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("is not open"),
    });
  });
  it("a job that does not exist is a sentence", async () => {
    const by = await db.by();
    expect(await planJob(db.em(), "FS-0", by)).toMatchObject({ ok: false });
    expect(await carryOut(db.em(), by, step, { number: "FS-0", step: "x", done: true })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("There is no job FS-0"),
    });
    expect(await db.em().count(Plan)).toBeGreaterThan(0);
    expect(await db.em().count(Link)).toBeGreaterThan(100);
  });
});

import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { z } from "zod";
import { Fault, Job, JobPart, LogEntry, type PersonRow, ShelfRevision, ShelfType } from "../../db";
import { step } from "../../server/bench/step";
import { findAll } from "../../server/job/find";
import { NewJob, newJob } from "../../server/job/make";
import { ReadRows, readRows } from "../../server/job/read-list";
import { changeWishes, WishesChange } from "../../server/job/wishes";
import { addPart } from "../../server/parts/add";
import { changePart } from "../../server/parts/change";
import { keepTrial } from "../../server/parts/keep-trial";
import { placePart } from "../../server/parts/place";
import { removePart } from "../../server/parts/remove";
import { alternativesFor, compareWirings } from "../../server/parts/what-if";
import { planJob } from "../../server/plan/plan-job";
import { benchTest } from "../../server/receipt/bench-test";
import { receiptView } from "../../server/receipt/receipt-view";
import { receive } from "../../server/receipt/receive";
import { replacementCame } from "../../server/receipt/replacement";
import { changeSchools, SchoolsChange } from "../../server/schools/follow";
import { saveType } from "../../server/shelf/save";
import { searchShelf, shelfEntry } from "../../server/shelf/search";
import { setStock } from "../../server/shelf/stock";
import { carryOut } from "../../server/unit/action";
import { correctedSince } from "../../server/views/corrected-since";
import { leastMs } from "../cases";
import { jobOf, make, testDatabase } from "./setup";

const db = testDatabase();

const view = (n: string) => db.view(n);
const typeText = async (id: string, edit: (t: Record<string, unknown>) => void) => {
  const row = await db.em().findOneOrFail(ShelfType, { id });
  // As a person has it in a file: without the number that the store gives it.
  const { stored: _, ...body } = structuredClone(row.body) as Record<string, unknown>;
  edit(body);
  return JSON.stringify(body);
};

const newOne = (by: PersonRow, n: z.input<typeof NewJob>) => carryOut(db.em(), by, newJob, NewJob.parse(n));

describe("intake", () => {
  it("a new job from a list: what is understood becomes parts in free mounts, the rest is kept aside in its own words", async () => {
    const by = await db.by();
    const rows = ["Brindlecote Reef mesh mid tower", "Heron T40", "Quillane 8-core", "Coldwharf tower", "2 of something", "Granite 9000"].map(
      (text, i) => ({ line: i + 1, text, count: 1 }),
    );
    const read = await carryOut(db.em(), by, readRows, { rows: [...rows, { line: 7, text: "Whirrow 120", count: 3 }] });
    if (!read.ok) throw new Error(read.sentence);
    expect(read.value.matched.map((m) => m.type)).toEqual([
      "brindlecote-reef",
      "tarnbrook-heron-t40",
      "quillane-8",
      "coldwharf-tower",
      "whirrow-120",
    ]);
    expect(read.value.aside.map((a) => a.line)).toEqual([5, 6]);
    const made = await newOne(by, {
      client: "Gull Ferry Line",
      title: "Ticket desk",
      purpose: "",
      dueOn: "2026-12-04",
      lighting: "none",
      noiseDb: 28,
      parts: read.value.matched.map((m) => ({ type: m.type, count: m.count })),
      aside: read.value.aside.map((a) => `Line ${a.line}: ${a.text}`),
    });
    expect(made).toEqual({ ok: true, value: "FS-1049" });
    const v = await view("FS-1049");
    expect(v.build.parts.map((p) => p.id)).toEqual(["case", "board", "cpu", "cooler", "fan-1", "fan-2", "fan-3"]);
    expect(new Set(v.build.parts.filter((p) => p.id.startsWith("fan")).map((p) => p.mount)).size).toBe(3);
    expect(v.build.wishes).toMatchObject({ lighting: "none", noiseDb: 28 });
    expect((await db.em().findOneOrFail(Job, { number: "FS-1049" })).aside).toEqual(["Line 5: 2 of something", "Line 6: Granite 9000"]);
    // Judged completely before anything is opened.
    expect(v.findings.map((f) => f.message).join("\n")).toMatch(/no memory in the parts list/);
    expect(v.findings.map((f) => f.message).join("\n")).toMatch(/no power supply/);
    expect(v.progress.stop.parts).toBe(true);
    expect((await findAll(db.em(), "gull ferry")).map((h) => h.href)).toEqual(["/job/FS-1049"]);
  });
  it("a copy of an earlier job takes its parts, places and schools, and no serial", async () => {
    const by = await db.by();
    const r = await newOne(by, {
      client: "The same client",
      title: "Second one",
      purpose: "",
      dueOn: null,
      lighting: "indifferent",
      copyOf: "FS-1045",
      parts: [],
      aside: [],
    });
    const n = r.ok ? r.value : "";
    const [one, two] = [await view("FS-1045"), await view(n)];
    const own = one.build.parts.filter((p) => p.from === "client");
    expect(two.build.parts.map((p) => [p.id, p.type, p.mount])).toEqual(own.map((p) => [p.id, p.type, p.mount]));
    expect(two.build.parts.every((p) => p.serial === undefined)).toBe(true);
    expect(two.build.policy).toEqual(one.build.policy);
    expect(two.head.stage).toBe("intake");
    expect(two.plan).toBeNull();
  });
  it("serials come along from the list, the client's own parts are here already, schools that differ are kept", async () => {
    const by = await db.by();
    const read = await carryOut(db.em(), by, readRows, { rows: [{ line: 1, text: "Heron T40", count: 1, serial: "LIST-1" }] });
    expect(read.ok && read.value.matched[0]?.serial).toBe("LIST-1");
    const r = await newOne(by, {
      client: "Serials",
      title: "Rebuild",
      policy: { caseFans: "own-header", mainsV: 115 },
      parts: [
        { type: "tarnbrook-heron-t40", count: 1, serials: ["LIST-1"] },
        { type: "whirrow-120", count: 2, serials: ["LIST-2"], reused: true },
      ],
    });
    const v = await view(r.ok ? r.value : "");
    expect(v.build.parts.map((p) => [p.id, p.serial, p.reused])).toEqual([
      ["board", "LIST-1", undefined],
      ["fan-1", "LIST-2", true],
      ["fan-2", undefined, true],
    ]);
    expect(v.build.policy).toMatchObject({ caseFans: "own-header", mainsV: 115, cooling: "fans-follow-cpu" });
    const rows = (await receiptView(db.em(), v.head.number))?.rows ?? [];
    expect(rows.map((x) => [x.part, x.arrivedAt !== null, x.reused])).toEqual([
      ["board", false, false],
      ["fan-1", true, true],
      ["fan-2", true, true],
    ]);
    const again = { client: "x", title: "y", parts: [{ type: "whirrow-120", count: 1, serials: ["LIST-1"] }] };
    expect(await newOne(by, again)).toMatchObject({ ok: false, sentence: expect.stringContaining("Serial LIST-1 is already on") });
    const twice = { client: "x", title: "y", parts: [{ type: "whirrow-120", count: 2, serials: ["T", "T"] }] };
    expect(await newOne(by, twice)).toMatchObject({ ok: false, sentence: expect.stringContaining("Serial T is given to two parts") });
    // A copy of it is for another client: nothing of this one's own comes along.
    const copy = await newOne(by, { client: "Another", title: "Copy", copyOf: v.head.number, policy: { mainsV: 230 } });
    const c = await view(copy.ok ? copy.value : "");
    expect(c.build.parts.every((p) => !p.reused && p.serial === undefined)).toBe(true);
    expect(c.build.policy).toMatchObject({ caseFans: "own-header", mainsV: 230 });
  });
  it("schools change later; what is followed already is said, and the plan is stale then", async () => {
    const by = await db.by();
    const before = await view("FS-1044");
    const change = { number: "FS-1044", schools: { caseFans: before.build.policy.caseFans } };
    expect(await carryOut(db.em(), by, changeSchools, change)).toMatchObject({ ok: false, sentence: expect.stringContaining("Nothing differs") });
    expect(await carryOut(db.em(), by, changeSchools, { number: "FS-1044", schools: { secondCpuPlug: "always" } })).toMatchObject({
      ok: true,
    });
    const after = await view("FS-1044");
    expect(after.build.policy.secondCpuPlug).toBe("always");
    expect(after.plan?.stale).toBe(true);
    expect(SchoolsChange.safeParse({ number: "FS-1044", schools: { caseFans: "anyhow" } }).success).toBe(false);
  });
  it("whose a part is, where tubes come out and the mains leave a plan as it is; a moved fan does not", async () => {
    const by = await db.by();
    const number = "FS-1045";
    const stale = async () => (await view(number)).plan?.stale;
    expect(await stale()).toBe(false);
    const place = async (change: object) =>
      expect(await carryOut(db.em(), by, placePart, { number, part: "cooler", ...change })).toMatchObject({ ok: true });
    await place({ reused: true });
    await place({ tubes: "front" });
    expect(await carryOut(db.em(), by, changeSchools, { number, schools: { mainsV: 115 } })).toMatchObject({ ok: true });
    expect(await stale()).toBe(false);
    const cooler = (await view(number)).build.parts.find((p) => p.id === "cooler");
    expect([cooler?.reused, cooler?.tubes]).toEqual([true, "front"]);
    const fan = (await view(number)).build.parts.find((p) => p.id.startsWith("fan"))?.id ?? "";
    expect(await carryOut(db.em(), by, placePart, { number, part: fan, blows: "out" })).toMatchObject({ ok: true });
    expect(await stale()).toBe(true);
  });
  it("what a cooler cools is said: a loop has no head on the CPU; a card that is none is refused", async () => {
    const by = await db.by();
    const cools = async (to: string | null) => carryOut(db.em(), by, placePart, { number: "FS-1045", part: "cooler", cools: to });
    expect(await cools("loop")).toMatchObject({ ok: true });
    const after = await view("FS-1045");
    expect(after.build.parts.find((p) => p.id === "cooler")?.cools).toBe("loop");
    expect(after.log[0]?.text).toMatch(/one of a loop of several/);
    expect(await cools("mem-1")).toMatchObject({ ok: false, sentence: expect.stringMatching(/There is no card mem-1/) });
    expect(await cools(null)).toMatchObject({ ok: true });
    expect((await view("FS-1045")).build.parts.find((p) => p.id === "cooler")?.cools).toBeUndefined();
  });
  it("refuses what names nothing, stores nothing, and says so", async () => {
    const by = await db.by();
    const before = await db.em().count(Job);
    const base = { client: "x", title: "y", purpose: "", dueOn: null, lighting: "indifferent" as const, aside: [] };
    expect(await newOne(by, { ...base, copyOf: "FS-0", parts: [] })).toMatchObject({
      ok: false,
      sentence: "There is no job FS-0 to copy. Nothing was stored.",
    });
    expect(await newOne(by, { ...base, parts: [{ type: "ghost", count: 1 }] })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("no part type ghost"),
    });
    expect(await newOne(by, { ...base, parts: Array.from({ length: 11 }, () => ({ type: "whirrow-120", count: 20 })) })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("at most 200"),
    });
    expect(await db.em().count(Job)).toBe(before);
    expect(ReadRows.safeParse({ rows: Array.from({ length: 2001 }, (_, i) => ({ line: i + 1, text: "x", count: 1 })) }).success).toBe(false);
  });
});

describe("the parts of a job", () => {
  it("join from the shelf with ids of their own, leave again, and make the plan stale each time", async () => {
    const by = await db.by();
    await planJob(db.em(), "FS-1041", by, make);
    expect((await view("FS-1041")).plan?.stale).toBe(false);
    expect(await carryOut(db.em(), by, addPart, { number: "FS-1041", type: "whirrow-120", count: 2 })).toMatchObject({ ok: true });
    const v = await view("FS-1041");
    expect(v.plan?.stale).toBe(true);
    const added = v.build.parts.filter((p) => /^fan-\d+$/.test(p.id));
    expect(added).toHaveLength(2);
    for (const p of added) expect(await carryOut(db.em(), by, removePart, { number: "FS-1041", part: p.id })).toMatchObject({ ok: true });
    expect((await view("FS-1041")).build.parts.some((p) => /^fan-\d+$/.test(p.id))).toBe(false);
    await planJob(db.em(), "FS-1041", by, make);
    expect((await view("FS-1041")).plan?.stale).toBe(false);
  }, 120_000);
  it("a plugged part does not leave", async () => {
    const by = await db.by();
    expect(await carryOut(db.em(), by, removePart, { number: "FS-1047", part: "card" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("is plugged"),
    });
  });
  it("move to a mount that is free, turn round, go outside the frame; a taken or unknown mount is said", async () => {
    const by = await db.by();
    const place = (more: object) => carryOut(db.em(), by, placePart, { number: "FS-1041", part: "fan-front-1", ...more });
    expect(await place({ mount: "front-2" })).toMatchObject({ ok: false, sentence: expect.stringContaining("already holds Front fan middle") });
    expect(await place({ mount: "attic" })).toMatchObject({ ok: false, sentence: expect.stringContaining("no mount attic") });
    expect(await place({ frame: "outside", blows: "out" })).toMatchObject({ ok: true });
    expect((await view("FS-1041")).build.parts.find((p) => p.id === "fan-front-1")).toMatchObject({ frame: "outside", blows: "out" });
    expect((await view("FS-1041")).findings.some((f) => f.rule === "air-way")).toBe(true);
    expect(await place({ frame: null, blows: null })).toMatchObject({ ok: true });
    expect((await view("FS-1041")).build.parts.find((p) => p.id === "fan-front-1")).not.toHaveProperty("blows");
  });
  it("two parts changed in the copy: judged together against the job as it is, both wirings planned, kept at once or not at all", async () => {
    const by = await db.by();
    const card = { part: "card", type: "halcyra-575" };
    const list = async (trial: { part: string; type: string }[]) => {
      const r = await carryOut(db.em(), by, alternativesFor, { number: "FS-1041", part: "supply", trial });
      return r.ok ? r.value : [];
    };
    const alone = (await list([])).find((x) => x.id === "mossgate-1200m");
    const both = (await list([card])).find((x) => x.id === "mossgate-1200m");
    // By hand: 575 - 340 W more at peak, so the larger supply no longer only adds headroom.
    expect(alone?.worse.join()).not.toContain("Draw at peak");
    expect(both?.worse.join()).toMatch(/Draw at peak: \d+ W, then \d+ W/);
    const trial = [card, { part: "supply", type: "mossgate-1200m" }];
    const wiring = await compareWirings(db.em(), { number: "FS-1041", trial, schools: {} }, make);
    expect(wiring).toMatchObject({ ok: true, value: { proved: true } });
    expect(wiring.ok && wiring.value.leads.after).toBeGreaterThan(0);
    expect(await carryOut(db.em(), by, keepTrial, { number: "FS-1041", trial: [card, { part: "supply", type: "whirrow-120" }] })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("is a fan, not a supply"),
    });
    const of = async () => (await view("FS-1041")).build.parts.filter((p) => p.id === "card" || p.id === "supply").map((p) => p.type);
    // The refused second change took the first one back.
    expect(await of()).toEqual(expect.arrayContaining(["halcyra-340", "mossgate-850m"]));
    expect(await carryOut(db.em(), by, keepTrial, { number: "FS-1041", trial })).toMatchObject({ ok: true });
    expect((await of()).sort()).toEqual(["halcyra-575", "mossgate-1200m"]);
    const back = [
      { part: "card", type: "halcyra-340" },
      { part: "supply", type: "mossgate-850m" },
    ];
    expect(await carryOut(db.em(), by, keepTrial, { number: "FS-1041", trial: back })).toMatchObject({ ok: true });
    expect(await compareWirings(db.em(), { number: "FS-1041", trial: [{ part: "ghost", type: "halcyra-340" }], schools: {} }, make)).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("no part ghost any more"),
    });
  }, 60_000);
  it("parts added beside each get an id of their own; a part that is there already or a type that is not is refused, and nothing is added", async () => {
    const by = await db.by();
    const ids = async () => (await view("FS-1043")).build.parts.map((p) => p.id);
    const before = await ids();
    const beside = (part: string, type = "halcyra-net-10") => ({ part, type, adds: true });
    const said = (trial: { part: string; type: string; adds: boolean }[]) => carryOut(db.em(), by, keepTrial, { number: "FS-1043", trial });
    expect(await said([beside("new-1"), beside("new-2", "ghost")])).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("no part type ghost"),
    });
    expect(await carryOut(db.em(), by, alternativesFor, { number: "FS-1043", part: "supply", trial: [beside("board")] })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("has a part board already"),
    });
    expect(await ids()).toEqual(before);
    expect(await said([beside("new-1"), beside("new-2")])).toMatchObject({ ok: true });
    const added = (await ids()).filter((id) => !before.includes(id));
    expect(new Set(added).size).toBe(2);
    for (const part of added) expect(await carryOut(db.em(), by, removePart, { number: "FS-1043", part })).toMatchObject({ ok: true });
  }, 30_000);
  it("a part is called what somebody calls it; no two are called alike; without a name it is called by its place again", async () => {
    const by = await db.by();
    const name = (part: string, label: string) => carryOut(db.em(), by, changePart, { number: "FS-1044", part, label });
    const labelOf = async (part: string) => (await view("FS-1044")).build.parts.find((p) => p.id === part)?.label;
    const was = await labelOf("cpu");
    expect(await name("cpu", "The fast one")).toMatchObject({ ok: true });
    expect(await labelOf("cpu")).toBe("The fast one");
    expect(await name("board", "the FAST one")).toMatchObject({ ok: false, sentence: expect.stringContaining("called the FAST one already") });
    expect(await name("cpu", was ?? "")).toMatchObject({ ok: true });
    expect(await labelOf("cpu")).toBe(was);
  });
  it("a board that is in over standoffs of another is a stop, until the step of the standoffs is done; undone, it is one again", async () => {
    const by = await db.by();
    const press = (done: boolean) => carryOut(db.em(), by, step, { number: "FS-1042", step: "standoffs", done });
    const said = async () => (await view("FS-1042")).findings.find((f) => f.rule === "standoffs")?.severity;
    await press(false);
    const before = await said();
    await press(true);
    const set = await said();
    await press(false);
    expect([before, set, await said()]).toEqual(["stop", undefined, "stop"]);
    await press(true);
  });
  it("alternatives are judged, none is kept until it is asked for", async () => {
    const by = await db.by();
    const before = (await view("FS-1043")).build.parts;
    const r = await carryOut(db.em(), by, alternativesFor, { number: "FS-1043", part: "supply", trial: [] });
    expect(r.ok && r.value[0]).toMatchObject({ id: "mossgate-1500m", helps: true, stops: 0 });
    expect(r.ok && r.value[0]?.better.join()).toContain("No longer: The machine draws");
    expect((await view("FS-1043")).build.parts).toEqual(before);
    expect(await carryOut(db.em(), by, changePart, { number: "FS-1043", part: "supply", type: "mossgate-1500m" })).toMatchObject({ ok: true });
    expect((await view("FS-1043")).findings.some((f) => f.rule === "supply-size")).toBe(false);
  });
  it("wishes and the planned fan speed are kept, judged and logged", async () => {
    const by = await db.by();
    await carryOut(db.em(), by, changeWishes, { number: "FS-1041", noiseDb: 12, upgrade: "A larger card", upgradeW: 400, fanShare: 1 });
    const v = await view("FS-1041");
    expect(v.build.wishes).toMatchObject({ noiseDb: 12, upgrade: "A larger card", upgradeW: 400 });
    expect(v.build.settings.fanShare).toBe(1);
    expect(v.findings.map((f) => f.rule)).toEqual(expect.arrayContaining(["noise", "supply-usual"]));
    expect(v.log[0]?.text).toMatch(/planned fan speed 100 %/);
    await carryOut(db.em(), by, changeWishes, { number: "FS-1041", noiseDb: null, upgradeW: 0, fanShare: 0.6 });
    expect((await view("FS-1041")).findings.some((f) => f.rule === "noise")).toBe(false);
    expect(WishesChange.safeParse({ number: "x", fanShare: 0 }).success).toBe(false);
  });
});

describe("receipt", () => {
  it("parts tick in with serial, supplier and warranty; a serial that is on another part is refused", async () => {
    const by = await db.by();
    expect(
      await carryOut(db.em(), by, receive, {
        number: "FS-1043",
        part: "board",
        serial: "TB-77",
        supplier: "Quayside",
        warrantyUntil: "2028-11-23",
        price: 219.9,
      }),
    ).toMatchObject({ ok: true });
    expect(await carryOut(db.em(), by, receive, { number: "FS-1043", part: "cpu", serial: "TB-77" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("already on"),
    });
    const r = (await receiptView(db.em(), "FS-1043"))?.rows.find((x) => x.part === "board");
    expect(r).toMatchObject({ serial: "TB-77", supplier: "Quayside", warrantyUntil: "2028-11-23", price: 219.9 });
    expect(r?.arrivedAt).not.toBeNull();
    expect((await findAll(db.em(), "TB-77")).map((h) => h.href)).toEqual(["/job/FS-1043/parts?part=board"]);
  });
  it("the same scan sent twice is kept once", async () => {
    const by = await db.by();
    const before = await db.em().count(LogEntry);
    for (let i = 0; i < 2; i++) await carryOut(db.em(), by, receive, { number: "FS-1043", part: "cpu", serial: "CP-1" }, { key: "scan-1" });
    expect(await db.em().count(LogEntry)).toBe(before + 1);
  });
  it("dead on arrival: the job waits, says for what and until when, and its place on Benches shows it; the replacement ends it", async () => {
    const by = await db.by();
    expect(
      await carryOut(db.em(), by, benchTest, { number: "FS-1043", part: "supply", result: "dead", with: "the bench's own board" }),
    ).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("until when"),
    });
    expect(
      await carryOut(db.em(), by, benchTest, {
        number: "FS-1043",
        part: "supply",
        result: "dead",
        with: "the bench's own board",
        waitUntil: "2026-11-27",
      }),
    ).toMatchObject({ ok: true });
    const bench = (await db.benches()).find((j) => j.number === "FS-1043");
    expect(bench).toMatchObject({
      stage: "waiting",
      waitingUntil: "2026-11-27",
      next: expect.stringContaining("Waits for a replacement Mossgate 1500 M"),
      openFaults: 1,
    });
    expect((await view("FS-1043")).log.slice(0, 2).map((e) => e.text)).toContainEqual(expect.stringContaining("Tested with the bench's own board."));
    expect(await carryOut(db.em(), by, replacementCame, { number: "FS-1043", part: "supply" })).toMatchObject({ ok: true });
    expect((await db.benches()).find((j) => j.number === "FS-1043")).toMatchObject({ stage: "intake", waitingUntil: null, openFaults: 0 });
    expect(await carryOut(db.em(), by, replacementCame, { number: "FS-1043", part: "supply" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("not on its way back"),
    });
    const em = db.em();
    expect((await em.findOneOrFail(Fault, { job: (await jobOf(em, "FS-1043")).id })).finding).toBe("Replaced under warranty.");
  });
  it("the demo's waiting job waits for the supply that was dead at its bench test", async () => {
    const rows = (await receiptView(db.em(), "FS-1048"))?.rows ?? [];
    expect(rows.find((r) => r.kind === "supply")).toMatchObject({ testResult: "dead", testedWith: expect.stringContaining("board and CPU") });
    expect(rows.filter((r) => r.testResult === "passed").length).toBeGreaterThan(3);
    expect((await receiptView(db.em(), "FS-1043"))?.rows.some((r) => r.arrivedAt === null)).toBe(true);
  });
});

describe("the shelf", () => {
  it("is found by words in any order, by kind, with marks taken as they are; bounded", async () => {
    const names = async (q: string, kind?: string) => (await searchShelf(db.em(), q, kind)).rows.map((r) => r.id);
    expect(await names("t40 heron")).toEqual(["tarnbrook-heron-t40"]);
    expect((await names("whirrow", "fan")).length).toBeGreaterThanOrEqual(15);
    expect(await names("100%_\\")).toEqual([]);
    expect(await names("'; drop table shelf_type; --")).toEqual([]);
    const all = await searchShelf(db.em(), "");
    expect([all.rows.length, all.more]).toEqual([60, true]);
  });
  it("a corrected entry is the next revision; jobs keep what they were planned with and are told; taking it over is a change of parts", async () => {
    const by = await db.by();
    const stale = (await view("FS-1041")).plan?.stale;
    const text = await typeText("mossgate-850m", (t) => {
      (t.body as Record<string, unknown>).depthMm = 165;
    });
    const r = await carryOut(db.em(), by, saveType, { text, from: 1, because: "Measured." });
    expect(r).toMatchObject({ ok: true, value: { id: "mossgate-850m", revision: 2, jobs: expect.arrayContaining(["FS-1041", "FS-1045"]) } });
    const v = await view("FS-1041");
    expect(v.build.partTypes.find((t) => t.id === "mossgate-850m")?.body.depthMm).toBe(160);
    expect(v.plan?.stale).toBe(stale);
    const job = await jobOf(db.em(), "FS-1041");
    expect(await correctedSince(db.em(), job.id)).toEqual([{ part: "supply", name: "Mossgate 850 M", had: 1, now: 2 }]);
    const entry = await shelfEntry(db.em(), "mossgate-850m");
    expect(entry?.revisions[0]).toMatchObject({ revision: 2, by: "Mirel Quist", because: "Measured." });
    expect(entry?.usedBy.find((j) => j.number === "FS-1041")).toMatchObject({ revision: 1 });
    expect(await db.em().count(ShelfRevision)).toBe(1);
    expect(await carryOut(db.em(), by, changePart, { number: "FS-1041", part: "supply", type: "mossgate-850m" })).toMatchObject({ ok: true });
    const then = await view("FS-1041");
    expect(then.build.partTypes.find((t) => t.id === "mossgate-850m")?.body.depthMm).toBe(165);
    expect(then.plan?.stale).toBe(true);
    expect(await correctedSince(db.em(), job.id)).toEqual([]);
    expect(then.build.parts.find((p) => p.id === "supply")?.serial).toBe(v.build.parts.find((p) => p.id === "supply")?.serial);
  });
  it("two people correcting one entry: the second is told, nothing is lost", async () => {
    const by = await db.by();
    const text = await typeText("whirrow-120", (t) => {
      t.name = "Whirrow 120 mended";
    });
    expect(await carryOut(db.em(), by, saveType, { text, from: 1, because: "" })).toMatchObject({ ok: true });
    expect(await carryOut(db.em(), by, saveType, { text, from: 1, because: "" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("was corrected meanwhile: revision 2, yours began at 1"),
    });
  });
  it("a port that a plug is in cannot go; a free one can", async () => {
    const by = await db.by();
    const without = (id: string) =>
      typeText("tarnbrook-sprite-t40i", (t) => {
        t.ports = (t.ports as { id: string }[]).filter((p) => p.id !== id);
      });
    const used = (await view("FS-1044")).leads.find((l) => l.state === "plugged" && l.port?.startsWith("board:"));
    const port = used?.port?.split(":")[1] ?? "";
    const r = await carryOut(db.em(), by, saveType, { text: await without(port), from: 1, because: "" });
    expect(r).toMatchObject({ ok: false, sentence: expect.stringContaining(`${port} is in use: FS-1044 has`) });
    expect(await carryOut(db.em(), by, saveType, { text: await without("SATA_2"), from: 1, because: "" })).toMatchObject({ ok: true });
  });
  it("a new entry under a new id; the same id twice, another kind, an unknown id, bad data: a sentence each", async () => {
    const by = await db.by();
    const fresh = await typeText("whirrow-140", (t) => {
      t.id = "whirrow-140-mine";
      t.name = "Whirrow 140 mine";
    });
    expect(await carryOut(db.em(), by, saveType, { text: fresh, because: "" })).toMatchObject({ ok: true, value: { revision: 1 } });
    expect(await carryOut(db.em(), by, saveType, { text: fresh, because: "" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("already has a part type"),
    });
    const other = await typeText("whirrow-140", (t) => {
      t.kind = "hub";
    });
    expect(await carryOut(db.em(), by, saveType, { text: other, from: 1, because: "" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("is a fan and stays one"),
    });
    expect(await carryOut(db.em(), by, saveType, { text: "{", because: "" })).toMatchObject({
      ok: false,
      sentence: "This is not JSON. Nothing was stored.",
    });
    const negative = await typeText("whirrow-140", (t) => {
      t.body = { widthMm: -140 };
    });
    expect(await carryOut(db.em(), by, saveType, { text: negative, from: 1, because: "" })).toMatchObject({
      ok: false,
      more: ["body.widthMm: -140 is too small; at least 0."],
    });
    const dangling = await typeText("knotwick-split-2", (t) => {
      for (const p of t.ports as { fedBy: string }[]) p.fedBy = "nothing";
    });
    expect(await carryOut(db.em(), by, saveType, { text: dangling, from: 1, because: "" })).toMatchObject({
      ok: false,
      more: [expect.stringMatching(/^ports\[0\]\.fedBy/), expect.any(String)],
    });
  });
  it("stock is set, never below nothing", async () => {
    const by = await db.by();
    expect(await carryOut(db.em(), by, setStock, { type: "knotwick-split-2", stock: 9 })).toMatchObject({ ok: true });
    expect((await searchShelf(db.em(), "knotwick-split-2")).rows[0]?.stock).toBe(9);
    expect(await carryOut(db.em(), by, setStock, { type: "ghost", stock: 1 })).toMatchObject({ ok: false });
  });
  it("answers within 100 ms on 5,000 part types, at the server with the database", async () => {
    const em = db.em();
    const body = JSON.parse(readFileSync("data/shelf/fans.json", "utf8"))[0] as { id: string };
    await em.execute(
      `insert into shelf_type (id, kind, maker, name, revision, body, stock) select 'gen-' || n, (array['fan','board','case','drive'])[1 + n % 4], 'Maker ' || (n % 37), 'Part ' || md5(n::text), 1, ?::jsonb, 0 from generate_series(1, 5000) n`,
      [JSON.stringify(body)],
    );
    await em.execute("analyze shelf_type");
    const times: number[] = [];
    for (const q of ["part a1", "maker 7", "heron", "whirrow 120", "no such thing", "", "gen-49"]) {
      times.push(await leastMs(() => searchShelf(db.em(), q)));
    }
    times.sort((a, b) => a - b);
    expect(times[Math.floor(times.length / 2)]).toBeLessThan(100);
    await em.execute("delete from shelf_type where id like 'gen-%'");
  });
  it("a part row of every seeded job knows the revision it joined with", async () => {
    expect(await db.em().count(JobPart, { typeRevision: { $lt: 1 } })).toBe(0);
  });
});

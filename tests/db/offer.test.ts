import { describe, expect, it } from "vitest";
import { changedSince } from "../../core/offer";
import { JobPart, type JobRow, Person, type PersonRow } from "../../db";
import { buildOfJob, findJob } from "../../server/build/build-of-job";
import { ownMinutes } from "../../server/build/own-minutes";
import { changeBrief } from "../../server/job/change-brief";
import { newJob } from "../../server/job/make";
import { changeWishes } from "../../server/job/wishes";
import { purchasesAsFile } from "../../server/offer/files";
import { acceptOffer, makeOffer } from "../../server/offer/make";
import { offerPdf } from "../../server/offer/offer-pdf";
import { offerNow, offersOf } from "../../server/offer/offers";
import { addPart } from "../../server/parts/add";
import { boughtOf, lastPrices } from "../../server/parts/bought";
import { buy } from "../../server/parts/buy";
import { changeFacts, factsOf, factsOfJob, whereBefore } from "../../server/parts/facts";
import { overOf } from "../../server/parts/left-over";
import { receiptView } from "../../server/receipt/receipt-view";
import { addTip, stillSo, tipsOf, withdrawTip } from "../../server/shelf/tips";
import { changeDefaults } from "../../server/shop/change-defaults";
import { ShopDefaults, shopDefaults } from "../../server/shop/defaults";
import { carryOut } from "../../server/unit/action";
import { jobView } from "../../server/views/job-view";
import { testDatabase } from "./setup";

const db = testDatabase();
const lead = async () => (await db.em().findOneOrFail(Person, { role: "lead", active: true })) as PersonRow;

const number = "FS-1042";
const jobId = async () => (await findJob(db.em(), number))?.id ?? "";

describe("what the shop sets once", () => {
  it("is kept whole or not at all, by a lead, and not over what somebody else changed meanwhile", async () => {
    const by = await lead();
    const was = await shopDefaults(db.em());
    expect(was).toEqual(ShopDefaults.parse({}));
    expect((await carryOut(db.em(), by, changeDefaults, { defaults: { ...was, rate: -1 }, saw: was })).ok).toBe(false);
    const good = await carryOut(db.em(), by, changeDefaults, { defaults: { ...was, rate: 64, currency: "EUR", dueHour: "16:00" }, saw: was });
    expect(good).toMatchObject({ ok: true });
    expect(await shopDefaults(db.em())).toMatchObject({ rate: 64, currency: "EUR", dueHour: "16:00" });
    const late = await carryOut(db.em(), by, changeDefaults, { defaults: { ...was, name: "Over it" }, saw: was });
    expect(late).toMatchObject({ ok: false, sentence: expect.stringContaining("meanwhile") });
    const tech = await carryOut(db.em(), await db.by(), changeDefaults, { defaults: was, saw: await shopDefaults(db.em()) });
    expect(tech).toMatchObject({ ok: false, sentence: expect.stringContaining("may not") });
  });
  it("says how long hands take here, until enough was recorded; minutes of no step are refused", async () => {
    const by = await lead();
    const was = await shopDefaults(db.em());
    const before = (await ownMinutes(db.em())).get("fill-loop");
    expect(before?.said).toBeUndefined();
    expect((await carryOut(db.em(), by, changeDefaults, { defaults: { ...was, minutes: { yoga: 3 } as never }, saw: was })).ok).toBe(false);
    const said = await carryOut(db.em(), by, changeDefaults, { defaults: { ...was, minutes: { "board-in": 21 } }, saw: was });
    expect(said).toMatchObject({ ok: true });
    const view = await jobView(db.em(), "FS-1042");
    const step = view?.steps.find((s) => s.measure === "board-in");
    const times = (await ownMinutes(db.em())).get("board-in")?.times ?? 0;
    if (times < 5) expect([step?.minutes.handsOn, step?.minutesFrom]).toEqual([21, "said"]);
    else expect(step?.minutesFrom).toBe(times);
    expect(times).toBeLessThan(5);
  });
  it("is what a new job begins with: its schools, and the hour of its day", async () => {
    const by = await lead();
    const was = await shopDefaults(db.em());
    await carryOut(db.em(), by, changeDefaults, { defaults: { ...was, schools: { mainsV: 115 } }, saw: was });
    const made = await carryOut(db.em(), by, newJob, {
      client: "A client",
      title: "A machine",
      dueOn: "2026-12-18",
      parts: [{ type: "whirrow-120", count: 1 }],
    });
    if (!made.ok) throw new Error(made.sentence);
    const job = await findJob(db.em(), made.value);
    expect(job?.policy).toMatchObject({ mainsV: 115 });
    expect(job?.brief).toMatchObject({ dueHour: "16:00" });
  });
});

describe("an offer", () => {
  it("is kept as it was made; accepted it never changes, and what is otherwise since is said", async () => {
    const by = await db.by();
    const id = await jobId();
    const first = await carryOut(db.em(), by, makeOffer, { number, hours: 2.5 });
    expect(first).toMatchObject({ ok: true, value: 1 });
    const [made] = await offersOf(db.em(), id);
    expect(made?.body).toMatchObject({ hours: 2.5, rate: 64, currency: "EUR" });
    const today = new Date().toISOString().slice(0, 10);
    const early = await carryOut(db.em(), by, acceptOffer, { number, count: 1, by: "The client", on: "2000-01-01" });
    expect(early).toMatchObject({ ok: false, sentence: expect.stringContaining("later than that day") });
    const late = await carryOut(db.em(), by, acceptOffer, { number, count: 1, by: "The client", on: "2199-01-01" });
    expect(late).toMatchObject({ ok: false, sentence: expect.stringContaining("still to come") });
    expect(await carryOut(db.em(), by, acceptOffer, { number, count: 1, by: "The client", on: today })).toMatchObject({ ok: true });
    expect(await carryOut(db.em(), by, acceptOffer, { number, count: 1, by: "Another", on: today })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("accepted by The client already"),
    });
    await carryOut(db.em(), by, addPart, { number, type: "whirrow-140", count: 1 });
    const [kept] = await offersOf(db.em(), id);
    expect(kept?.body).toEqual(made?.body);
    const job = await findJob(db.em(), number);
    if (!job || !kept) throw new Error("gone");
    expect(changedSince(kept.body, await offerNow(db.em(), job)).join(" ")).toMatch(/Whirrow 140/);
    expect(await carryOut(db.em(), by, makeOffer, { number })).toMatchObject({ ok: true, value: 2 });
    expect(await carryOut(db.em(), by, acceptOffer, { number, count: 9, by: "X", on: today })).toMatchObject({ ok: false });
    expect((await offerPdf(db.em(), number))?.subarray(0, 5).toString()).toBe("%PDF-");
  });
});

describe("a list as it is bought", () => {
  it("keeps price, source, supplier and days for equal parts; the table to order from and the next job know of them", async () => {
    const by = await db.by();
    const id = await jobId();
    const bought = await carryOut(db.em(), by, buy, {
      number,
      parts: ["board"],
      price: 189.9,
      priceFrom: "their page",
      priceOn: "2026-11-20",
      supplier: "Northgate",
      availability: "four in stock",
      orderedOn: "2026-11-21",
      expectedOn: "2026-11-27",
    });
    expect(bought).toMatchObject({ ok: true });
    expect((await boughtOf(db.em(), id)).find((b) => b.part === "board")).toMatchObject({
      supplier: "Northgate",
      availability: "four in stock",
      orderedOn: "2026-11-21",
      expectedOn: "2026-11-27",
    });
    const file = await carryOut(db.em(), by, purchasesAsFile, { number });
    expect(file.ok && file.value).toMatch(/^supplier,count,what/);
    const view = await receiptView(db.em(), number);
    const type = view?.rows.find((r) => r.part === "board")?.type ?? "";
    const other = (await findJob(db.em(), "FS-1041"))?.id ?? "";
    expect((await lastPrices(db.em(), other, [type]))[type]).toMatchObject({ price: 189.9, supplier: "Northgate", job: number });
    expect(await carryOut(db.em(), by, buy, { number, parts: ["ghost"], price: 1 })).toMatchObject({ ok: false });
  });
});

describe("a piece and a tip", () => {
  it("what is known of a piece stays with it; on loan it has an owner; where its serial was before is known", async () => {
    const by = await db.by();
    const id = await jobId();
    expect(await carryOut(db.em(), by, changeFacts, { number, part: "board", facts: { origin: "loan" } })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("Whose"),
    });
    expect(
      await carryOut(db.em(), by, changeFacts, {
        number,
        part: "board",
        facts: { origin: "loan", whose: "The neighbour", untilOn: "2026-12-20", firmware: "F12" },
      }),
    ).toMatchObject({ ok: true });
    expect(
      await carryOut(db.em(), by, changeFacts, {
        number,
        part: "board",
        facts: { came: [{ id: "no-such-line", what: "Y-splitter" }], along: ["screws by bag"] },
      }),
    ).toMatchObject({ ok: true });
    expect((await factsOfJob(db.em(), id)).board).toMatchObject({
      origin: "loan",
      whose: "The neighbour",
      firmware: "F12",
      along: ["screws by bag"],
    });
    // What the list no longer wants is not used, and lies in the bag; an older record without words says nothing.
    const bag = await overOf(db.em(), await buildOfJob(db.em(), (await findJob(db.em(), number)) as JobRow));
    expect(bag.map((l) => l.what)).toEqual(["screws by bag", "Y-splitter"]);
    const row = await db.em().findOneOrFail(JobPart, { job: id, key: "board" });
    expect(factsOf({ ...(row.facts as object), came: ["standoffs"] }).came).toEqual([{ id: "standoffs", what: "" }]);
    expect(await whereBefore(db.em(), id, [])).toEqual([]);
  });
  it("a tip is one line at a type; still so with a name; a lead withdraws it, nobody else", async () => {
    const by = await db.by();
    const made = await carryOut(db.em(), by, addTip, { type: "whirrow-120", step: "fit", words: "Its corners are soft: hand-tight." });
    if (!made.ok) throw new Error(made.sentence);
    expect(await carryOut(db.em(), by, addTip, { type: "whirrow-120", words: "Its corners are soft: hand-tight." })).toMatchObject({ ok: false });
    expect(await carryOut(db.em(), by, addTip, { type: "no-such", words: "x" })).toMatchObject({ ok: false });
    expect(await carryOut(db.em(), by, stillSo, { tip: made.value.id })).toMatchObject({ ok: true });
    expect(await tipsOf(db.em(), ["whirrow-120"])).toMatchObject([{ words: "Its corners are soft: hand-tight.", stillSo: { by: by.name } }]);
    expect(await carryOut(db.em(), by, withdrawTip, { tip: made.value.id })).toMatchObject({ ok: false });
    expect(await carryOut(db.em(), await lead(), withdrawTip, { tip: made.value.id })).toMatchObject({ ok: true });
    expect(await tipsOf(db.em(), ["whirrow-120"])).toEqual([]);
  });
});

describe("what a client wants", () => {
  it("changes as they change their mind: mail, things beside the machine, monitors that differ; each is told in the log, what stays is not", async () => {
    const by = await db.by();
    const said = async (action: typeof changeBrief | typeof changeWishes, input: object) =>
      carryOut(db.em(), by, action as typeof changeBrief, { number, ...input } as never);
    expect(
      await said(changeBrief, { mail: "Two screens now, please.", extra: { what: "licence", words: "A licence for the system", price: 99 } }),
    ).toMatchObject({
      ok: true,
    });
    const monitors = [
      { count: 1, widthPx: 2560, heightPx: 1440, hz: 144, socket: "DisplayPort" },
      { count: 1, widthPx: 1920, heightPx: 1080, hz: 60, socket: "HDMI" },
    ];
    expect(await said(changeWishes, { monitors, wireless: true, budget: 2100, saw: { budget: null } })).toMatchObject({ ok: true });
    const view = await db.view(number);
    expect(view.build.wishes.monitors).toEqual(monitors);
    expect(view.log[0]?.text).toMatch(/monitors 2560 × 1440, 144 Hz, DisplayPort; 1920 × 1080, 60 Hz, HDMI/);
    const entries = view.log.length;
    expect(await said(changeWishes, { monitors, wireless: true })).toMatchObject({ ok: true });
    expect((await db.view(number)).log.length).toBe(entries);
    const job = await findJob(db.em(), number);
    expect(job?.brief).toMatchObject({ mail: "Two screens now, please.", extras: [{ words: "A licence for the system", price: 99, count: 1 }] });
    if (!job) throw new Error("gone");
    expect((await offerNow(db.em(), job)).beside).toMatchObject([{ what: "A licence for the system", each: 99 }]);
    expect(await said(changeBrief, { dropExtra: "A licence for the system" })).toMatchObject({ ok: true });
    expect(await said(changeBrief, { dropExtra: "A licence for the system" })).toMatchObject({ ok: false });
  });
});

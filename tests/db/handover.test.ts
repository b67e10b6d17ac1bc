import { describe, expect, it } from "vitest";
import { Job, JobPart, Person, type PersonRow } from "../../db";
import { LANGUAGES, saidIn } from "../../paper/said";
import { buildOfJob } from "../../server/build/build-of-job";
import { PAPERS, paperOf } from "../../server/documents/papers";
import { lend } from "../../server/first-boot/loans";
import { clientPageOf, clientPagePathOf, setClientPage } from "../../server/handover/client-page";
import { comeBack } from "../../server/handover/come-back";
import { handOver } from "../../server/handover/hand-over";
import { prepare } from "../../server/handover/prepare";
import { readyOf } from "../../server/handover/recorded";
import { acceptOffer, makeOffer } from "../../server/offer/make";
import { planJob } from "../../server/plan/plan-job";
import { changeDefaults } from "../../server/shop/change-defaults";
import { shopDefaults } from "../../server/shop/defaults";
import { carryOut } from "../../server/unit/action";
import { jobOf, make, testDatabase } from "./setup";

const db = testDatabase();
const number = "FS-1042";
const lead = async () => (await db.em().findOneOrFail(Person, { role: "lead", active: true })) as PersonRow;
const ready = async (n = number) => {
  const em = db.em();
  const job = await jobOf(em, n);
  return readyOf(em, job, await buildOfJob(em, job));
};
const say = async (input: object, n = number) => carryOut(db.em(), await db.by(), prepare, { number: n, ...input } as never);
const day = () => new Date().toISOString().slice(0, 10);

describe("how a machine leaves", () => {
  it("the way asks for its packing; what is ticked has who and when, and can be taken back; of what is not there nothing is kept", async () => {
    expect((await ready()).missing.some((m) => m.id === "way")).toBe(true);
    expect(await say({ way: "travels" })).toMatchObject({ ok: true });
    const { packing, bag } = await ready();
    expect(packing.map((p) => p.id)).toContain("foam");
    expect(await say({ packed: "foam", done: true })).toMatchObject({ ok: true });
    const what = bag[0]?.what ?? "";
    expect(await say({ bag: what, seen: true })).toMatchObject({ ok: true });
    const now = await ready();
    expect(now.packing.find((p) => p.id === "foam")?.done).toMatchObject({ by: (await db.by()).name });
    expect(now.bag.find((b) => b.what === what)?.seen).not.toBeNull();
    expect(await say({ bag: what, seen: false })).toMatchObject({ ok: true });
    expect((await ready()).bag.find((b) => b.what === what)?.seen).toBeNull();
    expect(await say({ packed: "wings", done: true })).toMatchObject({ ok: false });
    expect(await say({ bag: "a whale", seen: true })).toMatchObject({ ok: false });
    expect((await db.view(number)).log[0]?.text).toMatch(/not in the bag\.$/);
  });
  it("an electrical safety test is asked for where the shop says so; one that failed keeps it here whoever says so", async () => {
    const by = await lead();
    const was = await shopDefaults(db.em());
    await carryOut(db.em(), by, changeDefaults, { defaults: { ...was, safetyTest: true }, saw: was });
    expect((await ready()).missing.map((m) => m.id)).toContain("safety");
    expect(await say({ safety: "failed", with: "" })).toMatchObject({ ok: false });
    expect(await say({ safety: "failed", with: "tester 4" })).toMatchObject({ ok: true });
    const out = await carryOut(db.em(), by, handOver, { number, reason: "the client waits" });
    expect(out).toMatchObject({ ok: false, sentence: expect.stringMatching(/^It does not leave the shop: The electrical safety test failed/) });
    expect(await say({ safety: "passed", with: "tester 4" })).toMatchObject({ ok: true });
    expect((await ready()).missing.map((m) => m.id)).not.toContain("safety");
    const now = await shopDefaults(db.em());
    await carryOut(db.em(), by, changeDefaults, { defaults: was, saw: now });
  });
  it("what is built otherwise than sold wants the client's word, who and when; what was agreed does not move", async () => {
    const by = await db.by();
    expect((await ready()).sold).toEqual([]);
    expect(await carryOut(db.em(), by, makeOffer, { number, hours: 4 })).toMatchObject({ ok: true });
    expect(await carryOut(db.em(), by, acceptOffer, { number, count: 1, by: "Gannet Lane Choir", on: day() })).toMatchObject({ ok: true });
    expect((await ready()).sold.filter((r) => r.state !== "same")).toEqual([]);
    const drive = (await db.view(number)).build.parts.find((p) => p.type.includes("pebblestone"));
    const em = db.em();
    // What is not plugged yet is changed on Parts; here the row alone.
    const row = await em.findOneOrFail(JobPart, { job: (await jobOf(em, number)).id, key: drive?.id ?? "" });
    const type = await em.execute<{ body: unknown }[]>(`select body from shelf_type where id = 'pebblestone-swift-4000'`);
    Object.assign(row, { type: "pebblestone-swift-4000", body: type[0]?.body });
    await em.flush();
    await db.em().execute(`update job set parts_revision = parts_revision + 1, revision = revision + 1 where number = ?`, [number]);
    const { sold, missing } = await ready();
    const other = sold.find((r) => r.state !== "same");
    expect(other?.state).toMatch(/better|other/);
    expect(missing.find((m) => m.id === "sold")?.what).toMatch(/^1 difference from what was sold/);
    const word = { line: other?.id, words: "the larger one at the same price, by telephone", who: "Gannet Lane Choir", on: day() };
    expect(await say({ ...word, on: "2199-01-01" })).toMatchObject({ ok: false, sentence: expect.stringContaining("still to come") });
    expect(await say({ ...word, line: "part nothing" })).toMatchObject({ ok: false });
    expect(await say({ ...word, line: sold.find((r) => r.state === "same")?.id })).toMatchObject({ ok: false });
    expect(await say(word)).toMatchObject({ ok: true });
    const after = await ready();
    expect(after.missing.find((m) => m.id === "sold")).toBeUndefined();
    expect(after.sold.find((r) => r.id === other?.id)?.word).toMatchObject({ words: word.words, who: word.who });
  });
  it("as it is takes a lead and a reason, and stands in the client's paper; what is on loan does not leave at all", async () => {
    const reason = "the client takes it unsoaked";
    expect(await carryOut(db.em(), await db.by(), handOver, { number, reason })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("ask a lead"),
    });
    expect(await carryOut(db.em(), await lead(), handOver, { number })).toMatchObject({ ok: false, sentence: expect.stringContaining("write why") });
    expect(await carryOut(db.em(), await lead(), handOver, { number, reason, carrier: "Northern Carters", tracking: "NC-1" })).toMatchObject({
      ok: true,
    });
    const made = await paperOf(db.em(), number, "client");
    const text = JSON.stringify(made?.paper);
    expect([text.includes(reason), text.includes((await lead()).name), text.includes("as-is.title")]).toEqual([true, true, true]);
    expect(await carryOut(db.em(), await lead(), handOver, { number, reason })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("handed over"),
    });
    expect((await ready()).leaving.taken).toMatchObject({ carrier: "Northern Carters", tracking: "NC-1" });
    expect(
      await carryOut(db.em(), await db.by(), lend, { number: "FS-1045", what: "Start drive 9", owner: "the shop", serial: "SD-9" }),
    ).toMatchObject({ ok: true });
    expect(await carryOut(db.em(), await lead(), handOver, { number: "FS-1045", reason })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("Start drive 9"),
    });
  });
});

describe("papers", () => {
  it("each is made of every demo job, in each language, without a sentence that is missing; every serial of the record is in it and no other", async () => {
    const em = db.em();
    for (const { number: n } of await em.find(Job, {}, { limit: 20, fields: ["number"] }))
      for (const kind of PAPERS) {
        const made = await paperOf(db.em(), n, kind);
        if (!made) throw new Error(`no paper ${kind} of ${n}`);
        const all = [
          made.paper.title,
          ...made.paper.under,
          ...made.paper.sections.flatMap((s) => [
            s.title,
            ...(s.lead ? [s.lead] : []),
            ...s.rows.flatMap((r) => [r.what, ...(r.says ? [r.says] : []), ...(r.right ? [r.right] : [])]),
          ]),
        ];
        for (const language of Object.keys(LANGUAGES) as (keyof typeof LANGUAGES)[])
          for (const s of all) expect(saidIn(language, s).length).toBeGreaterThan(0);
      }
    // Nothing in a client's paper that the record does not say: whatever stands as it is stands in the record.
    const made = await paperOf(db.em(), "FS-1045", "client");
    const record = JSON.stringify([
      await db.view("FS-1045"),
      await db
        .em()
        .execute(
          `select serial, warranty_until, body->>'name' as name, body->>'maker' as maker from job_part where job_id = (select id from job where number = 'FS-1045')`,
        ),
    ]);
    const serials =
      made?.paper.sections
        .find((s) => "id" in s.title && s.title.id === "inside.title")
        ?.rows.flatMap((r) => (r.right && "words" in r.right ? [r.right.words] : [])) ?? [];
    expect(serials.length).toBeGreaterThan(5);
    for (const s of serials) expect(record).toContain(s);
  });
  it("what one language says the other says too", () => {
    expect(Object.keys(LANGUAGES.de).sort()).toEqual(Object.keys(LANGUAGES.en).sort());
    const holes = (t: string) => [...t.matchAll(/\{(\w+)[,}]/g)].map((m) => m[1]).sort();
    for (const [id, text] of Object.entries(LANGUAGES.en)) expect([id, holes(LANGUAGES.de[id as "page"])]).toEqual([id, holes(text)]);
  });
});

describe("a page for the client's eyes", () => {
  const set = async (on: boolean) => carryOut(db.em(), await db.by(), setClientPage, { number: "FS-1045", on });
  const token = async () => ((await clientPagePathOf(db.em(), "FS-1045")) ?? "").slice("/m/".length);
  it("is off until it is switched on; says nothing of prices, people, serials; withdrawn, its address is gone for ever", async () => {
    expect(await token()).toBe("");
    expect(await set(true)).toMatchObject({ ok: true });
    const one = await token();
    expect([one.length, await token()]).toEqual([43, one]);
    const made = await clientPageOf(one);
    if (typeof made === "string") throw new Error(made);
    const text = JSON.stringify(made.paper);
    const { head } = await db.view("FS-1045");
    const rows = await db
      .em()
      .execute<{ serial: string }[]>(
        `select serial from job_part where serial is not null and job_id = (select id from job where number = 'FS-1045')`,
      );
    const people = await db.em().find(Person, {});
    expect(rows.length).toBeGreaterThan(5);
    for (const secret of [head.client, ...rows.map((r) => r.serial), ...people.map((p) => p.name)]) expect(text).not.toContain(secret);
    expect(made.svg).toContain("<svg");
    const [kept] = await db.em().execute<{ token_hash: string }[]>(`select token_hash from client_page`);
    expect(kept?.token_hash).not.toContain(one);
    expect(await set(false)).toMatchObject({ ok: true });
    expect(await clientPageOf(one)).toBe("none");
    expect(await set(true)).toMatchObject({ ok: true });
    expect(await token()).not.toBe(one);
    expect(await clientPageOf(one)).toBe("none");
  });
  it("asked for ten thousand times it is shown so often a minute, guessed at it is none, and at last says so", async () => {
    const right = await token();
    const said = [];
    for (let i = 0; i < 80; i++) said.push(typeof (await clientPageOf(right)) === "string" ? "no" : "shown");
    expect(said.filter((s) => s === "shown").length).toBeGreaterThan(20);
    expect(said.filter((s) => s === "shown").length).toBeLessThanOrEqual(60);
    expect(await clientPageOf(right)).toBe("too often");
    const wrong = new Set<string>();
    for (let i = 0; i < 300; i++) wrong.add(String(await clientPageOf(`${i}`.padEnd(43, "a"))));
    expect([...wrong]).toEqual(["none", "too often"]);
    for (const odd of ["", "../..", "x".repeat(4000), "%00"]) expect(await clientPageOf(odd)).toBe("none");
  });
});

describe("the machine comes back", () => {
  it("as it left: the same parts, serials and plugs, nothing seen yet; a plan of it changes nothing", async () => {
    const by = await db.by();
    expect(await carryOut(db.em(), by, comeBack, { number: "FS-1045", says: "it is loud" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("is in work"),
    });
    const made = await carryOut(db.em(), by, comeBack, { number: "FS-1046", says: "it is loud" });
    if (!made.ok) throw new Error(made.sentence);
    const [was, is] = [await db.view("FS-1046"), await db.view(made.value)];
    const plugs = (v: typeof was) =>
      v.build.connections
        .filter((c) => c.state === "plugged" || c.state === "checked")
        .map((c) => `${c.lead} ${c.port}`)
        .sort();
    expect(plugs(is)).toEqual(plugs(was));
    expect(is.build.parts).toEqual(was.build.parts);
    expect([is.head.stage, Object.keys(is.seen).length, is.faults.length]).toEqual(["first-boot", 0, 0]);
    const before = is.build.connections;
    expect(await planJob(db.em(), made.value, by, make)).toMatchObject({ ok: true, value: { moved: 0 } });
    const after = (await db.view(made.value)).build.connections;
    expect(after.map((c) => `${c.lead} ${c.port} ${c.state}`).sort()).toEqual(before.map((c) => `${c.lead} ${c.port} ${c.state}`).sort());
    expect(await carryOut(db.em(), by, comeBack, { number: "FS-1046", says: "again" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining(`is here already, as ${made.value}`),
    });
    expect([(await ready("FS-1046")).after, (await ready(made.value)).before?.number]).toEqual([
      [{ number: made.value, says: "it is loud", open: true }],
      "FS-1046",
    ]);
  });
});

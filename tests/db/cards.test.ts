import { describe, expect, it } from "vitest";
import { LogEntry, Person, StepTime } from "../../db";
import { card } from "../../server/bench/card";
import { plug } from "../../server/bench/plug";
import { takeBack } from "../../server/entries/take-back";
import type { Actor } from "../../server/kernel/actor";
import { planJob } from "../../server/plan/plan-job";
import { carryOut } from "../../server/unit/action";
import { jobOf, make, testDatabase } from "./setup";

const NUMBER = "FS-1041";
const db = testDatabase(async (d) => {
  const r = await planJob(d.em(), NUMBER, await d.by(), make);
  if (!r.ok) throw new Error(r.sentence);
});

const sentence = (r: { ok: boolean; sentence?: string }) => (r.ok ? "" : (r.sentence ?? ""));
const fans = async () => (await db.view(NUMBER)).leads.filter((l) => l.port && l.loom === "fans");
const states = async () => new Map((await db.view(NUMBER)).leads.map((l) => [l.address, l.state]));
const logged = async () => db.em().count(LogEntry, { job: (await jobOf(db.em(), NUMBER)).id });
const in_ = (l: { address: string; port?: string | undefined }) => ({ kind: "plug" as const, lead: l.address, port: l.port, state: "plugged" });

describe("a card said with one press", () => {
  it("is recorded whole, each thing by itself, once however often it is sent", async () => {
    const list = await fans();
    expect(list.length).toBeGreaterThan(2);
    const before = await logged();
    const input = {
      number: NUMBER,
      items: [
        ...list.map((l) => ({ ...in_(l), saw: { port: l.port, state: "planned" }, tookS: 20 })),
        { kind: "step", step: "standoffs", done: true, saw: false },
        { kind: "skip", step: "shield", text: "A part is missing" },
      ],
    };
    for (let n = 0; n < 2; n++) expect(await carryOut(db.em(), await db.by(), card, input, { key: "card-1" })).toMatchObject({ ok: true });
    expect((await logged()) - before).toBe(list.length + 2);
    const now = await states();
    expect(list.map((l) => now.get(l.address))).toEqual(list.map(() => "plugged"));
    const job = (await jobOf(db.em(), NUMBER)).id;
    expect(await db.em().count(StepTime, { job, seconds: 20 })).toBe(list.length);
  });
  it("is taken back whole by one key, never over what somebody else has said since", async () => {
    const by = await db.by();
    const list = await fans();
    expect(await carryOut(db.em(), by, takeBack, { number: NUMBER })).toMatchObject({
      ok: true,
      value: expect.stringMatching(/^Taken back: .* And \d+ more\.$/),
    });
    let now = await states();
    expect(list.map((l) => now.get(l.address))).toEqual(list.map(() => "planned"));
    expect(await carryOut(db.em(), by, card, { number: NUMBER, items: list.map(in_) })).toMatchObject({ ok: true });
    const other = (await db.em().findOneOrFail(Person, { name: "Tansy Okoru" })) as unknown as Actor;
    await carryOut(db.em(), other, plug, { number: NUMBER, lead: list[0]?.address, port: list[0]?.port, state: "planned" });
    expect(sentence(await carryOut(db.em(), by, takeBack, { number: NUMBER }))).toMatch(/^Tansy Okoru has said something of it since/);
    now = await states();
    expect(list.map((l) => now.get(l.address))).toEqual(list.map((_, i) => (i === 0 ? "planned" : "plugged")));
  });
  it("of which two have changed places is recorded as it is said", async () => {
    const by = await db.by();
    const [a, b] = await fans();
    if (!a?.port || !b?.port) throw new Error("two fans");
    const put = (items: object[]) => carryOut(db.em(), by, card, { number: NUMBER, items });
    const out = [a, b].map((l) => ({ ...in_(l), state: "planned" }));
    const where = async () => {
      const now = new Map((await db.view(NUMBER)).leads.map((l) => [l.address, `${l.port} ${l.state}`]));
      return [now.get(a.address), now.get(b.address)];
    };
    await put(out);
    expect(await put([in_({ ...a, port: b.port }), in_({ ...b, port: a.port })])).toMatchObject({ ok: true });
    expect(await where()).toEqual([`${b.port} plugged`, `${a.port} plugged`]);
    await put([in_({ ...a, port: b.port }), in_({ ...b, port: a.port })].map((x) => ({ ...x, state: "planned" })));
    expect(await put(out.map((x) => ({ ...x, state: "plugged" })))).toMatchObject({ ok: true });
    expect(await where()).toEqual([`${a.port} plugged`, `${b.port} plugged`]);
  });
  it("of which one thing cannot be records nothing, and says which", async () => {
    const by = await db.by();
    const list = await fans();
    await carryOut(db.em(), by, card, { number: NUMBER, items: list.map((l) => ({ ...in_(l), state: "planned" })) });
    const before = await logged();
    const [a, b] = list;
    if (!a || !b) throw new Error("two fans");
    const stale = { ...in_(b), saw: { port: b.port, state: "plugged" }, state: "planned" };
    await carryOut(db.em(), by, plug, { number: NUMBER, lead: b.address, port: a.port, state: "plugged" });
    const r = await carryOut(db.em(), by, card, { number: NUMBER, items: [in_(a), stale] }, { key: "card-2" });
    expect(sentence(r)).toMatch(/already holds .* Take that out first\. Nothing was changed\./);
    expect((await logged()) - before).toBe(2); // the stray plug, and the place it took
    expect((await states()).get(a.address)).not.toBe("plugged");
    // The one before the refused one was said first: it is taken back with it.
    const c = list[2];
    const rest = { number: NUMBER, items: [{ ...in_(c ?? a), saw: { port: c?.port, state: "planned" } }, in_(a)] };
    expect(sentence(await carryOut(db.em(), by, card, rest, { key: "card-3" }))).toMatch(/already holds/);
    expect((await states()).get(c?.address ?? "")).toBe("planned");
    for (const items of [
      [],
      [in_(a), in_(a)],
      [{ kind: "note", text: "x" }],
      Array.from({ length: 61 }, (_, i) => ({ kind: "step", step: `s${i}`, done: true })),
    ])
      expect(sentence(await carryOut(db.em(), by, card, { number: NUMBER, items }))).toMatch(/was not understood\. Nothing was changed\./);
    expect(sentence(await carryOut(db.em(), by, card, { number: NUMBER, items: [{ kind: "step", step: "no-such", done: true }] }))).toMatch(
      /no such step any more/,
    );
  });
});

import { describe, expect, it } from "vitest";
import { type Build, typeLookup } from "../../core/assembly";
import { waysIn } from "../../core/plan";
import { JobPart, ShelfType } from "../../db";
import { jobFromFile } from "../../server/job/from-file";
import { orderMore } from "../../server/parts/order-more";
import { planJob } from "../../server/plan/plan-job";
import { carryOut } from "../../server/unit/action";
import { usbShort } from "../fixtures/short";
import { jobOf, make, testDatabase } from "./setup";

const db = testDatabase();

const both = async (build: Build) => {
  const made = await make(build);
  const ways = await waysIn(made, typeLookup(build, []));
  return ways ? { ...made, ways } : made;
};
const plan = async (job: string) => planJob(db.em(), job, await db.by(), both);
const HUB = "knotwick-usb-hub-3";

describe("what would let in what stays free", () => {
  let job = "";
  it("before everything is here, the plan puts what is missing on the order list by itself", async () => {
    const r = await carryOut(db.em(), await db.by(), jobFromFile, { text: JSON.stringify(usbShort(8).build) });
    if (!r.ok) throw new Error(r.sentence);
    job = r.value;
    // By hand: a hub takes one half and gives three headers of two: 7 places with one hub, which is in stock, 12 with two.
    expect(await plan(job)).toMatchObject({ ok: true, value: { free: 0 } });
    const view = await db.view(job);
    expect(view.plan?.ways).toBeNull();
    expect(view.build.parts.filter((p) => p.from !== "client").map((p) => [p.type, p.from])).toEqual([
      [HUB, "shelf"],
      [HUB, "order"],
    ]);
  });
  it("what is on the order list stays there once everything else is here, and may be planned with", async () => {
    const em = db.em();
    await em.nativeUpdate(JobPart, { job: (await jobOf(em, job)).id, origin: "client" }, { arrivedAt: new Date() });
    expect((await db.view(job)).build.policy.mayOrder).toBe(false);
    expect(await plan(job)).toMatchObject({ ok: true, value: { free: 0 } });
    expect((await db.view(job)).build.parts.filter((p) => p.from === "order")).toHaveLength(1);
  });
  it("when everything is here, a plan uses what is here and says the fewest things that would do", async () => {
    const r = await carryOut(db.em(), await db.by(), jobFromFile, { text: JSON.stringify(usbShort(8).build) });
    if (!r.ok) throw new Error(r.sentence);
    job = r.value;
    const em = db.em();
    await em.nativeUpdate(ShelfType, { id: HUB }, { stock: 2 });
    await em.nativeUpdate(JobPart, { job: (await jobOf(em, job)).id, origin: "client" }, { arrivedAt: new Date() });
    // Two in stock, one of them reserved for the job before: one hub for this one.
    expect(await plan(job)).toMatchObject({ ok: true, value: { free: 1 } });
    expect((await db.view(job)).plan?.ways).toMatchObject({ needs: [{ kind: "accessory", type: HUB, count: 1 }], left: [], proved: true });
  });
  it("ordered by a press, it is on the list, the log says so, and the next plan leaves nothing out", async () => {
    expect(await carryOut(db.em(), await db.by(), orderMore, { number: job, items: [{ type: HUB, count: 1 }] })).toMatchObject({ ok: true });
    expect(await plan(job)).toMatchObject({ ok: true, value: { free: 0 } });
    const view = await db.view(job);
    expect(view.plan?.ways).toBeNull();
    expect(view.build.parts.filter((p) => p.from === "order").map((p) => p.type)).toEqual([HUB]);
    const texts = view.log.map((e) => e.text);
    expect(texts.some((t) => /^On the order list for the wiring: 1 × /.test(t))).toBe(true);
  });
  it("refuses what is no accessory, and then nothing was ordered", async () => {
    const before = (await db.view(job)).build.parts.length;
    const r = await carryOut(db.em(), await db.by(), orderMore, {
      number: job,
      items: [
        { type: HUB, count: 1 },
        { type: "no-such-thing", count: 1 },
      ],
    });
    expect(r).toMatchObject({ ok: false, sentence: 'The shelf has no accessory "no-such-thing" any more. Nothing was ordered. Plan again.' });
    expect((await db.view(job)).build.parts.length).toBe(before);
  });
});

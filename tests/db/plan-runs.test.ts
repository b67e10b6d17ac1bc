import { describe, expect, it } from "vitest";
import type { Build } from "../../core/assembly";
import { type EntityManager, JobPart, Plan, PlanRun, ShelfType } from "../../db";
import { jobFromFile } from "../../server/job/from-file";
import { orderMore } from "../../server/parts/order-more";
import { type PlanNews, planJob } from "../../server/plan/plan-job";
import { askPlan, followRun, stopPlan, takeRun } from "../../server/planner/runs";
import { workOnce } from "../../server/planner/work";
import { carryOut } from "../../server/unit/action";
import { usbShort } from "../fixtures/short";
import { jobOf, make, testDatabase } from "./setup";

const db = testDatabase();
const HUB = "knotwick-usb-hub-3";

const ask = async (number: string) => {
  const r = await carryOut(db.em(), await db.by(), askPlan, { number });
  if (!r.ok) throw new Error(r.sentence);
  return r.value;
};
const newJob = async (devices: number) => {
  const r = await carryOut(db.em(), await db.by(), jobFromFile, { text: JSON.stringify(usbShort(devices).build) });
  if (!r.ok) throw new Error(r.sentence);
  return r.value;
};
const run = async (id: string) => db.em().findOneOrFail(PlanRun, { id });
const plans = async (number: string) => {
  const em = db.em();
  return em.count(Plan, { job: (await jobOf(em, number)).id });
};
const work = (name: string, how = make) => workOnce(db.em as () => EntityManager, name, how);

describe("a plan that is asked for", () => {
  it("is one row however often it is asked for, made once, and followed from anywhere", async () => {
    const ids = await Promise.all([1, 2, 3, 4].map(() => ask("FS-1041")));
    expect(new Set(ids).size).toBe(1);
    const heard: PlanNews[] = [];
    const followed = followRun(db.em(), ids[0] ?? "", (n) => heard.push(n));
    const took = await Promise.all(["one", "two", "three"].map((name) => work(name)));
    expect(took.filter(Boolean)).toHaveLength(1);
    expect(await followed).toMatchObject({ ok: true, value: { revision: 1, status: "proved" } });
    expect(heard.length).toBeGreaterThan(0);
    expect(await plans("FS-1041")).toBe(1);
    expect((await run(ids[0] ?? "")).state).toBe("done");
    expect(await ask("FS-1041")).not.toBe(ids[0]);
    await work("one");
  }, 120_000);
  it("whose planner died is taken again, and made once; one that ends its planner three times is given up", async () => {
    const id = await ask("FS-1043");
    expect((await takeRun(db.em(), "dies"))?.id).toBe(id);
    expect(await takeRun(db.em(), "too early")).toBeUndefined();
    const silence = () => db.em().execute(`update plan_run set beat_at = now() - interval '11 seconds' where id = ?`, [id]);
    await silence();
    expect(await work("second")).toBe(true);
    expect(await run(id)).toMatchObject({ state: "done", takenBy: "second", tries: 2 });
    const bad = await ask("FS-1043");
    for (const name of ["a", "b", "c"]) {
      expect((await takeRun(db.em(), name))?.id).toBe(bad);
      await db.em().execute(`update plan_run set beat_at = now() - interval '11 seconds' where id = ?`, [bad]);
    }
    expect(await takeRun(db.em(), "d")).toBeUndefined();
    expect(await followRun(db.em(), bad, () => {})).toMatchObject({ ok: false, sentence: expect.stringContaining("three times") });
  }, 120_000);
  it("is stopped from any server: the planner hears of it, and what was stored stays", async () => {
    const before = await plans("FS-1041");
    const id = await ask("FS-1041");
    const slow = (_: Build, asked?: { signal?: AbortSignal | undefined }) =>
      new Promise<never>((_resolve, reject) => {
        asked?.signal?.addEventListener("abort", () => reject(new Error("it was stopped")));
      });
    const working = workOnce(db.em as () => EntityManager, "stopped", slow as never);
    await expect.poll(async () => (await run(id)).state).toBe("working");
    await carryOut(db.em(), await db.by(), stopPlan, { number: "FS-1041" });
    await working;
    expect((await run(id)).state).toBe("stopped");
    expect(await plans("FS-1041")).toBe(before);
    expect(await followRun(db.em(), id, () => {})).toMatchObject({ ok: false, sentence: expect.stringContaining("as it was") });
  }, 60_000);
  it("of no job, or of one that was handed over, is refused in a sentence", async () => {
    expect(await carryOut(db.em(), await db.by(), askPlan, { number: "FS-0" })).toMatchObject({ ok: false });
    expect(await carryOut(db.em(), await db.by(), askPlan, { number: "FS-1046" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("handed over"),
    });
  });
});

describe("what changes while a plan is made", () => {
  it("is not lost: an accessory ordered meanwhile is there afterwards, and the plan that is stored knows it", async () => {
    const job = await newJob(8);
    let times = 0;
    const r = await planJob(db.em(), job, await db.by(), async (build) => {
      times += 1;
      const made = await make(build);
      if (times === 1)
        expect(await carryOut(db.em(), await db.by(), orderMore, { number: job, items: [{ type: HUB, count: 1 }] })).toMatchObject({ ok: true });
      return made;
    });
    expect(r).toMatchObject({ ok: true, value: { free: 0 } });
    expect(times).toBe(2);
    const em = db.em();
    expect(await em.count(JobPart, { job: (await jobOf(em, job)).id, origin: "order", type: HUB })).toBeGreaterThan(0);
    expect(await plans(job)).toBe(1);
  }, 60_000);
  it("is not promised twice: two plans that count on the same hub, at the same moment", async () => {
    const em = db.em();
    const promised = () => em.count(JobPart, { origin: "shelf", type: HUB });
    await em.nativeUpdate(ShelfType, { id: HUB }, { stock: (await promised()) + 1 });
    const jobs = [await newJob(5), await newJob(5)];
    let waiting = 0;
    let go = () => {};
    const both = new Promise<void>((resolve) => {
      go = resolve;
    });
    const results = await Promise.all(
      jobs.map(async (job) => {
        let first = true;
        return planJob(db.em(), job, await db.by(), async (build) => {
          const made = await make(build);
          if (first) {
            first = false;
            waiting += 1;
            if (waiting === 2) go();
            await both;
          }
          return made;
        });
      }),
    );
    for (const r of results) expect(r).toMatchObject({ ok: true, value: { free: 0 } });
    const stock = (await db.em().findOneOrFail(ShelfType, { id: HUB })).stock;
    expect(await promised()).toBe(stock);
  }, 60_000);
});

describe("a long search", () => {
  it("gives way to whoever waits for a first plan, and goes on afterwards from the plan that it stored", async () => {
    const [long, short] = [await newJob(3), await newJob(2)];
    const longId = await ask(long);
    const order: string[] = [];
    const stuck = async (build: Build, asked?: { signal?: AbortSignal | undefined; deadlineS?: number | undefined }) => {
      const made = await make(build);
      // The first look ends unproved; the search that follows never ends by itself.
      if (asked?.deadlineS !== undefined) return { ...made, status: "not yet proved" as const };
      order.push("searches");
      return new Promise<never>((_resolve, reject) => {
        asked?.signal?.addEventListener("abort", () => reject(new Error("it was stopped")));
      });
    };
    const working = workOnce(db.em as () => EntityManager, "one", stuck as never);
    await expect.poll(async () => (await run(longId)).first, { timeout: 20_000 }).not.toBeNull();
    const shortId = await ask(short);
    await working;
    expect(await run(longId)).toMatchObject({ state: "waiting", tries: 0, first: expect.objectContaining({ revision: 1 }) });
    // The short one comes first, though it was asked for later.
    await work("one");
    expect([(await run(shortId)).state, (await run(longId)).state]).toEqual(["done", "waiting"]);
    await work("one");
    expect((await run(longId)).result).toMatchObject({ ok: true, value: { revision: 1, status: "proved", after: "proved" } });
    expect([order.length, await plans(long)]).toEqual([1, 1]);
  }, 120_000);
});

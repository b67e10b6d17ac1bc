import { describe, expect, it } from "vitest";
import type { Plan as MadePlan } from "../../core/plan";
import { Plan } from "../../db";
import { plug } from "../../server/bench/plug";
import { type PlanNews, planJob } from "../../server/plan/plan-job";
import { carryOut } from "../../server/unit/action";
import { jobOf, make, testDatabase } from "./setup";

const db = testDatabase();

const JOB = "FS-1041";
const unproved = (p: MadePlan): MadePlan => ({ ...p, status: "not yet proved", provedTo: "fromBag", gap: { level: "lengthCm", by: 30 } });
const withoutOne = (p: MadePlan) => {
  const gone = p.connections.find((c) => c.state === "planned");
  return p.connections.filter((c) => c !== gone);
};
const longer = (p: MadePlan): MadePlan => ({
  ...unproved(p),
  cost: { ...p.cost, lengthCm: p.cost.lengthCm + 40 },
  free: [],
  connections: withoutOne(p),
});
const last = async (n: string) => {
  const em = db.em();
  return em.findOneOrFail(Plan, { job: (await jobOf(em, n)).id }, { orderBy: { revision: "desc" } });
};
const watch = (signal?: AbortSignal) => {
  const heard: PlanNews[] = [];
  return { heard, news: (n: PlanNews) => void heard.push(n), signal };
};

describe("a plan that takes long", () => {
  it("is stored and shown at once, then proved as it stands: one revision, and the log says both", async () => {
    const w = watch();
    let asked = 0;
    const r = await planJob(
      db.em(),
      JOB,
      await db.by(),
      async (build, how) => {
        asked += 1;
        if (asked === 1) expect(how?.deadlineS).toBeLessThan(3.01);
        else {
          const stands = await last(JOB);
          const cm = (stands.cost as { lengthCm: number }).lengthCm;
          expect(stands).toMatchObject({
            status: "not yet proved",
            proof: `Best down to cables from the bag; length in cm: ${cm}, no plan below ${cm - 30}.`,
          });
        }
        const p = await make(build);
        return asked === 1 ? unproved(p) : p;
      },
      w,
    );
    expect(r).toMatchObject({ ok: true, value: { status: "proved", after: "proved" } });
    const plan = await last(JOB);
    expect(plan).toMatchObject({ status: "proved", proof: "" });
    expect(w.heard.map((n) => n.kind)).toContain("first");
    const texts = (await db.view(JOB)).log
      .filter((e) => e.planRevision === plan.revision)
      .map((e) => e.text)
      .reverse();
    expect(texts[0]).toMatch(/not yet proved/);
    expect(texts[1]).toBe(`Plan ${plan.revision} is proved as it stands.`);
  }, 120_000);
  it("is replaced by a better one, which is the next revision", async () => {
    const before = (await last(JOB)).revision;
    let asked = 0;
    const r = await planJob(db.em(), JOB, await db.by(), async (build) => (asked++ === 0 ? longer(await make(build)) : make(build)), watch());
    expect(r).toMatchObject({ ok: true, value: { revision: before + 2, status: "proved", after: "replaced" } });
    expect((await db.view(JOB)).plan).toMatchObject({ revision: before + 2, status: "proved", stale: false });
  }, 120_000);
  it("stays when it is stopped, and when nothing better is found", async () => {
    const stop = new AbortController();
    let asked = 0;
    const r = await planJob(
      db.em(),
      JOB,
      await db.by(),
      async (build) => {
        if (asked++ === 0) return unproved(await make(build));
        stop.abort();
        throw new Error("it was stopped");
      },
      watch(stop.signal),
    );
    expect(r).toMatchObject({ ok: true, value: { status: "not yet proved", after: "stopped" } });
    const again = await planJob(db.em(), JOB, await db.by(), async (build) => unproved(await make(build)), watch());
    expect(again).toMatchObject({ ok: true, value: { status: "not yet proved", after: "left" } });
  }, 120_000);
  it("says so when a plug goes in between the first plan and the better one: the first stays", async () => {
    let asked = 0;
    const by = await db.by();
    const r = await planJob(
      db.em(),
      JOB,
      by,
      async (build) => {
        if (asked++ === 0) return longer(await make(build));
        const l = (await db.view(JOB)).leads.find((x) => x.state === "planned" && x.port && x.loom === "fans");
        const ticked = await carryOut(db.em(), by, plug, { number: JOB, lead: l?.address ?? "", port: l?.port ?? "", state: "plugged" });
        expect(ticked).toMatchObject({ ok: true });
        return make(build);
      },
      watch(),
    );
    expect(r).toMatchObject({ ok: false, sentence: expect.stringContaining("changed while the plan was being made") });
    expect((await last(JOB)).status).toBe("not yet proved");
  }, 120_000);
});

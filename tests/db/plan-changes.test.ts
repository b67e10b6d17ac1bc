import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { planChanges } from "../../server/plan-changes";
import { planJob } from "../../server/plan-job";
import { fix } from "../../server/work";
import { freshDatabase, make } from "./setup";

let db: Awaited<ReturnType<typeof freshDatabase>>;
beforeAll(async () => {
  db = await freshDatabase();
}, 120_000);
afterAll(async () => {
  await db.close();
});

const number = "FS-1041";
const changes = async () => planChanges(db.em(), await db.by(), { number });

describe("before and after", () => {
  it("one plan alone has nothing to be compared with; an unknown job is a sentence", async () => {
    await planJob(db.em(), number, await db.by(), make);
    expect(await changes()).toMatchObject({ ok: false, sentence: "There is no earlier plan to compare with." });
    expect(await planChanges(db.em(), await db.by(), { number: "FS-9999" })).toMatchObject({ ok: false });
  });
  it("planned again without a change, nothing differs", async () => {
    await planJob(db.em(), number, await db.by(), make);
    const r = await changes();
    expect(r).toMatchObject({
      ok: true,
      value: { before: 1, after: 2, rows: { levels: [], moves: [], better: "neither", accessories: { come: [], gone: [] } } },
    });
  });
  it("a fan fixed elsewhere: it moved, from and to by name", async () => {
    const v = await db.view(number);
    const fan = v.leads.find((l) => l.address === "fan-rear:lead");
    expect(fan?.portName).not.toBe("CPU_OPT");
    await fix(db.em(), await db.by(), { number, lead: "fan-rear:lead", port: "board:CPU_OPT", fixed: true });
    await planJob(db.em(), number, await db.by(), make);
    const r = await changes();
    if (!r.ok) throw new Error(r.sentence);
    expect([r.value.before, r.value.after]).toEqual([2, 3]);
    expect(r.value.rows.moves).toContainEqual(expect.objectContaining({ lead: "fan-rear:lead", from: fan?.portName, to: "CPU_OPT" }));
  });
});

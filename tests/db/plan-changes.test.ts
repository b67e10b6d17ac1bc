import { describe, expect, it } from "vitest";
import { type Build, typeLookup } from "../../core/assembly";
import { plan } from "../../core/plan";
import { fix } from "../../server/plan/fix";
import { planChanges } from "../../server/plan/plan-changes";
import { planJob } from "../../server/plan/plan-job";
import type { Asked } from "../../server/plan/plan-thread";
import { setStock } from "../../server/shelf/stock";
import { carryOut } from "../../server/unit/action";
import { make, testDatabase } from "./setup";

const db = testDatabase();

const number = "FS-1041";
const changes = async () => carryOut(db.em(), await db.by(), planChanges, { number });

/** A planner without any memory, as after a restart. */
const restarted = async (build: Build, asked?: Asked) => plan(build, typeLookup(build, []), { stillBest: asked?.stillBest });

describe("a proved plan of which more is fixed", () => {
  it.each(["FS-1044", "FS-1042"])("%s: stays as it is after a restart, whatever plug of it is fixed, accessories' own too", async (job) => {
    await planJob(db.em(), job, await db.by(), restarted);
    const before = (await db.view(job)).build.connections.map((c) => `${c.lead} ${c.port}`).sort();
    const own = new Set((await db.view(job)).build.parts.filter((p) => p.from !== "client").map((p) => p.id));
    const plugs = (await db.view(job)).build.connections.filter((c) => c.state === "planned" && own.has(c.lead.split(":")[0] ?? ""));
    if (job === "FS-1042") expect(plugs.length).toBeGreaterThan(0);
    for (const c of plugs) await carryOut(db.em(), await db.by(), fix, { number: job, lead: c.lead, port: c.port, fixed: true });
    const r = await planJob(db.em(), job, await db.by(), restarted);
    expect(r).toMatchObject({ ok: true, value: { status: "proved", moved: 0 } });
    expect((await db.view(job)).build.connections.map((c) => `${c.lead} ${c.port}`).sort()).toEqual(before);
  });
  it("is planned anew where a part changed or a plug was let go", async () => {
    const asks: (boolean | undefined)[] = [];
    const spy = (build: Build, asked?: Asked) => {
      asks.push(asked?.stillBest);
      return restarted(build, asked);
    };
    const job = "FS-1042";
    await planJob(db.em(), job, await db.by(), spy);
    const fixed = (await db.view(job)).build.connections.find((c) => c.state === "fixed");
    if (!fixed) throw new Error("nothing fixed");
    await carryOut(db.em(), await db.by(), fix, { number: job, lead: fixed.lead, port: fixed.port, fixed: false });
    await planJob(db.em(), job, await db.by(), spy);
    await carryOut(db.em(), await db.by(), setStock, { type: "knotwick-split-3", stock: 29 });
    await planJob(db.em(), job, await db.by(), spy);
    expect(asks).toEqual([true, false, false]);
  });
});

describe("before and after", () => {
  it("one plan alone has nothing to be compared with; an unknown job is a sentence", async () => {
    await planJob(db.em(), number, await db.by(), make);
    expect(await changes()).toMatchObject({ ok: false, sentence: "There is no earlier plan to compare with." });
    expect(await carryOut(db.em(), await db.by(), planChanges, { number: "FS-9999" })).toMatchObject({ ok: false });
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
    await carryOut(db.em(), await db.by(), fix, { number, lead: "fan-rear:lead", port: "board:CPU_OPT", fixed: true });
    await planJob(db.em(), number, await db.by(), make);
    const r = await changes();
    if (!r.ok) throw new Error(r.sentence);
    expect([r.value.before, r.value.after]).toEqual([2, 3]);
    expect(r.value.rows.moves).toContainEqual(expect.objectContaining({ lead: "fan-rear:lead", from: fan?.portName, to: "CPU_OPT" }));
    // A wire that somebody fixed is as long as any other: a proved plan with more held is never the better one.
    const levels = r.value.rows.levels;
    expect(levels.length).toBeGreaterThan(0);
    expect([levels[0]?.way, r.value.rows.better]).toEqual(["worse", levels[0]?.level === "lengthCm" ? "neither" : "before"]);
  });
});

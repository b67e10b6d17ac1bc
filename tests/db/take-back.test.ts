import { describe, expect, it } from "vitest";
import { isDone } from "../../core/assembly";
import { anotherCable } from "../../server/bench/another-cable";
import { plug } from "../../server/bench/plug";
import { takeBack } from "../../server/entries/take-back";
import { letGo, pullStep } from "../../server/order/pull";
import { fix } from "../../server/plan/fix";
import { planJob } from "../../server/plan/plan-job";
import { carryOut } from "../../server/unit/action";
import { jobView } from "../../server/views/job-view";
import { jobOf, make, testDatabase } from "./setup";

const db = testDatabase();
const N = "FS-1041";
const say = async (action: unknown, input: object) => carryOut(db.em(), await db.by(), action as typeof plug, { number: N, ...input } as never);
const view = async () => {
  const v = await jobView(db.em(), N);
  if (!v) throw new Error("no job");
  return v;
};
const where = async (lead: string) => {
  const c = (await view()).build.connections.find((x) => x.lead === lead);
  return c && [c.port, c.state];
};

describe("taking back", () => {
  it("a plug that was moved goes back to where it was, in as it was, not merely out", async () => {
    expect(await planJob(db.em(), N, await db.by(), make)).toMatchObject({ ok: true });
    const v = await view();
    const fans = v.leads.filter((l) => l.loom === "fans" && l.port?.startsWith("board:SYS_FAN"));
    const [lead] = fans;
    const free = v.build.partTypes
      .find((t) => t.id === v.build.parts.find((p) => p.id === "board")?.type)
      ?.ports.find((p) => p.id.startsWith("SYS_FAN") && !v.build.connections.some((c) => c.port === `board:${p.id}`));
    if (!lead?.port || !free) throw new Error("no lead to move");
    await say(plug, { lead: lead.address, port: lead.port, state: "plugged" });
    await say(plug, { lead: lead.address, port: `board:${free.id}`, state: "plugged" });
    expect(await where(lead.address)).toEqual([`board:${free.id}`, "plugged"]);
    expect(await say(takeBack, {})).toMatchObject({ ok: true });
    expect(await where(lead.address)).toEqual([lead.port, "plugged"]);
    await say(plug, { lead: lead.address, port: lead.port, state: "planned" });
  });
  it("a lead that was fixed elsewhere goes back, and whoever lost the place by it has it again", async () => {
    const v = await view();
    const [a, b] = v.leads.filter((l) => l.loom === "fans" && l.port?.startsWith("board:") && l.state === "planned" && !l.port.includes("CPU"));
    if (!a?.port || !b?.port) throw new Error("no two leads");
    expect(await say(fix, { lead: a.address, port: b.port, fixed: true })).toMatchObject({ ok: true });
    expect([await where(a.address), await where(b.address)]).toEqual([[b.port, "fixed"], undefined]);
    expect(await say(takeBack, {})).toMatchObject({ ok: true });
    expect([await where(a.address), await where(b.address)]).toEqual([
      [a.port, "planned"],
      [b.port, "planned"],
    ]);
    expect((await view()).build.connections.filter(isDone)).toEqual([]);
  });
  it("a step that was pulled by hand is where Imbra had it, and what was let go of is pulled again", async () => {
    const { steps } = await view();
    const fans = steps.filter((s) => s.measure === "fan" && !s.done);
    const [first, last] = [fans[0], fans.at(-1)];
    if (!first || !last) throw new Error("no fans");
    expect(await say(pullStep, { steps: [last.id], before: [first.id] })).toMatchObject({ ok: true });
    const pulled = async () => (await jobOf(db.em(), N)).pulled;
    expect(await pulled()).toEqual([{ step: last.id, before: first.id }]);
    await say(letGo, {});
    expect(await pulled()).toEqual([]);
    expect(await say(takeBack, {})).toMatchObject({ ok: true });
    expect(await pulled()).toEqual([{ step: last.id, before: first.id }]);
    expect(await say(takeBack, {})).toMatchObject({ ok: true });
    expect(await pulled()).toEqual([]);
  });
});

describe("what hands say that the plan did not know", () => {
  it("a plug put where another was planned: the two change places, and taking it back gives both theirs again", async () => {
    const v = await view();
    const [a, b] = v.leads.filter((l) => l.loom === "fans" && l.port?.startsWith("board:") && l.state === "planned" && !l.port.includes("CPU"));
    if (!a?.port || !b?.port) throw new Error("no two leads");
    await say(plug, { lead: a.address, port: b.port, state: "plugged" });
    expect([await where(a.address), await where(b.address)]).toEqual([
      [b.port, "plugged"],
      [a.port, "planned"],
    ]);
    expect((await view()).log.map((e) => e.text).join("\n")).toMatch(/it changed places with FN-\d\d/);
    expect(await say(takeBack, {})).toMatchObject({ ok: true });
    expect((await where(b.address))?.[0]).toBe(b.port);
  });
  it("a broken cable: another of the same kind out of the bag, plug for plug; where the bag has none, what to order", async () => {
    const v = await view();
    const string = v.build.connections.find((c) => /^supply\/sata\/1:plug/.test(c.lead));
    if (!string) throw new Error("no string");
    const ends = v.build.connections
      .filter((c) => c.lead.startsWith("supply/sata/1:"))
      .map((c) => c.port)
      .sort();
    expect(await say(anotherCable, { lead: string.lead })).toMatchObject({
      ok: true,
      value: expect.stringMatching(/takes its place: plug it instead/),
    });
    const now = (await view()).build.connections;
    expect(now.some((c) => c.lead.startsWith("supply/sata/1:"))).toBe(false);
    expect(
      now
        .filter((c) => c.lead.startsWith("supply/sata/2:"))
        .map((c) => c.port)
        .sort(),
    ).toEqual(ends);
    const board = now.find((c) => c.lead.startsWith("supply/board/1:plug"));
    expect(await say(anotherCable, { lead: board?.lead ?? "" })).toMatchObject({
      ok: false,
      sentence: expect.stringMatching(/^The bag has no other .*made for/),
    });
  });
});

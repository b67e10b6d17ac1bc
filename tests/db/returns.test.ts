import { describe, expect, it } from "vitest";
import { JobPart, PartReturn } from "../../db";
import { plug } from "../../server/bench/plug";
import { step } from "../../server/bench/step";
import { changePart } from "../../server/parts/change";
import { benchTest } from "../../server/receipt/bench-test";
import { receiptView } from "../../server/receipt/receipt-view";
import { receive } from "../../server/receipt/receive";
import { refuse } from "../../server/receipt/refuse";
import { replacementCame } from "../../server/receipt/replacement";
import { carryOut } from "../../server/unit/action";
import { jobView } from "../../server/views/job-view";
import { jobOf, testDatabase } from "./setup";

const db = testDatabase();
const N = "FS-1041";
const say = async <T>(action: T, input: unknown) =>
  carryOut(db.em(), await db.by(), action as Parameters<typeof carryOut>[2], { number: N, ...(input as object) } as never);
const row = async (part: string) => (await receiptView(db.em(), N))?.rows.find((r) => r.part === part);
const returns = async () => {
  const em = db.em();
  return em.find(PartReturn, { job: (await jobOf(em, N)).id }, { orderBy: { since: "asc" } });
};

describe("what comes and is not as it should be", () => {
  it("damaged goes back: what, why, since when and to whom; it counts as not here until its replacement is", async () => {
    await say(receive, { part: "supply", serial: "SU-1", supplier: "Fernhold" });
    expect(await say(refuse, { part: "supply", why: "damaged", words: "Bent at the corner." })).toMatchObject({ ok: true });
    const [r] = await returns();
    expect(r).toMatchObject({ part: "supply", why: "damaged", serial: "SU-1", toWhom: "Fernhold", words: "Bent at the corner.", closedAt: null });
    expect(await row("supply")).toMatchObject({ arrivedAt: null, serial: null, back: { why: "damaged" } });
    const view = await jobView(db.em(), N);
    expect(view?.away.map((a) => a.part)).toEqual(["supply"]);
    expect(view?.log[0]?.text).toMatch(/came damaged and goes back, serial SU-1\. Bent at the corner\.$/);
    // Nothing is done with it meanwhile, by hand or by plug.
    expect(await say(step, { step: "mount:supply", done: true })).toMatchObject({ ok: false, sentence: expect.stringMatching(/on its way back/) });
    expect(await say(replacementCame, { part: "supply" })).toMatchObject({ ok: true });
    expect((await returns())[0]?.closedAt).not.toBeNull();
    expect(await row("supply")).toMatchObject({ back: null });
    expect(await say(step, { step: "mount:supply", done: true })).toMatchObject({ ok: true });
    expect(await say(step, { step: "mount:supply", done: false })).toMatchObject({ ok: true });
  });
  it("too few in the box is no return: the line is open, and the log says so", async () => {
    const before = (await returns()).length;
    await say(receive, { part: "mem-1", serial: "ME-1" });
    expect(await say(refuse, { part: "mem-1", why: "missing" })).toMatchObject({ ok: true });
    expect([(await returns()).length, (await row("mem-1"))?.arrivedAt]).toEqual([before, null]);
  });
  it("a dead part is a return, and no plug goes onto it", async () => {
    await say(receive, { part: "card", serial: "CA-1" });
    expect(await say(benchTest, { part: "card", result: "dead", waitUntil: "2026-12-09" })).toMatchObject({ ok: true });
    const em = db.em();
    const job = await jobOf(em, N);
    expect(await em.count(PartReturn, { job: job.id, part: "card", why: "dead", closedAt: null })).toBe(1);
    const view = await jobView(em, N);
    const seat = [...(view?.leads ?? [])].find((l) => l.fromPart === "card");
    const socket = view?.build.partTypes
      .find((t) => t.id === view.build.parts.find((p) => p.id === "board")?.type)
      ?.ports.find((p) => p.role === "expansion");
    expect(await say(plug, { lead: seat?.address ?? "card:seat", port: `board:${socket?.id}`, state: "plugged" })).toMatchObject({
      ok: false,
      sentence: expect.stringMatching(/on its way back/),
    });
    // A look or a test goes on with a spare.
    expect(await say(step, { step: "bench-test", done: true })).toMatchObject({ ok: true });
    await say(replacementCame, { part: "card" });
    expect(await em.fork().count(JobPart, { job: job.id, testResult: "dead" })).toBe(0);
  });
  it("another in its place has its own serial from the same press; the old piece goes back with the old one", async () => {
    await say(receive, { part: "mem-2", serial: "ME-OLD" });
    const said = await say(changePart, { part: "mem-2", type: "lathewell-16-5600", serial: "ME-NEW" });
    expect(said).toMatchObject({ ok: true });
    expect(await row("mem-2")).toMatchObject({ type: "lathewell-16-5600", serial: "ME-NEW" });
    expect((await returns()).find((r) => r.part === "mem-2")).toMatchObject({ why: "exchanged", serial: "ME-OLD" });
    // One that somebody else's part has is refused, and nothing is exchanged.
    await say(receive, { part: "mem-1", serial: "ME-ONE" });
    expect(await say(changePart, { part: "mem-2", type: "lathewell-16-6000", serial: "ME-ONE" })).toMatchObject({ ok: false });
    expect(await row("mem-2")).toMatchObject({ type: "lathewell-16-5600", serial: "ME-NEW" });
  });
});

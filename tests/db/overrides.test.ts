import { describe, expect, it } from "vitest";
import { plug } from "../../server/bench/plug";
import { reopen } from "../../server/handover/reopen";
import { SetAsideEntry, setAside } from "../../server/job/set-aside";
import { planJob } from "../../server/plan/plan-job";
import { carryOut } from "../../server/unit/action";
import { make, testDatabase } from "./setup";

const JOB = "FS-1046";
const db = testDatabase();

describe("a finding that is set aside", () => {
  it("takes a name and a reason, weighs as a note from then on, and stays on the record and in the log", async () => {
    const by = await db.by();
    const shut = { number: JOB, finding: "x", reason: "The client knows." };
    expect(await carryOut(db.em(), by, setAside, shut)).toMatchObject({ ok: false, sentence: expect.stringContaining("was handed over") });
    expect(await carryOut(db.em(), by, reopen, { number: JOB, reason: "It came back." })).toMatchObject({ ok: true });
    const f = (await db.view(JOB)).findings.find((x) => x.severity === "warn" && /front USB-C/.test(x.message));
    expect(f?.mayBeSetAside).toBe(true);
    const entry = SetAsideEntry.parse({ number: JOB, finding: f?.id, reason: "  The client knows, and has no such plug.  " });
    expect(await carryOut(db.em(), by, setAside, entry)).toMatchObject({ ok: true });
    const v = await db.view(JOB);
    expect(v.findings.find((x) => x.id === f?.id)).toMatchObject({
      severity: "note",
      setAside: { by: by.name, reason: "The client knows, and has no such plug.", severity: "warn", still: true },
    });
    expect(v.setAside).toHaveLength(1);
    const entries = v.log.filter((e) => e.kind === "set-aside");
    expect(entries.map((e) => e.text)).toEqual([expect.stringMatching(/^Accepted all the same: .*USB-C.* Reason: The client knows/)]);
    expect(await carryOut(db.em(), by, setAside, entry)).toMatchObject({ ok: false, sentence: expect.stringContaining("already") });
  });
  it("needs a real reason, a finding that is there, and a job", async () => {
    const by = await db.by();
    expect(SetAsideEntry.safeParse({ number: JOB, finding: "x", reason: "  ok " }).success).toBe(false);
    expect(SetAsideEntry.safeParse({ number: JOB, finding: "x", reason: "a".repeat(501) }).success).toBe(false);
    expect(await carryOut(db.em(), by, setAside, { number: JOB, finding: "no:such", reason: "because" })).toMatchObject({ ok: false });
    expect(await carryOut(db.em(), by, setAside, { number: "FS-0", finding: "no:such", reason: "because" })).toMatchObject({ ok: false });
  });
  it("never for what destroys parts", async () => {
    const by = await db.by();
    await planJob(db.em(), "FS-1045", by, make);
    const strip = (await db.view("FS-1045")).leads.find((l) => l.address === "strip-top:lead");
    if (strip?.state === "plugged")
      await carryOut(db.em(), by, plug, { number: "FS-1045", lead: strip.address, port: strip.port ?? "", state: "planned" });
    const there = (await db.view("FS-1045")).leads.find((l) => l.port === "board:LED12V_1");
    if (there) await carryOut(db.em(), by, plug, { number: "FS-1045", lead: there.address, port: "board:LED12V_1", state: "planned" });
    expect(await carryOut(db.em(), by, plug, { number: "FS-1045", lead: "strip-top:lead", port: "board:LED12V_1", state: "plugged" })).toMatchObject({
      ok: true,
    });
    const f = (await db.view("FS-1045")).findings.find((x) => x.rule === "light-voltage" && x.severity === "stop");
    expect(f?.mayBeSetAside).toBe(false);
    const r = await carryOut(db.em(), by, setAside, { number: "FS-1045", finding: f?.id ?? "", reason: "It will be fine." });
    expect(r).toMatchObject({ ok: false, sentence: expect.stringContaining("can destroy parts") });
    expect((await db.view("FS-1045")).findings.find((x) => x.id === f?.id)?.severity).toBe("stop");
  }, 60_000);
});

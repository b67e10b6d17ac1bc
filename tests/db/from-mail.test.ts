import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { isProvisional } from "../../core/catalogue";
import { Job, JobPart, ShelfRevision, ShelfType } from "../../db";
import { newJob } from "../../server/job/make";
import { type MailAnswer, readMailHere } from "../../server/job/read-mail";
import { confirmFigure } from "../../server/parts/confirm";
import { carryOut } from "../../server/unit/action";
import { jobView } from "../../server/views/job-view";
import { testDatabase } from "./setup";

const db = testDatabase();
const text = readFileSync("examples/mails/studio.txt", "utf8");
const read = async (t: string, fixes: unknown[] = []) => {
  const r = await carryOut(db.em(), await db.by(), readMailHere, { text: t, fixes } as never);
  if (!r.ok) throw new Error(r.sentence);
  return r.value as MailAnswer;
};
const make = async (t: string, fixes: unknown[] = []) =>
  carryOut(db.em(), await db.by(), newJob, {
    client: "Berit Okonski",
    title: "Sound studio",
    phone: "0171 555 2233",
    dueHour: "15:00",
    mail: { text: t, fixes },
  } as never);

describe("a job out of a mail", () => {
  let number = "";
  it("is read in a thread, line by line, and judged before it is a job; nothing is stored by that", async () => {
    const before = await db.em().count(ShelfType, {});
    const a = await read(text);
    expect([a.parts, a.known, a.budget, a.client.name, a.due?.day.slice(5)]).toEqual([17, 9, 2000, "Berit Okonski", "12-18"]);
    expect(a.findings.length).toBeGreaterThan(0);
    expect(a.lines.find((l) => l.kind === "board")?.made?.assumed).toBeGreaterThan(5);
    expect(await db.em().count(ShelfType, {})).toBe(before);
  });
  it("has its parts, the unknown ones as provisional types of the shelf, and the mail and what was promised with it", async () => {
    const made = await make(text);
    if (!made.ok) throw new Error(made.sentence);
    number = made.value as string;
    const job = await db.em().findOneOrFail(Job, { number });
    const brief = job.brief as {
      mail: string;
      phone: string;
      dueHour: string;
      promises: { about: string; value?: number }[];
      extras: { what: string }[];
    };
    expect([brief.mail, brief.phone, brief.dueHour]).toEqual([text.trim(), "0171 555 2233", "15:00"]);
    expect(brief.promises.map((p) => [p.about, p.value])).toContainEqual(["quiet", 28]);
    expect(brief.extras.map((e) => e.what).sort()).toEqual(["keyboard", "licence", "monitor", "stick"]);
    const view = await jobView(db.em(), number);
    const types = new Map(view?.build.partTypes.map((t) => [t.id, t]));
    expect(view?.build.parts.filter((p) => isProvisional(types.get(p.type) as never)).length).toBe(8);
    expect(view?.build.parts.filter((p) => p.reused).length).toBe(1);
    expect(await db.em().count(ShelfType, { id: { $like: "new-%" } })).toBe(7);
  });
  it("the next mail with the same words knows them", async () => {
    const a = await read("- Motherboard: Stellan Gorge B7 micro ATX wifi\n- CPU: Marrow 9-core 120W");
    expect(a.lines.map((l) => l.known?.id)).toEqual(["new-stellan-gorge-b7-micro-atx-wifi", "new-marrow-9-core-120w"]);
    const again = await make("- Motherboard: Stellan Gorge B7 micro ATX wifi\n- Case: Airbox 7");
    if (!again.ok) throw new Error(again.sentence);
    expect(await db.em().count(ShelfType, { id: { $like: "new-stellan%" } })).toBe(1);
  });
  it("what was corrected counts; the same words of another kind are another type", async () => {
    const a = await read(text);
    const key = a.lines.find((l) => l.kind === "board")?.key;
    const b = await read(text, [{ key, type: "tarnbrook-heron-t40" }]);
    expect(b.lines.find((l) => l.kind === "board")?.known?.name).toBe("Heron T40");
  });
  it("confirmed as it was assumed moves nothing; otherwise parts, shelf and the other job are told", async () => {
    const at = async () => (await db.em().findOneOrFail(Job, { number })).partsRevision;
    const board = (await db.em().find(JobPart, { job: { number }, type: { $like: "new-stellan%" } }))[0];
    if (!board) throw new Error("no board");
    const say = async (figure: string, value: unknown) =>
      carryOut(db.em(), await db.by(), confirmFigure, { number, part: board.key, figure, value } as never);
    const before = await at();
    expect(await say("usbc", true)).toMatchObject({ ok: true, value: { same: true, jobs: [expect.stringMatching(/^FS-/)] } });
    expect(await at()).toBe(before);
    expect(await say("usbc", false)).toMatchObject({ ok: true, value: { same: false } });
    expect(await at()).toBe(before + 1);
    const view = await jobView(db.em(), number);
    const type = view?.build.partTypes.find((t) => t.id === board.type);
    expect([type?.ports.some((p) => p.family === "usbc-20"), type?.figures?.usbc]).toEqual([
      false,
      { value: false, is: "confirmed", by: expect.any(String), at: expect.any(String) },
    ]);
    expect(view?.log[0]?.text).toMatch(/front USB-C header is no; yes was assumed\.$/);
    const shelf = await db.em().findOneOrFail(ShelfType, { id: board.type });
    expect([shelf.revision, await db.em().count(ShelfRevision, { type: board.type })]).toEqual([3, 3]);
  });
  it("what cannot be is a sentence and changes nothing", async () => {
    const board = (await db.em().find(JobPart, { job: { number }, type: { $like: "new-stellan%" } }))[0];
    const say = async (figure: string, value: unknown) =>
      carryOut(db.em(), await db.by(), confirmFigure, { number, part: board?.key, figure, value } as never);
    expect(await say("nothing", 3)).toMatchObject({ ok: false, sentence: expect.stringMatching(/Nothing was changed/) });
    expect(await say("usb2", "many")).toMatchObject({ ok: false, sentence: expect.stringMatching(/is no such value/) });
    expect(await say("usb2", 9000)).toMatchObject({ ok: false, sentence: expect.stringMatching(/cannot be/) });
  });
  it("of equal machines each has a job of its own, with the same parts and types, and the type is made once", async () => {
    const before = await db.em().count(Job);
    const list = "- Case Vantage Airbox 11\n- 2 x Whirrow 120";
    const made = await carryOut(db.em(), await db.by(), newJob, {
      client: "Three Desks",
      title: "Desk",
      machines: 3,
      mail: { text: list, fixes: [] },
    } as never);
    if (!made.ok) throw new Error(made.sentence);
    const jobs = await db.em().find(Job, { client: "Three Desks" }, { orderBy: { number: "asc" } });
    expect(jobs.map((j) => j.title)).toEqual(["Desk (1 of 3)", "Desk (2 of 3)", "Desk (3 of 3)"]);
    expect([made.value, await db.em().count(Job)]).toEqual([jobs[0]?.number, before + 3]);
    const parts = await Promise.all(jobs.map((j) => db.em().find(JobPart, { job: j.id }, { orderBy: { position: "asc" } })));
    expect(parts.map((p) => p.map((x) => x.type))).toEqual(Array.from({ length: 3 }, () => parts[0]?.map((x) => x.type)));
    expect(await db.em().count(ShelfType, { name: { $like: "%Airbox 11%" }, kind: "case" })).toBe(1);
  });
});

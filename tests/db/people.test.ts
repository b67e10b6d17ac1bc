import { randomUUID } from "node:crypto";
import { describe, expect, it } from "vitest";
import { Credential, LogEntry, Person, type PersonRow } from "../../db";
import { plug } from "../../server/bench/plug";
import { takeBack } from "../../server/entries/take-back";
import { reopen } from "../../server/handover/reopen";
import { changeDetails } from "../../server/job/details";
import { scanned } from "../../server/job/find";
import { cancel, goOn, park } from "../../server/job/park";
import { type Actor, may, PERMISSIONS, ROLES } from "../../server/kernel/actor";
import type { Door } from "../../server/kernel/who";
import { addPerson } from "../../server/people/add";
import { countTry, MOST_FROM_ADDRESS, waitAfter } from "../../server/people/attempts";
import { changePerson } from "../../server/people/change";
import { endSession } from "../../server/people/end-session";
import { firstLead } from "../../server/people/first-lead";
import { hashSecret, isSecret, passwordFault, pinFault } from "../../server/people/password";
import { newPassword, ownPassword, ownPin } from "../../server/people/set-password";
import { signIn } from "../../server/people/sign-in";
import { takeOver } from "../../server/people/take-over";
import { people } from "../../server/people/views";
import { wantsFirstLead } from "../../server/people/wants-first-lead";
import { planJob } from "../../server/plan/plan-job";
import { setStock } from "../../server/shelf/stock";
import { carryOut } from "../../server/unit/action";
import { demoPerson } from "../fixtures/demo-people";
import { jobOf, make, testDatabase } from "./setup";

const db = testDatabase();
const person = async (name: string) => (await db.em().findOneOrFail(Person, { name })) as PersonRow;
const as = async (name: string, more: Partial<Actor> = {}): Promise<Actor> => {
  const p = await person(name);
  return { id: p.id, name: p.name, role: p.role, ...more };
};
const lead = () => as("Runa Thistlewood");
const sentence = (r: { ok: boolean; sentence?: string }) => (r.ok ? "ok" : r.sentence);

/** A device without a browser: what the door would give and take. */
const doorAt = (address = "10.1.1.1"): Door & { hash: string } => {
  const d = {
    address,
    label: "a test",
    device: randomUUID(),
    seat: undefined as Door["seat"],
    hash: "",
    give: async () => {
      d.hash = randomUUID().replaceAll("-", "");
      return { tokenHash: d.hash };
    },
    take: async () => {},
  };
  return d;
};
const sessionsOf = async (name: string) =>
  (
    await db
      .em()
      .execute<{ n: number }[]>(
        `select count(*)::int as n from "session" s join "person" p on p."id" = s."person_id" where p."name" = ? and s."ended_at" is null`,
        [name],
      )
  )[0]?.n;

describe("what each role may", () => {
  it("a reader looks, a technician works, a lead does everything; nobody does nothing; a PIN is not enough for people", () => {
    const who = (role: string, byPin = false): Actor => ({ id: "x", name: "x", role, byPin });
    expect(PERMISSIONS.filter((p) => may(who("reader"), p))).toEqual(["look"]);
    expect(PERMISSIONS.filter((p) => !may(who("technician"), p))).toEqual(["end jobs", "keep the shop", "keep people"]);
    expect(PERMISSIONS.filter((p) => !may(who("lead"), p))).toEqual([]);
    expect(PERMISSIONS.filter((p) => !may(who("lead", true), p))).toEqual(["end jobs", "keep the shop", "keep people"]);
    for (const p of PERMISSIONS)
      expect([p, may(undefined, p), may(who("somebody"), p), may(who("constructor"), p)]).toEqual([p, false, false, false]);
    expect(Object.keys(ROLES)).toEqual(["reader", "technician", "lead"]);
  });
});

describe("passwords and PINs", () => {
  it("are kept as Argon2id with the parameters of the OWASP Password Storage Cheat Sheet, and known again", async () => {
    const kept = await hashSecret("slow tide under glass");
    expect(kept).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    expect(await isSecret(kept, "slow tide under glass")).toBe(true);
    for (const [hash, word] of [
      [kept, "slow tide under glas"],
      [null, "anything"],
      [undefined, "nobody has this one"],
      ["not a hash", "x"],
    ] as const)
      expect([hash, await isSecret(hash, word)]).toEqual([hash, false]);
  });
  it("that anybody would try first are refused with what to do", () => {
    for (const p of ["short", "password123", "aaaaaaaaaaaa", "My name is Ebo Larkmoor"])
      expect([p, passwordFault(p, "Ebo Larkmoor")]).toEqual([p, expect.any(String)]);
    expect(passwordFault("seven cords and a lamp", "Ebo Larkmoor")).toBeUndefined();
    for (const p of ["123", "1234", "9999", "8765", "12a4", "123456789"]) expect([p, pinFault(p)]).toEqual([p, expect.any(String)]);
    for (const p of ["2741", "80305"]) expect([p, pinFault(p)]).toEqual([p, undefined]);
  });
});

describe("signing in", () => {
  it("takes name and password together, and says no more than that they do not belong together", async () => {
    const door = doorAt();
    expect(await signIn.run(db.em(), { name: "Ebo Larkmoor", password: demoPerson("Ebo Larkmoor").password }, door)).toMatchObject({ ok: true });
    const wrong = await signIn.run(db.em(), { name: "Ebo Larkmoor", password: "seven cords and a lamb" }, doorAt());
    const nobody = await signIn.run(db.em(), { name: "Nobody Known", password: "seven cords and a lamb" }, doorAt());
    expect([sentence(wrong), sentence(nobody)]).toEqual([sentence(wrong), sentence(wrong)]);
    expect(await sessionsOf("Ebo Larkmoor")).toBe(1);
    // The same device signs in again: the sign-in before ends.
    await signIn.run(db.em(), { name: "Ebo Larkmoor", password: demoPerson("Ebo Larkmoor").password }, door);
    expect(await sessionsOf("Ebo Larkmoor")).toBe(1);
  });
  it("is slowed after five wrong tries, also asked all at once, and a lead's new password opens it again", async () => {
    const hers = doorAt("10.2.2.2");
    await signIn.run(db.em(), { name: "Tansy Okoru", password: demoPerson("Tansy Okoru").password }, hers);
    const tries = await Promise.all(
      Array.from({ length: 8 }, () => signIn.run(db.em(), { name: "Tansy Okoru", password: "wrong words here" }, doorAt("10.2.2.2"))),
    );
    expect(tries.map((t) => (sentence(t) ?? "").slice(0, 24)).sort()).toEqual([
      ...Array.from({ length: 5 }, () => "Name and password do not"),
      ...Array.from({ length: 3 }, () => "Too many wrong tries und"),
    ]);
    const right = { name: "Tansy Okoru", password: demoPerson("Tansy Okoru").password };
    expect(sentence(await signIn.run(db.em(), right, doorAt("10.2.2.2")))).toMatch(/^Too many wrong tries under this name\. Wait 1 minute,/);
    // At a device of hers she still may, from the same address too: strangers lock nobody out there.
    expect(await signIn.run(db.em(), right, hers)).toMatchObject({ ok: true });
    // Leads are told, without a secret.
    const list = await carryOut(db.em(), await lead(), people, {});
    expect(list.ok && list.value.wrongTries.map((t) => t.text)).toEqual(["5 wrong passwords in a row for Tansy Okoru, the last at a test."]);
    const tansy = await person("Tansy Okoru");
    expect(await carryOut(db.em(), await lead(), newPassword, { person: tansy.id, password: "another engine at dawn" })).toMatchObject({ ok: true });
    expect(await sessionsOf("Tansy Okoru")).toBe(0);
    expect(await signIn.run(db.em(), { name: "Tansy Okoru", password: "another engine at dawn" }, doorAt("10.2.2.2"))).toMatchObject({ ok: true });
  });
  it("waits longer and longer, up to a quarter of an hour, and is over in an hour", async () => {
    expect([1, 4, 5, 6, 7, 8, 9, 30].map((n) => waitAfter(n))).toEqual([0, 0, 60, 120, 240, 480, 900, 900]);
    for (let n = 1; n <= 6; n++) {
      await db.em().execute(`update "wrong_try" set "until" = now() where "key" = 'name:somebody'`);
      expect([n, (await countTry(db.em(), "name", "Somebody")).wait]).toEqual([n, 0]);
    }
    expect((await countTry(db.em(), "name", "SOMEBODY")).wait).toBe(2);
    await db.em().execute(`update "wrong_try" set "since" = now() - interval '61 minutes' where "key" = 'name:somebody'`);
    expect(await countTry(db.em(), "name", "somebody")).toMatchObject({ wait: 0, count: 1 });
  });
  it("from one address so many of strange devices are looked at, and a device of one's own all the same", async () => {
    const hers = doorAt("10.8.8.8");
    const right = { name: "Mirel Quist", password: demoPerson("Mirel Quist").password };
    expect(await signIn.run(db.em(), right, hers)).toMatchObject({ ok: true });
    const said = await Promise.all(
      Array.from({ length: MOST_FROM_ADDRESS + 5 }, (_, n) =>
        signIn.run(db.em(), { name: `nobody ${n}`, password: "some words here" }, doorAt("10.8.8.8")),
      ),
    );
    expect(said.filter((r) => /Too many wrong tries from this address/.test(sentence(r) ?? "")).length).toBe(6);
    expect(sentence(await signIn.run(db.em(), right, doorAt("10.8.8.8")))).toMatch(/from this address/);
    expect(await signIn.run(db.em(), right, hers)).toMatchObject({ ok: true });
  });
  it("works out two hashes at a time, holds no connection meanwhile, and sends away what is too much", async () => {
    const odo = await as("Odo Fennimark");
    const before = await db.em().execute(`select count(*)::int as n from "wrong_try" where "key" like 'own:%'`);
    const many = await Promise.all(
      Array.from({ length: 30 }, () => carryOut(db.em(), odo, ownPassword, { before: "wrong words", password: "rain on the long roof" })),
    );
    // Five are judged, all others are not even worked out, though they came at once.
    expect(many.filter((r) => /not your password/.test(sentence(r) ?? "")).length).toBe(5);
    expect(many.filter((r) => /Too many wrong passwords/.test(sentence(r) ?? "")).length).toBe(25);
    expect(before).toEqual([{ n: 0 }]);
    const [, ...late] = await Promise.all(Array.from({ length: 60 }, () => isSecret(null, "at once")));
    expect(late.filter((r) => r === "busy").length).toBeGreaterThan(0);
  });
});

describe("a change of person at a bench", () => {
  it("takes a PIN where somebody has signed in, five wrong ones at most, then the password", async () => {
    const door = doorAt();
    expect(await takeOver.run(db.em(), { person: (await person("Mirel Quist")).id, secret: "4196", by: "pin" }, door)).toMatchObject({
      ok: false,
      later: "who",
    });
    await signIn.run(db.em(), { name: "Ebo Larkmoor", password: demoPerson("Ebo Larkmoor").password }, door);
    const [row] = await db.em().execute<{ id: string }[]>(`select "id" from "session" where "token_hash" = ?`, [door.hash]);
    door.seat = { session: row?.id ?? "", device: door.device, actor: await as("Ebo Larkmoor"), actedAt: new Date(), lockMinutes: 15, stamp: "" };
    const mirel = await person("Mirel Quist");
    expect(await takeOver.run(db.em(), { person: mirel.id, secret: "4196", by: "pin" }, door)).toMatchObject({
      ok: true,
      value: { name: "Mirel Quist" },
    });
    const now = await db
      .em()
      .execute(`select p."name", s."by_pin" from "session" s join "person" p on p."id" = s."person_id" where s."id" = ?`, [row?.id]);
    expect(now).toEqual([{ name: "Mirel Quist", by_pin: true }]);
    const wrong = () => takeOver.run(db.em(), { person: mirel.id, secret: "0000", by: "pin" }, door);
    const waited = () => db.em().execute(`update "wrong_try" set "until" = now() where "key" like 'pin:%'`);
    for (let i = 0; i < 5; i++) expect(sentence(await wrong())).toMatch(/not Mirel Quist's PIN/);
    expect(sentence(await takeOver.run(db.em(), { person: mirel.id, secret: "4196", by: "pin" }, door))).toMatch(
      /Too many wrong PINs .* Wait 1 minute/,
    );
    // Her right PIN at another device forgives nothing here.
    const other = doorAt();
    await signIn.run(db.em(), { name: "Runa Thistlewood", password: demoPerson("Runa Thistlewood").password }, other);
    const [there] = await db.em().execute<{ id: string }[]>(`select "id" from "session" where "token_hash" = ?`, [other.hash]);
    other.seat = {
      session: there?.id ?? "",
      device: other.device,
      actor: await as("Runa Thistlewood"),
      actedAt: new Date(),
      lockMinutes: 15,
      stamp: "",
    };
    expect(await takeOver.run(db.em(), { person: mirel.id, secret: "4196", by: "pin" }, other)).toMatchObject({ ok: true });
    expect(sentence(await takeOver.run(db.em(), { person: mirel.id, secret: "4196", by: "pin" }, door))).toMatch(/Too many wrong PINs/);
    // After ten in a row no wait helps any more.
    for (let i = 0; i < 5; i++) {
      await waited();
      await wrong();
    }
    await waited();
    expect(sentence(await takeOver.run(db.em(), { person: mirel.id, secret: "4196", by: "pin" }, door))).toMatch(
      /Only the password opens this bench now/,
    );
    const before = door.hash;
    expect(await takeOver.run(db.em(), { person: mirel.id, secret: demoPerson("Mirel Quist").password, by: "password" }, door)).toMatchObject({
      ok: true,
    });
    // With the password comes a new token; the one before is nobody's.
    expect(door.hash).not.toBe(before);
    expect(await db.em().execute(`select "token_hash" from "session" where "id" = ?`, [row?.id])).toEqual([{ token_hash: door.hash }]);
    // A reader does not work at benches.
    expect(await takeOver.run(db.em(), { person: (await person("Odo Fennimark")).id, secret: "x", by: "password" }, door)).toMatchObject({
      ok: false,
    });
  });
});

describe("keeping people", () => {
  it("adds, changes and lets go; names tell people apart; what was changed is told, and no secret with it", async () => {
    const by = await lead();
    expect(await carryOut(db.em(), by, addPerson, { name: "Hale Brindlow", role: "technician", password: "rain on the long roof" })).toMatchObject({
      ok: true,
    });
    expect(sentence(await carryOut(db.em(), by, addPerson, { name: "hale brindlow", role: "reader", password: "rain on the long roof" }))).toMatch(
      /in the list already/,
    );
    const hale = await person("Hale Brindlow");
    expect(
      await carryOut(db.em(), { id: hale.id, name: hale.name, role: hale.role }, ownPin, { password: "rain on the long roof", pin: "5093" }),
    ).toMatchObject({ ok: true });
    expect(
      sentence(
        await carryOut(db.em(), { id: hale.id, name: hale.name, role: hale.role }, ownPassword, { before: "wrong", password: "a better one still" }),
      ),
    ).toMatch(/not your password/);
    // Guessed at a screen left open, it is slowed like anywhere.
    const guess = () => carryOut(db.em(), { id: hale.id, name: hale.name, role: hale.role }, ownPin, { password: "a wrong guess", pin: "5093" });
    for (let n = 0; n < 4; n++) await guess();
    expect(sentence(await guess())).toMatch(/Too many wrong passwords\. Nothing was changed\. Wait 1 minute\./);
    expect(await carryOut(db.em(), by, changePerson, { person: hale.id, active: false, saw: { role: "technician", active: true } })).toMatchObject({
      ok: true,
    });
    expect(sentence(await signIn.run(db.em(), { name: "Hale Brindlow", password: "rain on the long roof" }, doorAt()))).toMatch(
      /do not belong together/,
    );
    const log = await db.em().execute<{ data: unknown; kind: string }[]>(`select "kind", "data" from "shop_log"`);
    expect(log.map((e) => e.kind)).toEqual(expect.arrayContaining(["person-added", "pin-set", "left"]));
    expect(JSON.stringify(log)).not.toMatch(/rain on the long roof|5093|argon2/);
    await expect(db.em().execute(`update shop_log set kind = 'x'`)).rejects.toThrow(/append-only/);
  });
  it("two leads who change each other: one is first, and the other is told; a lead is always left", async () => {
    const runa = await lead();
    await carryOut(db.em(), runa, changePerson, {
      person: (await person("Ebo Larkmoor")).id,
      role: "lead",
      saw: { role: "technician", active: true },
    });
    const ebo = await as("Ebo Larkmoor");
    const saw = { role: "lead", active: true };
    const both = await Promise.all([
      carryOut(db.em(), runa, changePerson, { person: ebo.id, role: "reader", saw }),
      carryOut(db.em(), ebo, changePerson, { person: runa.id, role: "reader", saw }),
    ]);
    expect(both.filter((r) => r.ok).length).toBe(1);
    expect(both.map(sentence).find((s) => s !== "ok")).toMatch(/You are no longer a lead|changed that meanwhile/);
    const leads = (await db.em().find(Person, { role: "lead", active: true })) as PersonRow[];
    expect(leads.length).toBe(1);
    const last = leads[0] as PersonRow;
    const own = { id: last.id, name: last.name, role: "lead" };
    expect(sentence(await carryOut(db.em(), own, changePerson, { person: last.id, role: "reader", saw }))).toMatch(/the last lead/);
    expect(sentence(await carryOut(db.em(), own, changePerson, { person: last.id, active: false, saw }))).toMatch(/the last lead/);
    // As it was for the tests behind.
    const em = db.em();
    await em.nativeUpdate(Person, { name: "Runa Thistlewood" }, { role: "lead" });
    await em.nativeUpdate(Person, { name: "Ebo Larkmoor" }, { role: "technician" });
  });
  it("one ends one's own sign-ins; somebody else's only who keeps people", async () => {
    const door = doorAt();
    await signIn.run(db.em(), { name: "Mirel Quist", password: demoPerson("Mirel Quist").password }, door);
    const [row] = await db.em().execute<{ id: string }[]>(`select "id" from "session" where "token_hash" = ?`, [door.hash]);
    expect(sentence(await carryOut(db.em(), await as("Ebo Larkmoor"), endSession, { session: row?.id }))).toMatch(/no such sign-in/);
    expect(await carryOut(db.em(), await lead(), endSession, { session: row?.id })).toMatchObject({ ok: true });
    expect(sentence(await carryOut(db.em(), await as("Mirel Quist"), endSession, { session: row?.id }))).toMatch(/no such sign-in/);
  });
  it("a shop without a lead who can sign in takes its first by the code that the server printed, once", async () => {
    const em = db.em();
    expect(await wantsFirstLead(em)).toBe(false);
    const input = { code: "1234-5678", name: "First Of All", password: "a mast and two anchors" };
    process.env.IMBRA_SETUP_CODE = "1234-5678";
    expect(sentence(await firstLead.run(db.em(), input, doorAt()))).toMatch(/has a lead already/);
    await em.nativeUpdate(Credential, { passwordHash: { $ne: null } }, { passwordHash: null });
    expect(await wantsFirstLead(db.em())).toBe(true);
    expect(sentence(await firstLead.run(db.em(), { ...input, code: "0000-0000" }, doorAt("10.9.9.9")))).toMatch(/not the code/);
    const two = await Promise.all([firstLead.run(db.em(), input, doorAt()), firstLead.run(db.em(), { ...input, name: "Second" }, doorAt())]);
    expect(two.filter((r) => r.ok).length).toBe(1);
    expect(await wantsFirstLead(db.em())).toBe(false);
  });
});

describe("a job's details", () => {
  const change = async (input: object, by?: Actor) =>
    carryOut(db.em(), by ?? (await as("Mirel Quist")), changeDetails, { number: "FS-1043", ...input });
  it("are changed, told, and not written over somebody else's", async () => {
    expect(await change({ client: "Dome Trust", bench: 2, saw: { client: "Meridian Dome", bench: null } })).toMatchObject({ ok: false });
    const was = await jobOf(db.em(), "FS-1043");
    expect(await change({ client: "Dome Trust", bench: 2, saw: { client: was.client, bench: was.bench ?? null } })).toMatchObject({ ok: true });
    expect((await db.view("FS-1043")).log[0]?.text).toMatch(/^Changed: client Dome Trust, was .*; bench 2, was none\.$/);
    expect(sentence(await change({ technician: (await person("Odo Fennimark")).id }))).toMatch(/does not build machines/);
    expect(sentence(await change({ bench: 2 }, await as("Odo Fennimark")))).toMatch(/is a reader and may not do this/);
  });
  it("parked it waits and goes on where it stood; cancelled it is closed, takes nothing from the shelf, and can be opened again", async () => {
    const by = await as("Mirel Quist");
    const stage = async () => (await jobOf(db.em(), "FS-1042")).stage;
    const before = await stage();
    expect(await carryOut(db.em(), by, park, { number: "FS-1042", for: "a longer riser", until: "2026-12-01" })).toMatchObject({ ok: true });
    expect([await stage(), (await db.view("FS-1042")).head.waitingFor]).toEqual(["waiting", "a longer riser"]);
    expect(sentence(await carryOut(db.em(), by, park, { number: "FS-1042", for: "more" }))).toMatch(/waits already/);
    await carryOut(db.em(), by, goOn, { number: "FS-1042" });
    expect(await stage()).toBe(before);
    expect(sentence(await carryOut(db.em(), by, cancel, { number: "FS-1042", reason: "the client withdrew" }))).toMatch(/may not do this/);
    expect(
      sentence(await carryOut(db.em(), { ...(await lead()), byPin: true }, cancel, { number: "FS-1042", reason: "the client withdrew" })),
    ).toMatch(/A PIN is not enough/);
    const free = async () => (await db.view("FS-1041")).build.accessories.find((a) => a.type === "knotwick-split-2")?.count;
    await db
      .em()
      .execute(
        `update "job_part" set "origin" = 'shelf', "type" = 'knotwick-split-2' where "key" = 'fan-1' and "job_id" = (select "id" from "job" where "number" = 'FS-1042')`,
      );
    const held = (await free()) ?? 0;
    expect(await carryOut(db.em(), await lead(), cancel, { number: "FS-1042", reason: "the client withdrew" })).toMatchObject({ ok: true });
    expect(await free()).toBe(held + 1);
    expect((await db.benches()).some((j) => j.number === "FS-1042" && j.stage !== "cancelled")).toBe(false);
    expect(sentence(await carryOut(db.em(), by, park, { number: "FS-1042", for: "x" }))).toMatch(/was cancelled/);
    expect(await carryOut(db.em(), by, reopen, { number: "FS-1042", reason: "they came back" })).toMatchObject({ ok: true });
    expect(await stage()).toBe("planning");
  });
});

describe("taking back the last entry of one's own", () => {
  it("undoes it by a new entry, one after the other, never somebody else's, and says what no key takes back", async () => {
    const by = await as("Mirel Quist");
    await planJob(db.em(), "FS-1041", by as never, make);
    const view = await db.view("FS-1041");
    const [a, b] = view.leads.filter((l) => l.port && l.loom === "fans");
    for (const l of [a, b])
      expect(await carryOut(db.em(), by, plug, { number: "FS-1041", lead: l?.address, port: l?.port, state: "plugged" })).toMatchObject({ ok: true });
    const state = async (lead?: string) => (await db.view("FS-1041")).leads.find((l) => l.address === lead)?.state;
    const other = await as("Tansy Okoru");
    expect(sentence(await carryOut(db.em(), other, takeBack, { number: "FS-1041" }))).toMatch(/nothing to this job that can be taken back/);
    expect(await carryOut(db.em(), by, takeBack, { number: "FS-1041" })).toMatchObject({ ok: true, value: expect.stringContaining("Taken back:") });
    expect([await state(a?.address), await state(b?.address)]).toEqual(["plugged", "planned"]);
    expect(await carryOut(db.em(), by, takeBack, { number: "FS-1041" })).toMatchObject({ ok: true });
    expect([await state(a?.address), await state(b?.address)]).toEqual(["planned", "planned"]);
    // Before that he planned, which no key takes back.
    expect(sentence(await carryOut(db.em(), by, takeBack, { number: "FS-1041" }))).toMatch(/on its own screen, not by a key/);
    expect((await db.em().find(LogEntry, { job: (await jobOf(db.em(), "FS-1041")).id, kind: "plug" })).length).toBe(4);
    // Checked goes back to plugged; and what somebody else has said of it since is not written over.
    for (const state of ["plugged", "checked"]) await carryOut(db.em(), by, plug, { number: "FS-1041", lead: a?.address, port: a?.port, state });
    await carryOut(db.em(), by, takeBack, { number: "FS-1041" });
    expect(await state(a?.address)).toBe("plugged");
    await carryOut(db.em(), other, plug, { number: "FS-1041", lead: a?.address, port: a?.port, state: "planned" });
    expect(sentence(await carryOut(db.em(), by, takeBack, { number: "FS-1041" }))).toMatch(/^Tansy Okoru has said something of it since/);
    expect(await state(a?.address)).toBe("planned");
  });
});

describe("a scan", () => {
  it("opens the job, the part by its serial or the part type that it stands for; one that was sent back says where it was", async () => {
    const by = await as("Odo Fennimark");
    const to = async (code: string) => carryOut(db.em(), by, scanned, { code });
    // Labels: a lead, the bag, the machine, with the shop's address and without; what is no label is looked up as it is.
    const of = async (code: string) => {
      const r = await to(code);
      return r.ok ? r.value.href : r.sentence;
    };
    expect(await of("FS-1045 FN-02")).toMatch(/^\/job\/FS-1045\/wiring#lead=/);
    expect(await of("https://imbra.example/job/FS-1045?scan=FN-02")).toBe(await of("FS-1045 FN-02"));
    expect([await of("FS-1045 bag"), await of("https://imbra.example/x/job/FS-1045"), await of("FS-1045 ZZ-99"), await of("FS-0001 FN-02")]).toEqual([
      "/job/FS-1045/handover",
      "/job/FS-1045",
      "/job/FS-1045",
      undefined,
    ]);
    expect(await to("fs-1044")).toMatchObject({ value: { href: "/job/FS-1044" } });
    expect(await to("KNOTWICK-SPLIT-2")).toMatchObject({ value: { href: "/shelf/knotwick-split-2" } });
    const [part] = await db
      .em()
      .execute<{ serial: string; key: string; number: string }[]>(
        `select p."serial", p."key", j."number" from "job_part" p join "job" j on j."id" = p."job_id" where p."serial" is not null limit 1`,
      );
    expect(await to(part?.serial ?? "")).toMatchObject({ value: { href: `/job/${part?.number}/parts?part=${part?.key}` } });
    expect(await to("100%_none")).toMatchObject({ ok: true, value: {} });
    await db
      .em()
      .execute(
        `insert into log_entry (job_id, by_id, kind, data) select j.id, p.id, 'received', '{"part":"supply","name":"Old supply","serial":"GONE-77"}' from job j, person p where j.number = 'FS-1048' and p.name = 'Mirel Quist'`,
      );
    expect(await to("gone-77")).toMatchObject({ value: { href: "/job/FS-1048/parts", words: expect.stringContaining("not built in any more") } });
    expect((await db.em().count(Person, {})) > 0).toBe(true);
    expect(await carryOut(db.em(), by, setStock, { type: "knotwick-split-2", stock: 3 })).toMatchObject({ ok: false });
  });
});

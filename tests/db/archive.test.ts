import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { opened, packed } from "../../archive";
import { Person, type PersonRow } from "../../db";
import { archiveOf } from "../../server/archive/make";
import { takeIn } from "../../server/archive/take-in";
import { observe } from "../../server/first-boot/observe";
import { jobFromFile } from "../../server/job/from-file";
import { planJob } from "../../server/plan/plan-job";
import { carryOut } from "../../server/unit/action";
import { jobOf, make, testDatabase } from "./setup";

const db = testDatabase();
const lead = async () => (await db.em().findOneOrFail(Person, { role: "lead", active: true })) as PersonRow;
const take = async (bytes: Buffer) => carryOut(db.em(), await lead(), takeIn, { bytes });
const made = async (number: string) => {
  const bytes = await archiveOf(db.em(), number);
  if (!bytes) throw new Error(`no archive of ${number}`);
  return bytes;
};
const recordIn = async (bytes: Buffer) => {
  const read = await opened(bytes);
  if (!read.ok) throw new Error(read.sentence);
  return { files: read.files, record: JSON.parse(read.files.get("record.json")?.toString() ?? "{}") as Record<string, unknown> };
};
/** Removes all of a job, as a database that was emptied would have. */
const emptied = async (number: string) => {
  const id = (await jobOf(db.em(), number)).id;
  const em = db.em();
  const tables = await em.execute<{ t: string }[]>(
    `select distinct c."table_name" as t from information_schema.columns c where c."column_name" = 'job_id' and c."table_schema" = 'public'`,
  );
  for (const { t } of tables) {
    // The log lets nobody remove a row, but for who owns the tables.
    await em.execute(`alter table "${t}" disable trigger user`);
    await em.execute(`delete from "${t}" where "job_id" = ?`, [id]);
    await em.execute(`alter table "${t}" enable trigger user`);
  }
  await em.execute(`delete from "job" where "id" = ?`, [id]);
};

describe("an archive of a job", () => {
  it("out and in is the same: parts, plugs, log, faults, plans, whoever did it; and every screen shows it as it was", async () => {
    for (const number of ["FS-1045", "FS-1047"]) {
      const before = await db.view(number);
      const file = await made(number);
      expect(await take(file)).toMatchObject({ ok: false, sentence: expect.stringContaining(`${number} is here already`) });
      await emptied(number);
      expect(await take(file)).toMatchObject({ ok: true, value: number });
      const after = await db.view(number);
      const counted = (v: typeof before) => ({ ...v, head: { ...v.head, bench: null }, log: v.log.map(({ id: _, ...e }) => e) });
      expect(counted(after)).toEqual(counted(before));
      const [one, two] = [await recordIn(file), await recordIn(await made(number))];
      const plain = (r: Record<string, unknown>) => JSON.stringify(r, (k, v) => (k === "id" && typeof v === "number" ? 0 : k === "bench" ? null : v));
      expect(plain(two.record)).toBe(plain(one.record));
    }
  });
  it("is of the whole job: build, log as lines, drawings, papers; nothing that is sealed", async () => {
    const { files } = await recordIn(await made("FS-1045"));
    expect([...files.keys()].filter((f) => !f.startsWith("photos/")).sort()).toEqual(
      [
        "behind.svg",
        "build.json",
        "front.svg",
        "index.html",
        "leads.csv",
        "log.jsonl",
        "manifest.json",
        "papers/client.pdf",
        "papers/delivery.pdf",
        "papers/shop.pdf",
        "papers/technician.pdf",
        "record.json",
      ].sort(),
    );
    const log = files.get("log.jsonl")?.toString().trim().split("\n") ?? [];
    expect(log.length).toBeGreaterThan(10);
    for (const l of log) expect(JSON.parse(l)).toMatchObject({ at: expect.any(String), by: expect.any(String), words: expect.any(String) });
    const all = [...files.values()].map((f) => f.toString("latin1")).join();
    expect(/token_hash|password_hash|pin_hash|"sealed"/.test(all)).toBe(false);
  });
  it("somebody who is not here comes in as a name that signs in nowhere; what was changed, or cannot be shown, is not taken in", async () => {
    const number = "FS-1046";
    const file = await made(number);
    const { files, record } = await recordIn(file);
    const about = { number, title: "x", client: "x", made: "2026-12-02T00:00:00.000Z" };
    const with_ = (change: (r: Record<string, unknown>) => unknown) =>
      packed(
        about,
        [...files]
          .filter(([n]) => n !== "manifest.json" && n !== "index.html")
          .map(([name, bytes]) => ({ name, bytes: name === "record.json" ? Buffer.from(JSON.stringify(change(record))) : bytes })),
      );
    await emptied(number);
    expect(await take(Buffer.from(file.toString("latin1").replaceAll("log.jsonl", "lag.jsonl"), "latin1"))).toMatchObject({ ok: false });
    expect(await take(await with_((r) => ({ ...r, version: 7 })))).toMatchObject({ ok: false, sentence: expect.stringContaining("not understood") });
    expect(await take(await with_((r) => ({ ...r, tables: { session: [{}] } })))).toMatchObject({ ok: false });
    const job = record.job as Record<string, unknown>;
    expect(await take(await with_((r) => ({ ...r, job: { ...job, stage: "in space" } })))).toMatchObject({ ok: false });
    expect(await take(await with_((r) => ({ ...r, job: { ...job, policy: 7, settings: [] } })))).toMatchObject({ ok: false });
    expect(await db.em().execute(`select 1 from job where number = ?`, [number])).toEqual([]);
    const old = JSON.parse(JSON.stringify(record).replaceAll("Mirel Quist", "Ansel Brook")) as typeof record;
    const people = (old.people as { id: string; name: string }[]).map((p) =>
      p.name === "Ansel Brook" ? { ...p, id: "11111111-1111-4111-8111-111111111111" } : p,
    );
    const was = (record.people as { id: string; name: string }[]).find((p) => p.name === "Mirel Quist")?.id ?? "none";
    const moved = JSON.parse(JSON.stringify({ ...old, people }).replaceAll(was, "11111111-1111-4111-8111-111111111111")) as typeof record;
    expect(await take(await with_(() => moved))).toMatchObject({ ok: true });
    const there = await db.em().find(Person, { name: "Ansel Brook" });
    expect(there.map((p) => [p.role, p.active])).toEqual(was === "none" ? [] : [["reader", false]]);
    expect(await db.em().execute(`select 1 from credential c join person p on p.id = c.person_id where p.name = 'Ansel Brook'`)).toEqual([]);
  });
  it("of a build alone, from the command line, says where it is read in; a technician takes nothing in", async () => {
    const bare = await packed({ number: "X-1", title: "x", client: "x", made: "2026-12-02T00:00:00.000Z" }, [
      { name: "build.json", bytes: readFileSync("examples/fs-1042.json") },
    ]);
    const said = await take(bare);
    expect(said.ok).toBe(false);
    expect(await carryOut(db.em(), await db.by(), takeIn, { bytes: bare })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("may not do this"),
    });
  });
  it("whatever was planned and seen since is in it", async () => {
    const by = await db.by();
    const stored = await carryOut(db.em(), by, jobFromFile, { text: readFileSync("examples/fs-1042.json", "utf8") });
    if (!stored.ok) throw new Error(stored.sentence);
    const number = stored.value;
    await planJob(db.em(), number, by, make);
    await carryOut(db.em(), by, observe, { number, lines: [{ line: "standby", value: "lit" }] });
    const before = await db.view(number);
    const file = await made(number);
    await emptied(number);
    expect(await take(file)).toMatchObject({ ok: true });
    const after = await db.view(number);
    expect([after.plan, after.seen, after.leads]).toEqual([before.plan, before.seen, before.leads]);
  });
});

import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { afterAll, describe, expect, it } from "vitest";
import { note } from "../../server/bench/note";
import { carryOut } from "../../server/unit/action";
import { testDatabase } from "./setup";

const db = testDatabase();
const folder = mkdtempSync(join(tmpdir(), "imbra-keeping-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const keep = (...args: string[]) =>
  spawnSync(process.execPath, ["scripts/keep.mjs", ...args], {
    encoding: "utf8",
    env: { ...process.env, IMBRA_PROJECT: folder, IMBRA_PHOTOS: join(folder, "photos") },
  });

/** Every row of every table, by table, and what refuses and tells. */
async function everything(): Promise<Record<string, unknown>> {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  try {
    const tables = await client.query<{ name: string }>("select tablename as name from pg_tables where schemaname = 'public' order by 1");
    const out: Record<string, unknown> = {};
    for (const { name } of tables.rows)
      out[name] = (await client.query<{ row: string }>(`select t::text as row from "${name}" t order by 1`)).rows.map((r) => r.row);
    out["(triggers)"] = (await client.query("select tgname from pg_trigger where not tgisinternal order by 1")).rows;
    return out;
  } finally {
    await client.end();
  }
}

describe("keeping", () => {
  const at = join(folder, "kept");
  it("a backup brought back is the same, row by row, photos too; what came since is in a backup of its own", async () => {
    mkdirSync(join(folder, "photos"));
    writeFileSync(join(folder, "photos", "one.jpg"), "as it was");
    const before = await everything();
    expect(Object.keys(before).length).toBeGreaterThan(14);
    // Nobody else may be in the database while it is taken away: the test's own pool closes its idle connections first.
    expect(keep("backup", at)).toMatchObject({ status: 0 });
    expect((await carryOut(db.em(), await db.by(), note, { number: "FS-1041", kind: "note", text: "after the backup" })).ok).toBe(true);
    writeFileSync(join(folder, "photos", "one.jpg"), "changed");
    expect(await everything()).not.toEqual(before);
    await db.close();
    const restored = keep("restore", at);
    expect(`${restored.stderr}${restored.status}`).toBe("0");
    expect(await everything()).toEqual(before);
    expect(readFileSync(join(folder, "photos", "one.jpg"), "utf8")).toBe("as it was");
    const kept = /kept in (\S+)\./.exec(restored.stdout)?.[1] ?? "";
    expect(existsSync(join(kept, "database.dump"))).toBe(true);
  }, 120_000);
  it("a backup that is there already, none, or one cut short changes nothing", async () => {
    const before = await everything();
    expect(keep("backup", at)).toMatchObject({ status: 1, stderr: expect.stringContaining("holds a backup already") });
    expect(keep("restore", join(folder, "nowhere"))).toMatchObject({ status: 1, stderr: expect.stringContaining("holds no backup") });
    const cut = join(folder, "cut");
    mkdirSync(cut);
    const whole = readFileSync(join(at, "database.dump"));
    writeFileSync(join(cut, "database.dump"), whole.subarray(0, whole.length / 2));
    expect(keep("restore", cut)).toMatchObject({ status: 1, stderr: expect.stringContaining("failed") });
    expect(await everything()).toEqual(before);
  }, 120_000);
});

import { describe, expect, it } from "vitest";
import { note } from "../../server/bench/note";
import { changedSince, newsMark } from "../../server/live/since";
import { carryOut } from "../../server/unit/action";
import { renewHeads } from "../../server/views/heads";
import { testDatabase } from "./setup";

const db = testDatabase(async (d) => {
  while ((await renewHeads(d.em())) > 0);
});

const tell = async (number: string) => {
  const said = await carryOut(db.em(), await db.by(), note, { number, text: "something", kind: "note" });
  if (!said.ok) throw new Error(said.sentence);
};

/** A page's mark of which nothing is missing. Files beside this one have transactions in the same cluster, which a mark waits for, too. */
async function markOfAll(job?: string): Promise<string> {
  for (let tries = 0; tries < 200; tries++) {
    const mark = await newsMark();
    if (!(await changedSince(mark, job))) return mark;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error("every page misses something");
}

describe("what came between a page and the stream that tells it of changes", () => {
  it("is known: of the job, of all, of the shelf; nothing where nothing came", async () => {
    const mark = await markOfAll();
    expect(mark).toMatch(/^\d+$/);
    expect(await changedSince(mark, "FS-1041")).toBe(false);
    await tell("FS-1041");
    expect([await changedSince(mark), await changedSince(mark, "FS-1041"), await changedSince(mark, "FS-1042")]).toEqual([true, true, false]);
    const later = await markOfAll();
    expect(await changedSince(later, "FS-1041")).toBe(false);
    await db.em().execute(`update "shelf_type" set "stock" = "stock" + 1 where "id" = 'knotwick-split-2'`);
    expect([await changedSince(later), await changedSince(later, "FS-1042")]).toEqual([true, true]);
  });

  it("counts what was under way when the page was made and is stored after it, whatever else was stored meanwhile", async () => {
    let store = () => {};
    const under = new Promise<void>((resolve) => {
      store = resolve;
    });
    let begun = () => {};
    const beginning = new Promise<void>((resolve) => {
      begun = resolve;
    });
    const slow = db.em().transactional(async (tx) => {
      await tx.execute(`update "job" set "revision" = "revision" + 1 where "number" = 'FS-1043'`);
      begun();
      await under;
    });
    await beginning;
    await tell("FS-1042");
    const mark = await newsMark();
    store();
    await slow;
    expect(await changedSince(mark, "FS-1043")).toBe(true);
    await markOfAll("FS-1043");
  });

  it("may be anything where a page's mark cannot be read", async () => {
    for (const mark of ["", "x", "1; drop table job", "-1", "9".repeat(30)])
      expect([mark, await changedSince(mark, "FS-1041")]).toEqual([mark, true]);
  });
});

import { describe, expect, it } from "vitest";
import { note } from "../../server/bench/note";
import { carryOut } from "../../server/kernel/action";
import { changedSince, newsMark } from "../../server/live/since";
import { renewHeads } from "../../server/read/heads";
import { testDatabase } from "./setup";

const db = testDatabase(async (d) => {
  while ((await renewHeads(d.em())) > 0);
});

const tell = async (number: string) => {
  const said = await carryOut(db.em(), await db.by(), note, { number, text: "something", kind: "note" });
  if (!said.ok) throw new Error(said.sentence);
};

describe("what came between a page and the stream that tells it of changes", () => {
  it("is known: of the job, of all, of the shelf; nothing where nothing came", async () => {
    const mark = await newsMark();
    expect(mark).toMatch(/^\d+$/);
    expect([await changedSince(mark), await changedSince(mark, "FS-1041")]).toEqual([false, false]);
    await tell("FS-1041");
    expect([await changedSince(mark), await changedSince(mark, "FS-1041"), await changedSince(mark, "FS-1042")]).toEqual([true, true, false]);
    const later = await newsMark();
    expect([await changedSince(later), await changedSince(later, "FS-1041")]).toEqual([false, false]);
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
    expect(await changedSince(await newsMark(), "FS-1043")).toBe(false);
  });

  it("may be anything where a page's mark cannot be read", async () => {
    for (const mark of ["", "x", "1; drop table job", "-1", "9".repeat(30)])
      expect([mark, await changedSince(mark, "FS-1041")]).toEqual([mark, true]);
  });
});

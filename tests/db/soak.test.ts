import { describe, expect, it } from "vitest";
import { findJob } from "../../server/build/build-of-job";
import { keepSoakLog, soaksOf } from "../../server/first-boot/soak-log";
import { carryOut } from "../../server/unit/action";
import { testDatabase } from "./setup";

const db = testDatabase();
const number = "FS-1045";
const keep = async (readings: unknown, name = "log.csv") => carryOut(db.em(), await db.by(), keepSoakLog, { number, name, readings } as never);
const atS = Array.from({ length: 1000 }, (_, i) => i * 2);
const columns = [{ name: "CPU temp", part: "cpu", quantity: "temperature" }];

describe("a soak's log", () => {
  it("is judged here, stays with the job with who and when, and stands in the log of the job", async () => {
    const kept = await keep({ atS, columns, values: [atS.map(() => 61)] });
    expect(kept).toMatchObject({ ok: true, value: { verdict: "held", maxima: [{ value: 61, limit: 95 }] } });
    const hot = await keep({ atS, columns, values: [atS.map((_, i) => (i < 5 ? null : 99))] }, "hot.csv");
    expect(hot).toMatchObject({ ok: true, value: { verdict: "too hot" } });
    const job = await findJob(db.em(), number);
    const all = await soaksOf(db.em(), job?.id ?? "");
    expect(all.map((s) => [s.name, s.soak.verdict])).toEqual([
      ["hot.csv", "too hot"],
      ["log.csv", "held"],
    ]);
    expect((await db.view(number)).log[0]?.text).toMatch(/^Soak: too hot, 33\.3 minutes \(hot\.csv\)\. CPU temp held 99 °C, of 95 °C/);
  });
  it("that is not as it should be is refused in a sentence, and nothing is kept", async () => {
    const before = (await soaksOf(db.em(), (await findJob(db.em(), number))?.id ?? "")).length;
    for (const bad of [
      { atS: [0, 1], columns, values: [[1]] },
      { atS: [5, 1], columns, values: [[1, 2]] },
      { atS: [0, 1], columns: [{ ...columns[0], part: "moon" }], values: [[1, 2]] },
      { atS, columns, values: [atS.map(() => 1e9)] },
    ]) {
      const r = await keep(bad);
      expect(r.ok, JSON.stringify(bad).slice(0, 80)).toBe(false);
    }
    expect((await soaksOf(db.em(), (await findJob(db.em(), number))?.id ?? "")).length).toBe(before);
  });
});

import { describe, expect, it } from "vitest";
import { benchSlice, bootSlice, faultsSlice, handoverSlice, orderSlice, partsSlice, wiringSlice } from "../../server/views/slices";
import { testDatabase } from "./setup";

const db = testDatabase();

describe("what a screen gets of a job", () => {
  it("has the part types of its own parts and nothing else of the shelf; no screen gets as much as the whole", async () => {
    for (const number of ["FS-1041", "FS-1043", "FS-1045"]) {
      const view = await db.view(number);
      const whole = JSON.stringify(view).length;
      const used = new Set(view.build.parts.map((p) => p.type));
      expect(view.build.partTypes.some((t) => !used.has(t.id))).toBe(true);
      const slices = { benchSlice, faultsSlice, handoverSlice, orderSlice, partsSlice, wiringSlice };
      for (const [name, slice] of Object.entries(slices)) {
        const got = slice(view);
        const others = got.build.partTypes.filter((t) => !used.has(t.id)).map((t) => t.id);
        // What would let in a lead that stays free is called by its name on Wiring.
        const named = name === "wiringSlice" ? (view.plan?.ways?.needs.length ?? 0) : 0;
        expect([name, number, others.length <= named, got.build.accessories]).toEqual([name, number, true, []]);
        expect([name, number, JSON.stringify(got).length < 0.85 * whole]).toEqual([name, number, true]);
      }
      expect(JSON.stringify(bootSlice(view)).length).toBeLessThan(0.3 * whole);
    }
  });
});

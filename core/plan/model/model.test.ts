import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../../tests/cases";
import { addCost, compareCost, LEVEL_WORDS, LEVELS, zeroCost } from "../cost/cost";
import { smallEngine } from "../solve/enumerate";
import { highsEngine } from "../solve/highs";
import { holds, totalCost } from "../solve/piece";
import { Model, type Piece } from "./model";

const pieceOf = (m: Model): Piece => {
  const [p] = m.pieces();
  if (!p) throw new Error("no piece");
  return p;
};

/** Small random models: covering, packing and costs on three levels. */
const models = fc
  .record({
    costs: fc.array(
      fc.record({
        mandatoryFree: fc.integer({ min: 0, max: 2 }),
        fromShelf: fc.integer({ min: 0, max: 2 }),
        lengthCm: fc.integer({ min: 0, max: 60 }),
      }),
      { minLength: 2, maxLength: 8 },
    ),
    rows: fc.array(fc.record({ on: fc.array(fc.nat({ max: 7 }), { minLength: 1, maxLength: 4 }), least: fc.boolean() }), {
      minLength: 1,
      maxLength: 5,
    }),
  })
  .map(({ costs, rows }) => {
    const m = new Model();
    const vars = costs.map((c, i) => m.variable(`v${i}`, c));
    // One row over all, so that there is one piece; covering rows hold when everything is 1.
    m.atMost(
      vars.map((v): [number, number] => [v, 1]),
      vars.length,
    );
    for (const r of rows) {
      const on = [...new Set(r.on.map((i) => i % vars.length))].map((i): [number, number] => [vars[i] ?? 0, 1]);
      if (r.least) m.atLeast(on, 1);
    }
    return pieceOf(m);
  });

describe("two engines, one answer", () => {
  it("trying everything and the solver reach the same cost on every level", async () => {
    await fc.assert(
      fc.asyncProperty(models, async (piece) => {
        const a = await smallEngine.solve(piece, LEVELS, { deadlineS: 10 });
        const b = await highsEngine.solve(piece, LEVELS, { deadlineS: 10 });
        expect(a && b && a.proved && b.proved).toBe(true);
        if (!a || !b) return;
        expect(holds(piece, a.values) && holds(piece, b.values)).toBe(true);
        expect(compareCost(totalCost(piece, a.values), totalCost(piece, b.values))).toBe(0);
      }),
      cases(60, 5),
    );
  });
  it("says when nothing holds, and when nothing can beat what there is", async () => {
    const m = new Model();
    const v = m.variable("v", { fromShelf: 1 });
    m.atLeast([[v, 1]], 1);
    expect(await highsEngine.solve(pieceOf(m), ["fromShelf"], { deadlineS: 5, beat: { ...zeroCost() } })).toBeUndefined();
    expect((await highsEngine.solve(pieceOf(m), ["fromShelf"], { deadlineS: 5, beat: { ...zeroCost(), fromShelf: 1 } }))?.values).toEqual([1]);
    m.atMost([[v, 1]], 0);
    expect(await highsEngine.solve(pieceOf(m), ["fromShelf"], { deadlineS: 5 })).toBeUndefined();
    expect(await smallEngine.solve(pieceOf(m), ["fromShelf"], { deadlineS: 5 })).toBeUndefined();
  });
  it("a better level decides over any number of worse ones below it", () => {
    expect(compareCost({ fromShelf: 1 }, { fromShelf: 0, lengthCm: 99_999 })).toBeGreaterThan(0);
    expect(compareCost({ mandatoryFree: 0, wantedFree: 9 }, { mandatoryFree: 1 })).toBeLessThan(0);
    expect(compareCost({ canonical: 5 }, {})).toBe(0);
    expect(compareCost({ canonical: 5 }, {}, true)).toBeGreaterThan(0);
    expect(addCost(addCost(zeroCost(), { lengthCm: 3 }), { lengthCm: 4 }).lengthCm).toBe(7);
    for (const l of LEVELS) expect(LEVEL_WORDS[l].length).toBeGreaterThan(5);
  });
});

describe("pieces", () => {
  it("fall apart where no row joins them, and keep their variables in order", () => {
    const m = new Model();
    const [a, b, c, d] = ["a", "b", "c", "d"].map((n) => m.variable(n));
    m.exactly(
      [
        [a ?? 0, 1],
        [c ?? 0, 1],
      ],
      1,
    );
    m.exactly(
      [
        [b ?? 0, 1],
        [d ?? 0, 1],
      ],
      1,
    );
    expect(m.pieces().map((p) => p.vars)).toEqual([
      [0, 2],
      [1, 3],
    ]);
    m.atMost(
      [
        [c ?? 0, 1],
        [d ?? 0, 1],
      ],
      1,
    );
    expect(m.pieces().map((p) => p.vars)).toEqual([[0, 1, 2, 3]]);
  });
  it("refuses a name twice and a row that can never hold", () => {
    const m = new Model();
    const v = m.variable("a");
    expect(() => m.variable("a")).toThrow(/stands twice/);
    expect(() => m.atLeast([[v, 0]], 1)).toThrow(/cannot hold/);
  });
});

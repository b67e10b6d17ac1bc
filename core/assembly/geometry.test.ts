import fc from "fast-check";
import { expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { manhattanMm, runCostCm, runLengthMm, SLACK_MM } from ".";

const point = fc.record({ xMm: fc.integer({ min: 0, max: 600 }), yMm: fc.integer({ min: 0, max: 600 }) });

it("a run goes through the cut-out that makes it shortest: a worked example", () => {
  // 300 mm across; over (50, 100): 50+100 there, 250+100 on: 500. Over (300, 10): 300+10, 0+10: 320. Plus 60.
  const from = { xMm: 0, yMm: 0 };
  const to = { xMm: 300, yMm: 0 };
  expect(
    runLengthMm(from, to, [
      { xMm: 50, yMm: 100 },
      { xMm: 300, yMm: 10 },
    ]),
  ).toBe(380);
  expect(runLengthMm(from, to, [])).toBe(360);
});

it("a stretch over the board's face counts twice", () => {
  const board = { xMm: 100, yMm: 0, widthMm: 100, heightMm: 100 };
  // From (0,50) straight to (150,50): 150 mm, 50 of them over the board: 150 + 50 + 60 = 260 mm.
  expect(runCostCm({ xMm: 0, yMm: 50 }, { xMm: 150, yMm: 50 }, [], board)).toBe(26);
});

it("is never shorter than the straight way, and a cut-out more never makes it longer", () => {
  fc.assert(
    fc.property(point, point, fc.array(point, { minLength: 1, maxLength: 5 }), point, (a, b, cuts, more) => {
      const mm = runLengthMm(a, b, cuts);
      expect(mm).toBeGreaterThanOrEqual(manhattanMm(a, b) + SLACK_MM);
      expect(runLengthMm(a, b, [...cuts, more])).toBeLessThanOrEqual(mm);
      expect(runLengthMm(b, a, cuts)).toBe(mm);
    }),
    cases(300, 131),
  );
});

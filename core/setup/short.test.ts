import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Check, checkOfItem, checkOfLine, checkOfPromise, SOAK_CHECK, whatFits } from ".";

const checks: Check[] = [
  checkOfItem({ id: "updates", what: "Updates" }),
  checkOfItem({ id: "off:burner", what: "Test program", mustBeOut: true }),
  checkOfItem({ id: "memory-profile", what: "Memory profile" }),
  checkOfLine({ id: "turns:a", what: "Front fan" }),
  checkOfPromise({ about: "quiet", words: "30 dB(A)" }),
  SOAK_CHECK,
];

describe("time is short", () => {
  it("what must be out goes first, then what is seen at a glance, then settings; what does not fit is named", () => {
    const { fits, not } = whatFits(checks, 20);
    expect(fits.map((c) => c.id)).toEqual(["off:burner", "turns:a", "memory-profile", "quiet 30 dB(A)"]);
    expect(not.map((c) => c.id)).toEqual(["soak", "updates"]);
    expect(whatFits(checks, 0).fits.map((c) => c.id)).toEqual(["off:burner"]);
  });
  it("no driver is put in where there is no time for the system", () => {
    const some = ["install", "driver:network", "devices"].map((id) => checkOfItem({ id, what: id }));
    expect(whatFits(some, 10)).toMatchObject({ fits: [], usedMin: 0 });
    expect(whatFits(some, 30).fits.map((c) => c.id)).toEqual(["install", "driver:network", "devices"]);
  });
  it("each is either fitted in or said as not done, never more than the time but for what must be", () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(checks), fc.integer({ min: 0, max: 200 }), (some, minutes) => {
        const { fits, not, usedMin } = whatFits(some, minutes);
        expect([...fits, ...not].map((c) => c.id).sort()).toEqual(some.map((c) => c.id).sort());
        const must = fits.filter((c) => c.must).reduce((n, c) => n + c.minutes, 0);
        expect(usedMin).toBeLessThanOrEqual(Math.max(minutes, must));
      }),
    );
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { HAPPENINGS, type Happening, isClosed, STAGES, type Stage, stageAfter } from ".";

const ORDER: Stage[] = ["intake", "planning", "bench", "first-boot", "soak", "handed-over"];

describe("the stages of a job", () => {
  it("go on with the work, and every one is reached", () => {
    const reached = new Set<Stage>(["intake"]);
    let stage: Stage = "intake";
    for (const h of ["planned", "worked", "looked", "soaks", "handed over"] as const) {
      stage = stageAfter(stage, h);
      reached.add(stage);
    }
    reached.add(stageAfter("bench", "waits"));
    reached.add(stageAfter("bench", "cancelled"));
    expect([...STAGES].filter((s) => !reached.has(s))).toEqual([]);
    expect(isClosed(stage)).toBe(true);
  });
  it("a job that waits goes on where it stood, and closed it stays but for opening again", () => {
    fc.assert(
      fc.property(fc.constantFrom(...ORDER.slice(0, 5)), (stage) => {
        expect(stageAfter(stageAfter(stage, "waits"), "arrived", stage)).toBe(stage);
      }),
      cases(30, 113),
    );
    for (const h of HAPPENINGS.filter((x) => x !== "reopened")) expect([h, stageAfter("handed-over", h)]).toEqual([h, "handed-over"]);
    expect(stageAfter("handed-over", "reopened")).toBe("first-boot");
    for (const h of HAPPENINGS.filter((x) => x !== "reopened")) expect([h, stageAfter("cancelled", h)]).toEqual([h, "cancelled"]);
    expect([stageAfter("cancelled", "reopened"), isClosed("cancelled")]).toEqual(["planning", true]);
  });
  it("work never moves a job back", () => {
    const work: Happening[] = ["planned", "worked", "looked", "soaks", "handed over", "arrived"];
    fc.assert(
      fc.property(fc.constantFrom(...ORDER), fc.constantFrom(...work), (stage, h) => {
        expect(ORDER.indexOf(stageAfter(stage, h))).toBeGreaterThanOrEqual(ORDER.indexOf(stage));
      }),
      cases(300, 127),
    );
  });
});

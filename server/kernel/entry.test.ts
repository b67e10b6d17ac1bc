import { describe, expect, it } from "vitest";
import { happenedAt } from "./entry";
import { line, text } from "./text";

const arrived = new Date("2026-11-27T09:00:00Z");

describe("when an entry happened", () => {
  it("is when it arrived, less what it waited, however wrong the device's clock is", () => {
    const made = Date.parse("2026-11-27T08:30:00Z");
    for (const wrongBy of [0, 3_600_000, -3_600_000, 400 * 86_400_000]) {
      const entry = { key: "k", madeAtMs: made + wrongBy, sentAtMs: Date.parse("2026-11-27T09:00:00Z") + wrongBy };
      expect(happenedAt(entry, arrived).toISOString()).toBe("2026-11-27T08:30:00.000Z");
    }
  });
  it("is when it arrived where the device says nothing, or nonsense", () => {
    expect(happenedAt(undefined, arrived)).toBe(arrived);
    expect(happenedAt({ key: "k" }, arrived)).toBe(arrived);
    expect(happenedAt({ key: "k", madeAtMs: 10, sentAtMs: 5 }, arrived)).toBe(arrived);
    expect(happenedAt({ key: "k", madeAtMs: 0, sentAtMs: 31 * 86_400_000 }, arrived)).toBe(arrived);
  });
});

describe("text as people type it", () => {
  it("has no NUL, no half of a character and no line break where it is one line; it is as long as its column", () => {
    expect(line(5).parse("  a b ")).toBe("a b");
    expect(line(5).parse("a🙂b")).toBe("a🙂b");
    for (const bad of ["a\0b", "a\ud800b", "a\nb", "123456"]) expect([bad, line(5).safeParse(bad).success]).toEqual([bad, false]);
    expect(text(9).parse("a\nb")).toBe("a\nb");
    for (const bad of ["a\0b", "a\udc00", "1234567890"]) expect([bad, text(9).safeParse(bad).success]).toEqual([bad, false]);
  });
});

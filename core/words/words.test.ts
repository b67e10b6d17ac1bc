import { describe, expect, it } from "vitest";
import { a, list, lower } from ".";

describe("names in a sentence", () => {
  it.each([
    [[], ""],
    [["A"], "A"],
    [["A", "B"], "A and B"],
    [["A", "B", "C"], "A, B and C"],
    [["cooler, fan 1"], "cooler, fan 1"],
    [["cooler, fan 1", "cooler, fan 2", "CPU fan warning"], "cooler, fan 1; cooler, fan 2; and CPU fan warning"],
  ])("%j is %s", (names, said) => {
    expect(list(names)).toBe(said);
  });
  it("counts what it does not name", () => {
    expect(list(["A", "B", "C"], 3)).toBe("A, B and C");
    expect(list(["A", "B", "C", "D", "E"], 3)).toBe("A, B, C and 2 more");
    expect(list(["A, a", "B", "C"], 2)).toBe("A, a; B; and 1 more");
  });
});

describe("a name in the middle of a sentence", () => {
  it.each([
    ["Full load on the CPU", "full load on the CPU"],
    ["SATA data plugs", "SATA data plugs"],
    ["M.2 slot 1", "M.2 slot 1"],
    ["A20 fan", "A20 fan"],
    ["X-frame hub", "X-frame hub"],
    ["rear fan", "rear fan"],
    ["", ""],
  ])("%j stands there as %j", (name, said) => {
    expect(lower(name)).toBe(said);
  });
});

describe("a thing with its article", () => {
  it("by its sound as it is said", () => {
    expect(
      [
        "expansion slot",
        "fan header",
        "M.2 slot",
        "USB 3 header",
        "SATA data",
        "audio header",
        "unit",
        "16-pin plug",
        "HDMI socket",
        "Memory slot",
        "8-pin plug",
        "SFX supply",
        "LED",
      ].map(a),
    ).toEqual([
      "an expansion slot",
      "a fan header",
      "an M.2 slot",
      "a USB 3 header",
      "a SATA data",
      "an audio header",
      "a unit",
      "a 16-pin plug",
      "an HDMI socket",
      "a Memory slot",
      "an 8-pin plug",
      "an SFX supply",
      "an LED",
    ]);
  });
});

import { describe, expect, it } from "vitest";
import { MOST_PASSWORD, passwordFault, pinFault } from "./password";

describe("a new password", () => {
  it("is none that anybody would try first: common ones, one word with a digit, rows of keys, years, what repeats", () => {
    for (const bad of [
      "password1",
      "Passw0rd!",
      "qwertz123",
      "summer2024",
      "aaaaaaaaaa",
      "letmein1",
      "dragon99",
      "1q2w3e4r",
      "Imbra2026",
      "x".repeat(MOST_PASSWORD),
    ])
      expect([bad, passwordFault(bad, "Mirel Quist")]).toEqual([bad, expect.stringContaining("among the first that anybody would try")]);
  });
  it("is several words, or anything else that is not easily guessed; without rules of what must be in it", () => {
    for (const good of ["slow tide under glass", "hT7#kq2z", "winter is cold", "кит над мостом", "六つの鐘と帆柱と夜"])
      expect([good, passwordFault(good, "Mirel Quist")]).toEqual([good, undefined]);
  });
  it("is not the name, and no shorter than said", () => {
    expect(passwordFault("mirel quist here", "Mirel Quist")).toContain("holds the name");
    expect(passwordFault("quist2026", "Mirel Quist")).toContain("among the first");
    expect(passwordFault("a b c", "Mirel Quist")).toContain("at least 8");
  });
});

describe("a new PIN", () => {
  it("is four to eight digits, none in a row", () => {
    expect(["123", "1111", "2345", "9876", "123456789"].map((p) => pinFault(p) !== undefined)).toEqual([true, true, true, true, true]);
    expect(["2741", "90210"].map(pinFault)).toEqual([undefined, undefined]);
  });
});

import { describe, expect, it } from "vitest";
import { fullName, PART_KINDS } from "../../core/catalogue";
import { shelf } from "../../tests/fixtures/demo";
import { KIND_WORD } from "./kinds";

describe("parts in words", () => {
  it("every kind has a word", () => {
    for (const k of PART_KINDS) expect(KIND_WORD[k]?.length).toBeGreaterThan(2);
  });
  it("the maker is said once", () => {
    expect(fullName({ maker: "Whirrow", name: "Whirrow 120" })).toBe("Whirrow 120");
    expect(fullName({ maker: "Tarnbrook", name: "Heron T40" })).toBe("Tarnbrook Heron T40");
    expect(fullName({ maker: "", name: "Nameless" })).toBe("Nameless");
    for (const t of shelf) expect(fullName(t).split(t.maker).length - 1).toBeLessThanOrEqual(1);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { wayBack } from "./way-back";

const SHOP = "http://shop.example";

describe("the way back after signing in", () => {
  it("is the page that was asked for", () => {
    for (const to of ["/", "/job/FS-1042/wiring", "/shelf?q=a%20b&kind=fan", "/job/FS%2D1/parts?part=fan-1"]) expect(wayBack(to)).toBe(to);
  });
  it("never leads to another host, whatever is written", () => {
    const odd = [
      "//evil.example",
      "/\\evil.example",
      "/\t/evil.example",
      "/\n/evil.example",
      "https://evil.example",
      "javascript:alert(1)",
      "",
      null,
      ["/a"],
    ];
    for (const to of [...odd, "/".padEnd(600, "a")]) expect([to, new URL(wayBack(to), SHOP).origin]).toEqual([to, SHOP]);
    fc.assert(
      fc.property(fc.array(fc.constantFrom("/", "\\", "\t", "\n", " ", "evil.example", "@", ":", ".", "%2f", "?"), { maxLength: 8 }), (parts) => {
        expect(new URL(wayBack(parts.join("")), SHOP).origin).toBe(SHOP);
      }),
      cases(100, 107),
    );
  });
});

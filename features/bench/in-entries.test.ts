import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { inEntries } from "./use-bench";

describe("what one press says", () => {
  it("goes in entries that the server takes, in its order, and nothing of it is left out", () => {
    fc.assert(
      fc.property(fc.array(fc.record({ step: fc.string({ maxLength: 40 }), text: fc.string({ maxLength: 2000 }) }), { maxLength: 120 }), (items) => {
        const entries = inEntries(items);
        expect(entries.flat()).toEqual(items);
        for (const some of entries) {
          expect(some.length).toBeLessThanOrEqual(40);
          // Four bytes of a letter at most, and as much again around them.
          if (some.length > 1) expect(JSON.stringify(some).length).toBeLessThan(13_000);
        }
      }),
      cases(60, 139),
    );
    const long = Array.from({ length: 40 }, (_, n) => ({ step: `s${n}`, text: "ö".repeat(500) }));
    for (const some of inEntries(long)) expect(Buffer.byteLength(JSON.stringify(some))).toBeLessThan(30_000);
  });
});

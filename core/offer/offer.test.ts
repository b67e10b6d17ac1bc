import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { demo } from "../../tests/fixtures/demo";
import { readCsv } from "../table";
import { Agreed, asCsv, changedSince, offerOf, purchases, spent, sumsOf } from ".";

const asked = { beside: [], hours: 2.5, rate: 64, machines: 1, currency: "", promises: [], words: "" };
const { build, types } = demo("fs-1041");
const priced = (cents: (i: number) => number) => ({ ...build, parts: build.parts.map((p, i) => ({ ...p, price: cents(i) / 100 })) });

describe("an offer", () => {
  it("adds up in hundredths: parts as often as they are in it, hours at the rate, what the client has for nothing", () => {
    const a = Agreed.parse({
      ...asked,
      parts: [
        { what: "Fan", count: 3, each: 19.9 },
        { what: "Drive", count: 1, own: true },
        { what: "Case", count: 1 },
      ],
      beside: [{ what: "Licence", count: 1, each: 0.1 }],
    });
    // 3 × 19.90 = 59.70; 2.5 × 64 = 160.00 (worked by hand).
    expect(sumsOf(a)).toEqual({ parts: 59.7, beside: 0.1, work: 160, each: 219.7, total: 219.8, unpriced: 1 });
    expect(sumsOf({ ...a, machines: 2 }).total).toBe(439.5);
  });
  it("holds every part of the build once, in lines of equal ones", () => {
    const a = offerOf(
      priced(() => 1000),
      types,
      asked,
    );
    expect(a.parts.reduce((n, l) => n + l.count, 0)).toBe(build.parts.length);
    expect(sumsOf(a).parts).toBe(build.parts.length * 10);
    expect(new Set(a.parts.map((l) => l.type)).size).toBe(a.parts.length);
  });
  it("of the same build nothing is changed since; of any part left out, twice in it or at another price it is said", () => {
    const base = priced((i) => 500 + i);
    const agreed = offerOf(base, types, asked);
    expect(changedSince(agreed, offerOf(base, types, asked))).toEqual([]);
    fc.assert(
      fc.property(fc.nat(base.parts.length - 1), fc.constantFrom("out", "twice", "dearer"), (i, how) => {
        const part = base.parts[i];
        if (!part) return;
        const parts =
          how === "out"
            ? base.parts.filter((p) => p !== part)
            : how === "twice"
              ? [...base.parts, { ...part, id: "one-more" }]
              : base.parts.map((p) => (p === part ? { ...p, price: (p.price ?? 0) + 1 } : p));
        const said = changedSince(agreed, offerOf({ ...base, parts }, types, asked));
        expect(said).toHaveLength(1);
        expect(said[0]).toContain(agreed.parts.find((l) => l.type === part.type)?.what);
      }),
    );
  });
  it("says what else moved: the day, what is promised, how many machines", () => {
    const was = offerOf(build, types, {
      ...asked,
      due: { on: "2026-12-04", hour: "15:00", promised: true },
      promises: [{ about: "quiet", words: "28 dB(A)" }],
    });
    const now = offerOf(build, types, { ...asked, machines: 2, due: { on: "2026-12-05", promised: true } });
    expect(changedSince(was, now)).toEqual([
      "1 machines were agreed, 2 now.",
      "2026-12-04 15:00 was agreed, 2026-12-05 stands now.",
      "No longer promised: 28 dB(A).",
    ]);
  });
});

describe("a list as it is bought", () => {
  const bought = build.parts.map((p, i) => ({
    part: p.id,
    supplier: i % 2 ? "=North" : "South",
    arrived: i === 0,
    ...(i === 1 ? { orderedOn: "2026-11-20", expectedOn: "2026-11-27" } : {}),
  }));
  it("has its sum against the budget, what has no price, what is ordered and when the last comes", () => {
    const rows = purchases(
      priced(() => 333),
      types,
      bought,
    );
    const s = spent(rows, 50);
    const paid = build.parts.filter((p) => !p.reused).length;
    expect(s).toMatchObject({ sum: (paid * 333) / 100, unpriced: 0, budget: 50, ordered: 1, lastOn: "2026-11-27" });
    expect(s.left).toBeCloseTo(50 - (paid * 333) / 100, 9);
    expect(rows.flatMap((r) => r.parts).sort()).toEqual(build.parts.map((p) => p.id).sort());
  });
  it("is a table that reads back; what is here is not in it, and no cell is a formula", () => {
    const rows = purchases(
      priced(() => 250),
      types,
      bought,
    );
    const csv = asCsv(rows, [
      { what: 'Splitter, 3 "way"', count: 1, from: "order" },
      { what: "Ties", count: 4, from: "shelf" },
    ]);
    const read = readCsv(csv, true);
    if (!read.ok) throw new Error(read.sentence);
    const counts = read.table.rows.map((r) => Number(r[1]));
    expect(counts.reduce((a, b) => a + b, 0)).toBe(rows.filter((r) => r.from === "buy").reduce((n, r) => n + r.parts.length - r.arrived, 0) + 1);
    expect(read.table.rows.at(-1)?.[2]).toBe('Splitter, 3 "way"');
    expect(csv).toContain("'=North");
    expect(csv).not.toMatch(/(^|,)=/m);
  });
});

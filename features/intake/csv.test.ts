import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { decode, readCsv } from "../../core/table";
import { cases, processorMs } from "../../tests/cases";
import { guessColumns, pastedRows, rowsOf } from "./csv";

const bytes = (text: string) => new TextEncoder().encode(text);
const table = (text: string) => {
  const r = readCsv(text);
  if (!r.ok) throw new Error(r.sentence);
  return r.table;
};

describe("CSV, RFC 4180", () => {
  it("quotes, doubled quotes, commas and line ends in fields (the RFC's own rules)", () => {
    const t = table('part,count\r\n"Vault, 8 TB",2\r\n"the ""quiet"" one",1\r\n"two\r\nlines",1\r\n');
    expect(t.columns).toEqual(["part", "count"]);
    expect(t.rows).toEqual([
      ["Vault, 8 TB", "2"],
      ['the "quiet" one', "1"],
      ["two\r\nlines", "1"],
    ]);
  });
  it("semicolons and tabs, with or without a head", () => {
    expect(table("Item;Qty\nHeron T40;1").columns).toEqual(["Item", "Qty"]);
    expect(table("Heron T40\t1\nWhirrow 120\t3")).toEqual({
      columns: ["column 1", "column 2"],
      rows: [
        ["Heron T40", "1"],
        ["Whirrow 120", "3"],
      ],
    });
  });
  it("what a general writer writes is read back as it was", () => {
    const field = fc.string({ maxLength: 12 }).filter((s) => s.trim() === s && !s.includes("\u0000") && !/[\ufeff]/.test(s));
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.constant("x").chain(() => field),
            fc.integer({ min: 1, max: 99 }),
          ),
          { minLength: 1, maxLength: 8 },
        ),
        (rows) => {
          const real = rows.filter(([name]) => name !== "");
          if (real.length === 0) return;
          const text = ["part,count", ...real.map(([a, n]) => `"${a.replace(/"/g, '""')}",${n}`)].join("\r\n");
          expect(table(text).rows).toEqual(real.map(([a, n]) => [a, String(n)]));
        },
      ),
      cases(100, 79),
    );
  });
});

describe("columns", () => {
  it("are guessed from their names, and from what stands in them", () => {
    expect(guessColumns(table("Qty,Article,Serial\n2,Heron T40,AB1"))).toEqual({ part: 1, count: 0, serial: 2 });
    expect(guessColumns(table("3;Whirrow 120\n1;Heron T40"))).toEqual({ part: 1, count: 0, serial: null });
    expect(guessColumns(table("Heron T40"))).toEqual({ part: 0, count: null, serial: null });
  });
  it("a count that is none, and a serial that comes twice, are said with their lines; the row is kept", () => {
    const t = table("part,count,serial\nHeron T40,one,\nWhirrow 120,2,S-1\nWhirrow 120,-1,S-1\nCard,,S-2");
    const r = rowsOf(t, { part: 0, count: 1, serial: 2 });
    expect(r.faults).toEqual([
      'Line 2: the count "one" is not a whole number from 0 to 99. It is kept aside.',
      'Line 4: the count "-1" is not a whole number from 0 to 99. It is kept aside.',
    ]);
    expect(r.rows.map((x) => [x.text, x.count])).toEqual([
      ["Heron T40", 0],
      ["Whirrow 120", 2],
      ["Whirrow 120", 0],
      ["Card", 1],
    ]);
    expect(rowsOf(table("part,serial\na,S-1\nb,S-1"), { part: 0, count: null, serial: 1 }).faults).toEqual([
      "Line 3: serial S-1 is on line 2 already. The part is taken, the serial is not.",
    ]);
  });
});

describe("bad files, a sentence each", () => {
  it.each([
    ["", "The list is empty"],
    ['part\n"open', "a quote is opened and never closed"],
    ["a\u0000b", "binary data"],
  ])("%j", (text, words) => {
    const r = readCsv(text);
    expect(r.ok ? "" : r.sentence).toContain(words);
  });
  it("100,000 rows are refused with their number, quickly", () => {
    const started = processorMs();
    const r = readCsv(Array.from({ length: 100_000 }, (_, i) => `part ${i},1`).join("\n"));
    expect(r.ok ? "" : r.sentence).toBe("100000 rows; at most 2000. Nothing was read. Split the list.");
    expect(processorMs() - started).toBeLessThan(5000);
  });
  it("wrong encoding is named; UTF-8 with its mark and UTF-16 are read", () => {
    expect(decode(new Uint8Array([0x4d, 0xfc, 0x6c, 0x6c]))).toMatchObject({ ok: false, sentence: expect.stringContaining("not UTF-8") });
    expect(decode(bytes("\ufeffpart"))).toEqual({ ok: true, text: "part" });
    expect(decode(new Uint8Array([0xff, 0xfe, 0x70, 0x00]))).toEqual({ ok: true, text: "p" });
    expect(decode(new Uint8Array(4_000_001))).toMatchObject({ ok: false, sentence: expect.stringContaining("4.0 MB; at most 4") });
  });
  it("a pasted text of any kind gives bounded rows", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 500 }), (text) => {
        for (const r of pastedRows(text)) {
          expect(r.text.length).toBeGreaterThan(0);
          expect(r.text.length).toBeLessThanOrEqual(200);
        }
      }),
      cases(100, 83),
    );
    expect(pastedRows(Array(5000).fill("x").join("\n"))).toHaveLength(2000);
  });
});

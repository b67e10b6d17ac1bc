import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { absurdities, percentile, ratesOf, readFrames, verdictOf } from ".";

const proof = { conditions: "", result: "measured" as const, why: "" };

describe("frame times", () => {
  it("by hand: 99 frames of 10 ms and one of 50: average 1000 over the mean time, the worst 1 % by the percentile", () => {
    const ms = [...Array(99).fill(10), 50] as number[];
    const r = ratesOf({ ms, column: "ms" });
    // Mean 10.4 ms; the 99th percentile lies 0.01 of the way from 10 to 50: position 98.01.
    expect(r).toMatchObject({ frames: 100, average: 96.2, worst1: 96.2, lowest: 20 });
    expect(percentile([1, 2, 3, 4], 0.5)).toBe(2.5);
  });
  it("are read by their columns: times before rates, decimal commas, rows without a frame told", () => {
    const rows = Array.from({ length: 50 }, (_, i) => `${i};16,7;59,9`).join("\n");
    const read = readFrames(`nr;frame time, ms;FPS\n${rows}\n51;;\n`);
    if (!read.ok) throw new Error(read.sentence);
    expect(read.frames.column).toMatch(/frame time/);
    expect(ratesOf(read.frames).average).toBeCloseTo(59.9, 1);
    expect(read.faults).toEqual(["1 rows hold no frame. The others count."]);
    const rates = readFrames(`FPS\n${Array(20).fill("120").join("\n")}\n`);
    expect(rates.ok && ratesOf(rates.frames).average).toBe(120);
  });
  it.each([
    ["a,b\n1,2\n", /No column of frame times/],
    ["frame time\n1\n2\n", /holds 2 frames/],
    ["", /empty/i],
  ])("%j is refused in a sentence", (text, words) => {
    const r = readFrames(text);
    expect(r.ok ? "" : r.sentence).toMatch(words);
  });
  it("worst is never above average, lowest never above worst, and the order of frames makes no difference", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 1, max: 400, noNaN: true }), { minLength: 10, maxLength: 300 }), (ms) => {
        const r = ratesOf({ ms, column: "" });
        expect(r.lowest).toBeLessThanOrEqual(r.worst1 + 0.1);
        expect(r.lowest).toBeLessThanOrEqual(r.average + 0.1);
        expect(ratesOf({ ms: [...ms].reverse(), column: "" })).toMatchObject({ worst1: r.worst1, lowest: r.lowest });
      }),
    );
  });
});

describe("what was promised against what was measured", () => {
  it("a rate is at least, a noise at most; seen is kept; nothing is open, not tested is a result with its reason", () => {
    const rate = { about: "program", words: "the race at 1440p", value: 60 };
    expect(verdictOf(rate, { ...proof, value: 71 })).toEqual({ verdict: "kept", because: "Measured 71, promised at least 60." });
    expect(verdictOf(rate, { ...proof, value: 52 }).verdict).toBe("not kept");
    const quiet = { about: "quiet", words: "30 dB(A)", value: 30 };
    expect(verdictOf(quiet, { ...proof, value: 29 }).verdict).toBe("kept");
    expect(verdictOf(quiet, { ...proof, value: 33 }).verdict).toBe("not kept");
    expect(verdictOf(quiet, undefined).verdict).toBe("open");
    expect(verdictOf(quiet, { ...proof, result: "not tested", why: "no meter" })).toEqual({ verdict: "not tested", because: "no meter" });
    // A number with nothing to hold it against is no proof until somebody says so.
    const loose = { about: "program", words: "the race, smooth" };
    expect(verdictOf(loose, { ...proof, value: 20 })).toMatchObject({ verdict: "open", because: expect.stringContaining("no number was promised") });
    expect(verdictOf(loose, { ...proof, value: 71, result: "seen" }).verdict).toBe("kept");
    expect(verdictOf({ about: "installed", words: "the office set" }, { ...proof, result: "seen" }).verdict).toBe("kept");
  });
  it("what cannot be is pointed out: worst above average, a finer picture that is faster", () => {
    expect(absurdities([{ words: "The race", proof: { ...proof, value: 60, worst1: 80 } }])).toEqual([expect.stringContaining("above the average")]);
    const at = (words: string, pixels: number, value: number) => ({ words, proof: { ...proof, pixels, value } });
    expect(absurdities([at("The race, 2560 × 1440", 3_686_400, 90), at("The race, 1920 × 1080", 2_073_600, 70)])).toEqual([
      expect.stringContaining("finer picture"),
    ]);
    expect(absurdities([at("The race, 2560 × 1440", 3_686_400, 60), at("The race, 1920 × 1080", 2_073_600, 70)])).toEqual([]);
    expect(absurdities([at("Another, 2560 × 1440", 3_686_400, 90), at("The race, 1920 × 1080", 2_073_600, 70)])).toEqual([]);
  });
});

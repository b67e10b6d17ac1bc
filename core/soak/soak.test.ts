import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MOST_THINNED, readReadings, soakOf, thinned } from ".";

/** A lump of heat: T = T0 + P R (1 − e^(−t/τ)) (lumped capacity, textbook formula); with 65 W, 0.8 K/W, τ 300 s it ends at 25 + 52 = 77 °C. */
const lump = (t: number, watts = 65) => 25 + watts * 0.8 * (1 - Math.exp(-t / 300));
const logOf = (everyS: number, minutes: number, watts: number, mhz: (t: number) => number) => {
  const rows = [];
  for (let t = 0; t <= minutes * 60; t += everyS) rows.push(`${t};${lump(t, watts).toFixed(2).replace(".", ",")};${mhz(t).toFixed(0)};100`);
  return `Time [s];CPU Package [°C];CPU Clock [MHz];CPU Load [%]\n${rows.join("\n")}\n`;
};
const read = (text: string) => {
  const r = readReadings(text);
  if (typeof r === "string") throw new Error(r);
  return r;
};

describe("a soak's readings", () => {
  it("of a machine that heats up as a lump does end where the formula says, and the soak held", () => {
    const s = soakOf(read(logOf(2, 45, 65, () => 4800)));
    expect(s.verdict).toBe("held");
    expect(s.minutes).toBe(45);
    expect(s.maxima[0]).toMatchObject({ name: "CPU Package [°C]", part: "cpu", limit: 95 });
    expect(Math.abs((s.maxima[0]?.value ?? 0) - lump(2700))).toBeLessThan(0.2);
    expect(s.lowestClock).toEqual({ name: "CPU Clock [MHz]", mhz: 4800, ofMhz: 4800 });
  });
  it("the verdict is the same however often was sampled, up to ten seconds", () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 110 }), fc.integer({ min: 10, max: 60 }), fc.boolean(), (watts, minutes, slows) => {
        const mhz = (t: number) => (slows && t > 300 && t < 400 ? 2000 : 4500);
        const soaks = [1, 2, 5, 10].map((every) => soakOf(read(logOf(every, minutes, watts, mhz))));
        expect(new Set(soaks.map((s) => s.verdict)).size, soaks.map((s) => `${s.verdict} ${s.maxima[0]?.value}`).join()).toBe(1);
        const tops = soaks.map((s) => s.maxima[0]?.value ?? 0);
        expect(Math.max(...tops) - Math.min(...tops)).toBeLessThan(0.5);
      }),
      { numRuns: 12 },
    );
  });
  it("too hot, slowed down, cut short, interrupted and still rising are told apart, with their numbers", () => {
    const of = (text: string) => soakOf(read(text));
    expect(of(logOf(2, 45, 95, () => 4800))).toMatchObject({ verdict: "too hot", because: [expect.stringMatching(/held 10\d(\.\d)? °C, of 95 °C/)] });
    expect(of(logOf(2, 45, 65, (t) => (t > 1200 ? 3000 : 4800)))).toMatchObject({
      verdict: "slowed down",
      because: [expect.stringMatching(/fell to 3000 MHz under load, of 4800/)],
    });
    expect(of(logOf(2, 12, 65, () => 4800)).verdict).toBe("cut short");
    const gap = logOf(2, 45, 65, () => 4800)
      .split("\n")
      .filter((l) => !/^(?:9\d\d|10\d\d);/.test(l))
      .join("\n");
    expect(of(gap)).toMatchObject({ verdict: "interrupted", because: [expect.stringMatching(/^Once nothing was read/)] });
    const slow = Array.from({ length: 1801 }, (_, t) => `${t};${(40 + t / 60).toFixed(2)}`).join("\n");
    expect(of(`Time;CPU temp °C\n${slow}`)).toMatchObject({ verdict: "still rising" });
  });
  it("load that begins and ends within the log slows nothing down, however often was sampled", () => {
    for (const every of [1, 2, 5, 10, 20]) {
      const rows = [];
      for (let t = 0; t <= 4200; t += every) {
        const busy = t >= 300 && t < 3900;
        rows.push(
          `${t};${lump(Math.max(0, t - 300), busy ? 65 : 10)
            .toFixed(1)
            .replace(".", ",")};${busy ? 4500 : 1100};${busy ? 100 : 3}`,
        );
      }
      const s = soakOf(read(`Time [s];CPU Package [°C];CPU Clock [MHz];CPU Load [%]\n${rows.join("\n")}\n`));
      expect([every, s.verdict, s.lowestClock?.mhz]).toEqual([every, "held", 4500]);
    }
  });
  it("one sample that jumps is no maximum, and what no part reads is left out and told", () => {
    const rows = logOf(2, 45, 65, () => 4800).split("\n");
    rows[500] = (rows[500] ?? "").replace(/;[\d,]+;/, ";94,0;");
    rows[600] = (rows[600] ?? "").replace(/;[\d,]+;/, ";655,35;");
    const r = read(rows.join("\n"));
    expect(r.faults).toEqual([expect.stringMatching(/CPU Package \[°C\]”: 1 of 1351 readings/)]);
    expect(soakOf(r).maxima[0]?.value).toBeLessThan(82);
  });
  it("a machine that idles has not soaked, one of which no temperature was logged is not judged; neither is called held", () => {
    const idle = logOf(2, 45, 20, () => 4800).replace(/;100$/gm, ";4");
    expect(soakOf(read(idle))).toMatchObject({ verdict: "no load", because: [expect.stringMatching(/^It was at work for 0 minutes, of 30\.$/)] });
    const clocks = Array.from({ length: 1300 }, (_, i) => `${i * 2};4800`).join("\n");
    expect(soakOf(read(`Time;CPU Clock MHz\n${clocks}`)).verdict).toBe("not judged");
    const unsaid = Array.from({ length: 1300 }, (_, i) => `${i * 2};60`).join("\n");
    expect(soakOf(read(`Time;CPU temp °C\n${unsaid}`))).toMatchObject({
      verdict: "held",
      because: [expect.stringMatching(/at work was not logged\.$/)],
    });
  });
  it("a log of days, or one that is written every two minutes, is no row of gaps", () => {
    const every = (s: number, n: number) => read(`Time;CPU temp °C\n${Array.from({ length: n }, (_, i) => `${i * s};60`).join("\n")}`);
    expect(soakOf(every(120, 60)).verdict).toBe("held");
    const days = every(20, 15_000);
    expect(soakOf(days).verdict).toBe("held");
    const t = thinned(days);
    expect(t.atS.length).toBeLessThanOrEqual(MOST_THINNED);
    expect(soakOf({ ...days, atS: t.atS, values: t.values.map((v) => v.map((x) => x ?? Number.NaN)) }).verdict).toBe("held");
  });
});

describe("a log that is thinned", () => {
  it("has as few moments as are kept, its gaps, and the same verdict", () => {
    const long = read(logOf(1, 150, 65, () => 4700));
    const t = thinned(long);
    expect(t.atS.length).toBeLessThanOrEqual(MOST_THINNED);
    const back = { ...long, atS: t.atS, values: t.values.map((v) => v.map((x) => x ?? Number.NaN)) };
    const [a, b] = [soakOf(long), soakOf(back)];
    expect([b.verdict, b.lowestClock]).toEqual([a.verdict, a.lowestClock]);
    expect(Math.abs((a.maxima[0]?.value ?? 0) - (b.maxima[0]?.value ?? 0))).toBeLessThan(0.5);
    const gap = read(
      logOf(1, 90, 65, () => 4700)
        .split("\n")
        .filter((l) => !/^2\d\d\d;/.test(l))
        .join("\n"),
    );
    const g = thinned(gap);
    expect(soakOf({ ...gap, atS: g.atS, values: g.values.map((v) => v.map((x) => x ?? Number.NaN)) }).verdict).toBe("interrupted");
    const short = read(logOf(2, 40, 65, () => 4700));
    expect(thinned(short).atS).toEqual(short.atS);
  });
});

describe("a log as tools write it", () => {
  it("with clocks over midnight, dates of their own, commas or points, GHz; what is not understood is named", () => {
    const night = read("Time,CPU Temp (°C),Core Clock (GHz),Voltage (V)\n23:59:58,60,4.5,1.2\n23:59:59,61,4.5,1.2\n00:00:01,62,4.6,1.2");
    expect(night.atS).toEqual([0, 1, 3]);
    expect(night.values[1]).toEqual([4500, 4500, 4600]);
    expect(night.unknown).toEqual(["Voltage (V)"]);
    const dated = read('Datum;GPU Temperatur [°C]\n"01.12.2026 10:00:00";61,5\n"01.12.2026 10:00:02";62,5\n');
    expect([dated.atS, dated.columns[0]?.part, dated.values[0]]).toEqual([[0, 2], "card", [61.5, 62.5]]);
    expect(read("Date,Time,GPU Fan Speed (rpm)\n2026-12-01,10:00:00.5,900\n2026-12-01,10:00:01.5,950").atS).toEqual([0, 1]);
  });
  it("that is none, empty, without a time, cut off or runs backwards is answered in a sentence, or read as far as it goes", () => {
    expect(readReadings("")).toMatch(/fewer than two readings/);
    expect(readReadings("a,b\nx,y\nz,w\nq,r")).toMatch(/No column of the log holds a time/);
    expect(readReadings("Time,Voltage\n1,2\n2,3\n3,4")).toMatch(/No column of the log is a temperature/);
    expect(readReadings("x".repeat(20_000_001))).toMatch(/at most 20000000/);
    const back = read("Time,CPU temp °C\n10,50\n20,51\n5,40\n30,52");
    expect([back.atS, back.faults.length]).toEqual([[0, 10, 10, 20], 1]);
    expect(read("Time,CPU temp °C\n10,50\n20,51\n30").faults).toEqual([expect.stringMatching(/1 of 3 readings are missing/)]);
  });
});

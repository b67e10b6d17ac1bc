import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { DEMO, demo } from "../../tests/fixtures/demo";
import { given, T } from "../../tests/fixtures/small";
import { buildGraph } from "../assembly";
import { airOf, FILTERED, flowForHeatM3h, inAndOut, MOUNTED, soundAtDb, soundSumDb, THROUGH_RADIATOR, usualWay } from ".";

type Json = Record<string, unknown>;
const fanType = (flow: number, noise: number, size = 120) => ({
  ...T.fan("f", 0.2),
  body: { widthMm: size, depthMm: 25 },
  ratings: { flowM3h: flow, noiseDb: noise, rpm: 1500 },
});
const mounts: Json[] = [
  { ...T.mount("front-1", "front", 440, 100), sizeMm: 140, filter: true },
  { ...T.mount("front-2", "front", 440, 240), sizeMm: 140 },
  { ...T.mount("front-3", "front", 440, 380), sizeMm: 140 },
  { ...T.mount("rear-1", "rear", 10, 120), sizeMm: 120 },
  { ...T.mount("top-1", "top", 120, 10), sizeMm: 120 },
  { ...T.mount("top-2", "top", 240, 10), sizeMm: 120 },
  { ...T.mount("bottom-1", "bottom", 200, 440), sizeMm: 120 },
];
const build = (fans: Json[], more: Json[] = [], flow = 100) =>
  given(
    [T.case("c", mounts), fanType(flow, 24), ...more],
    [
      { id: "case", type: "c" },
      ...fans.map((f, i) => ({ id: `fan-${i}`, type: "f", ...f })),
      ...more.map((m, i) => ({ id: `extra-${i}`, type: m.id as string })),
    ],
  ).graph;

describe("fan laws (handbook, e.g. ASHRAE; from memory)", () => {
  it("flow is as speed: half the speed, half the flow", () => {
    const g = build([{ mount: "front-2" }]);
    expect(airOf(g, 0.5).inM3h).toBeCloseTo(airOf(g, 1).inM3h / 2, 9);
  });
  it("sound: 50 log10 of the ratio of speeds; half speed is 15.05 dB less", () => {
    expect(soundAtDb(40, 1)).toBe(40);
    expect(soundAtDb(40, 0.5)).toBeCloseTo(40 - 15.0515, 3);
    expect(soundAtDb(10, 0.2)).toBe(0);
  });
  it("equal sources: 10 log10 N; two are 3.01 dB more, ten are 10 dB more", () => {
    expect(soundSumDb([24, 24])).toBeCloseTo(27.0103, 3);
    expect(soundSumDb(Array(10).fill(24))).toBeCloseTo(34, 9);
    expect(soundSumDb([])).toBe(0);
  });
  it("unequal sources: one 10 dB below adds 0.41 dB", () => {
    expect(soundSumDb([30, 20])).toBeCloseTo(30.4139, 3);
  });
  it("heat: 100 W at 10 K wants about 29.7 m³/h (V = P / (rho cp dT), 1.204 kg/m³ and 1006 J/(kg K) at 20 °C)", () => {
    expect(flowForHeatM3h(100)).toBeCloseTo(29.72, 1);
    expect(flowForHeatM3h(500, 5)).toBeCloseTo(flowForHeatM3h(1000), 9);
  });
});

describe("what is left behind filter and radiator (common practice), by hand", () => {
  it("100 m³/h at 60 %: 51 mounted, 40.8 behind a filter", () => {
    const a = airOf(build([{ mount: "front-1" }, { mount: "front-2" }]), 0.6);
    expect(a.fans.map((f) => Number(f.flowM3h?.toFixed(1)))).toEqual([40.8, 51]);
    expect(a.fans[0]?.through).toEqual(["filter"]);
    expect(MOUNTED * FILTERED).toBeCloseTo(0.68, 9);
  });
  it("through a radiator 100 × 0.6 × 0.85 × 0.6 = 30.6", () => {
    const cooler = {
      id: "rad",
      kind: "cooler",
      maker: "",
      name: "rad",
      body: { radiator: { fanMm: 120, fans: 2, lengthMm: 277, widthMm: 120, thicknessMm: 27 } },
    };
    const shell = {
      ...T.case("c", mounts),
      body: {
        ...(T.case("c", mounts).body as Json),
        radiatorPlaces: [{ id: "top", label: "top", region: "top", mounts: ["top-1", "top-2"], fanMm: [120], maxLengthMm: 300, maxThicknessMm: 60 }],
      },
    };
    const g = given(
      [shell, fanType(100, 24), cooler],
      [
        { id: "case", type: "c" },
        { id: "cooler", type: "rad" },
        { id: "fan-1", type: "f", mount: "top-1", zone: "radiator" },
      ],
    ).graph;
    const f = airOf(g, 0.6).fans[0];
    expect(f?.flowM3h).toBeCloseTo(100 * 0.6 * MOUNTED * THROUGH_RADIATOR, 9);
    expect(f?.through).toEqual(["radiator"]);
  });
});

describe("which way, and what the sign means", () => {
  it("front, bottom and side in; top and rear out (common practice), unless the part says otherwise", () => {
    expect((["front", "bottom", "side", "top", "rear"] as const).map(usualWay)).toEqual(["in", "in", "in", "out", "out"]);
    expect(airOf(build([{ mount: "rear-1", blows: "in" }])).fans[0]?.blows).toBe("in");
  });
  it.each([
    [["front-2", "front-3"], ["rear-1"], "over", /only through the filters/],
    [["front-2"], ["rear-1"], "balanced", /nearly equal/],
    [["front-2"], ["rear-1", "top-1"], "under", /without a filter, and brings dust/],
    [[], [], "still", /rises by itself/],
  ] as const)("in at %j, out at %j: %s", (ins, outs, sign, why) => {
    const a = airOf(build([...ins, ...outs].map((mount) => ({ mount }))));
    expect(a.sign).toBe(sign);
    expect(a.why).toMatch(why);
  });
  it("a top fan blowing in, a floor fan blowing out, and one against its neighbours are named", () => {
    const a = airOf(
      build([
        { mount: "top-1", blows: "in" },
        { mount: "bottom-1", blows: "out" },
        { mount: "front-1" },
        { mount: "front-2" },
        { mount: "front-3", blows: "out" },
      ]),
    );
    const of = (mount: string) => a.fans.find((f) => f.part.part.mount === mount)?.against;
    expect(of("top-1")).toMatch(/blows it back down/);
    expect(of("bottom-1")).toMatch(/draws it down/);
    expect(of("front-3")).toMatch(/neighbours at the front blow in/);
    expect(of("front-1")).toBeUndefined();
  });
});

describe("fans that could be left out", () => {
  const hot = { id: "hot", kind: "card", maker: "", name: "hot", ratings: { peakW: 100 } };
  it("with little heat one in and one out are enough; without one side nothing is left out of it", () => {
    const a = airOf(build([{ mount: "front-1" }, { mount: "front-2" }, { mount: "front-3" }, { mount: "rear-1" }, { mount: "top-1" }], [hot]));
    expect(a.neededM3h).toBeCloseTo(flowForHeatM3h(70), 6);
    const left = a.fans.filter((f) => !a.spare.includes(f.part));
    expect(left.some((f) => f.blows === "in")).toBe(true);
    expect(left.some((f) => f.blows === "out")).toBe(true);
    expect(a.spare.length).toBeGreaterThan(0);
  });
  it("what is called spare really is: without it the heat is carried and the sign stays", () => {
    for (const name of DEMO) {
      const { graph } = demo(name);
      const a = airOf(graph);
      if (a.spare.length === 0) continue;
      const gone = new Set(a.spare.map((p) => p.id));
      const left = a.fans.filter((f) => !gone.has(f.part.id));
      const sum = (way: string) => left.filter((f) => f.blows === way).reduce((s, f) => s + (f.flowM3h ?? Number.NaN), 0);
      expect([name, Math.max(sum("in"), sum("out")) >= a.neededM3h]).toEqual([name, true]);
    }
  });
});

describe("what holds of every case", () => {
  const some = fc.uniqueArray(fc.constantFrom(...mounts.map((m) => m.id as string)), { maxLength: 7 });
  it("faster is never quieter and never moves less; in and out add up over the fans", () => {
    fc.assert(
      fc.property(some, fc.double({ min: 0.2, max: 0.95, noNaN: true }), (ids, share) => {
        const g = build(ids.map((mount) => ({ mount })));
        const [slow, fast] = [airOf(g, share), airOf(g, Math.min(1, share + 0.05))];
        expect(fast.noiseDb).toBeGreaterThanOrEqual(slow.noiseDb - 1e-9);
        expect(fast.inM3h).toBeGreaterThanOrEqual(slow.inM3h - 1e-9);
        expect(slow.inM3h + slow.outM3h).toBeCloseTo(
          slow.fans.reduce((s, f) => s + (f.flowM3h ?? Number.NaN), 0),
          6,
        );
        expect(slow.noiseFullDb).toBeGreaterThanOrEqual(slow.noiseDb - 1e-9);
      }),
      cases(80, 67),
    );
  });
});

it("two fans on the two sides of one radiator are in series: not twice the flow, but more than one alone", () => {
  const make = (fans: number) =>
    given(
      [
        T.case("c", [{ id: "m", label: "front top", region: "front", takes: ["fan", "radiator"], at: { xMm: 430, yMm: 100 }, sizeMm: 120 }], {
          radiatorPlaces: [{ id: "front", label: "front", region: "front", mounts: ["m"], fanMm: [120], maxLengthMm: 160, maxThicknessMm: 90 }],
        }),
        { ...T.fan("f", 0.2), ratings: { flowM3h: 100, noiseDb: 20 }, body: { widthMm: 120, depthMm: 25 } },
        {
          id: "k",
          kind: "cooler",
          maker: "",
          name: "k",
          body: { radiator: { fanMm: 120, fans: 1, lengthMm: 157, widthMm: 120, thicknessMm: 27 } },
        },
      ],
      [
        { id: "case", type: "c" },
        { id: "cooler", type: "k" },
        ...Array.from({ length: fans }, (_, i) => ({ id: `f${i}`, type: "f", mount: "m", zone: "radiator" })),
      ],
    ).graph;
  const [one, two] = [airOf(make(1), 1).inM3h, airOf(make(2), 1).inM3h];
  expect(two).toBeGreaterThan(one);
  expect(two).toBeLessThan(1.5 * one);
  expect(airOf(make(2), 1).fans.map((f) => (f.flowM3h ?? Number.NaN) > 0)).toEqual([true, false]);
});

it("air that nobody knows is in no sum: at least so much, no sign, and none that could be left out", () => {
  const { build, types } = demo("fs-1041");
  const known = buildGraph(build, types);
  const nameless = buildGraph(build, (id) => {
    const t = types(id);
    return t?.kind === "fan" && t.id === "whirrow-140" ? { ...t, ratings: { ...t.ratings, flowM3h: undefined, noiseDb: undefined } } : t;
  });
  const [a, b] = [airOf(known), airOf(nameless)];
  expect(b.inM3h).toBeLessThan(a.inM3h);
  expect(b.unknown.map((p) => p.id)).toEqual(["fan-front-1", "fan-front-2", "fan-front-3"]);
  expect([b.sign, b.spare, inAndOut(nameless).startsWith("at least")]).toEqual(["unknown", [], true]);
  expect(b.why).toMatch(/Not counted: Front fan top, .+; how much air they move is not known\.$/);
  expect(inAndOut(known)).not.toContain("at least");
});

import { describe, expect, it } from "vitest";
import { given, T } from "../../tests/fixtures/small";
import { airOf } from "../air";
import { buildGraph, type Graph } from "../assembly";
import { checkParts, withTriedWays } from "../checks";
import { clearances, tubes } from ".";

type Json = Record<string, unknown>;
const mount = (id: string, region: string, xMm: number, yMm: number, more: Json = {}) => ({ ...T.mount(id, region, xMm, yMm), ...more });
const FRONT = { id: "front", label: "front", region: "front", mounts: ["f1", "f2"], fanMm: [120], maxLengthMm: 300, maxThicknessMm: 60 };
const shell = (body: Json = {}) =>
  T.case(
    "c",
    [
      mount("f1", "front", 440, 120, { sizeMm: 120, frame: "either" }),
      mount("f2", "front", 440, 240, { sizeMm: 120, frame: "either" }),
      mount("r1", "rear", 10, 120, { sizeMm: 120 }),
      mount("bay", "top", 100, 20, { takes: ["supply"] }),
    ],
    { maxCardMm: 400, maxCoolerMm: 165, radiatorPlaces: [FRONT], ...body },
  );
const board = T.board("b", [
  T.port("CPU", "cpu-socket", "in", "cpu", { at: { xMm: 100, yMm: 85 } }),
  T.port("SLOT", "pcie-slot", "in", "expansion", { at: { xMm: 40, yMm: 165 } }),
]);
const fan = (depthMm = 25, more: Json = {}) => ({
  ...T.fan("f", 0.2),
  body: { widthMm: 120, depthMm },
  ratings: { flowM3h: 100, noiseDb: 25 },
  ...more,
});
const radiator = (more: Json = {}) => ({
  id: "cooler",
  kind: "cooler",
  maker: "",
  name: "cooler",
  body: { radiator: { fanMm: 120, fans: 2, lengthMm: 277, widthMm: 120, thicknessMm: 27, ...more } },
});
const card = { id: "card", kind: "card", maker: "", name: "card", body: { widthMm: 340, slots: 2 } };
const graphOf = (types: Json[], parts: Json[], body: Json = {}): Graph =>
  given([shell(body), board, ...types], [{ id: "case", type: "c" }, { id: "board", type: "b" }, ...parts]).graph;
const of = (g: Graph, id: string) => clearances(g).find((c) => c.id === id);
const row = (frame: "inside" | "outside", n: string) =>
  [1, 2].map((i) => ({ id: `fan-${n}${i}`, type: "f", mount: `f${i}`, zone: "radiator", frame }));

describe("a block of inner row, radiator and outer row", () => {
  it("takes what stands inside: 27 + 25 with one row there, 27 alone with both outside, 27 + 25 with one row on each side", () => {
    const parts = (fans: Json[]) => [{ id: "cooler", type: "cooler", mount: "front" }, { id: "card-1", type: "card" }, ...fans];
    const at = (fans: Json[]) => of(graphOf([fan(), radiator(), card], parts(fans)), "card-length:card-1");
    expect(at(row("inside", "a"))).toMatchObject({ has: 400 - 27 - 25 });
    expect(at(row("outside", "a"))).toMatchObject({ has: 400 - 27 });
    expect(at([...row("inside", "a"), ...row("outside", "b")])).toMatchObject({ has: 400 - 27 - 25 });
    // Two rows inside would be 27 + 2 × 25; the place takes 60.
    const both = graphOf([fan(), radiator(), card], parts([...row("inside", "a"), ...row("inside", "b")]));
    expect(of(both, "radiator-thickness:cooler")).toMatchObject({ need: 77, has: 60, verdict: "not" });
    const split = graphOf([fan(), radiator(), card], parts([...row("inside", "a"), ...row("outside", "b")]));
    expect(of(split, "radiator-thickness:cooler")).toMatchObject({ need: 52, verdict: "fits" });
  });
  it("the gap behind the front panel is asked of what sits outside the frame: 38 mm fans in 30 mm do not go; inside the frame is the way out", () => {
    const parts = [1, 2].map((i) => ({ id: `fan-${i}`, type: "f", mount: `f${i}`, frame: "outside" }));
    const g = graphOf([fan(38)], parts, { frontGapMm: 30 });
    expect(of(g, "front-gap")).toMatchObject({ need: 38, has: 30, left: -8, verdict: "not" });
    const said = withTriedWays(g, checkParts(g)).find((f) => f.rule === "front-gap");
    expect(said).toMatchObject({ severity: "stop", ways: ["Front fans inside the frame: then nothing has to go in there."] });
    expect(of(graphOf([fan(38)], parts), "front-gap")).toBeUndefined();
    expect(of(graphOf([fan(25)], parts, { frontGapMm: 30 }), "front-gap")).toMatchObject({ left: 5 });
  });
});

describe("tubes of a pump head that turns only so far", () => {
  const at = (leavesPump?: string[]) =>
    tubes(
      graphOf(
        [fan(), radiator({ tubeMm: 400, ...(leavesPump ? { leavesPump } : {}) })],
        [{ id: "cooler", type: "cooler", mount: "front" }, ...row("inside", "a")],
      ),
    )[0];
  it("come out towards the radiator as they are; on the far side only, they go 80 mm further", () => {
    const free = at();
    expect(at(["front"])?.reachMm).toBe(free?.reachMm);
    // The radiator is in front, its lower end below the pump: only the rear and the top are on the far side.
    expect(at(["rear"])?.reachMm).toBe((free?.reachMm ?? 0) + 80);
  });
});

describe("a supply over the board", () => {
  const supply = (more: Json = {}) => ({ ...T.supply("s", [], []), ratings: { powerW: 600, flowM3h: 40 }, ...more });
  const parts = (more: Json = {}) => [
    { id: "fan-1", type: "f", mount: "f1" },
    { id: "supply", type: "s", mount: "bay", ...more },
  ];
  it("draws the case's air out, and counts; turned to draw from outside it does not", () => {
    const alone = airOf(graphOf([fan()], [{ id: "fan-1", type: "f", mount: "f1" }]));
    const over = airOf(graphOf([fan(), supply()], parts()));
    expect(over.outM3h - alone.outM3h).toBe(40);
    expect(over.why).toContain("The supply over the board draws 40 m³/h out with them.");
    expect(airOf(graphOf([fan(), supply()], parts({ blows: "in" }))).outM3h).toBe(alone.outM3h);
  });
});

describe("a fan over the memory", () => {
  it("is clipped higher by what the modules are too tall, where the panel still closes", () => {
    const tower = { id: "t", kind: "cooler", maker: "", name: "t", body: { heightMm: 158, underMm: 40 } };
    const ram = (heightMm: number) => ({ id: "ram", kind: "memory", maker: "", name: "ram", body: { heightMm } });
    const at = (heightMm: number) =>
      graphOf(
        [tower, ram(heightMm)],
        [
          { id: "cooler", type: "t" },
          { id: "mem", type: "ram" },
        ],
      );
    const ways = (g: Graph) => withTriedWays(g, checkParts(g)).find((f) => f.rule === "memory-room")?.ways ?? [];
    expect(ways(at(44))).toEqual(["The cooler's front fan clipped 4 mm higher: 0 mm left."]);
    // 158 + 9 mm is more than the 165 mm under the panel: that is no way out.
    expect(ways(at(49))).toEqual([]);
  });
});

describe("standoffs", () => {
  const hole = (id: string, xMm: number) => ({ id, at: { xMm, yMm: 10 } });
  const holed = { ...board, body: { widthMm: 244, heightMm: 244, holes: [hole("A", 10)] } };
  const g = (more: Json, ofBoard: Json = {}) =>
    given(
      [shell({ holes: [hole("A", 10), hole("B", 100)] }), holed],
      [
        { id: "case", type: "c", ...more },
        { id: "board", type: "b", ...ofBoard },
      ],
    ).graph;
  it("one to take out is said; left in under a board that is in, it is a stop, until somebody says that they are set", () => {
    const of = (graph: Graph) => checkParts(graph).find((f) => f.rule === "standoffs");
    expect(of(g({}))).toMatchObject({ severity: "warn", message: expect.stringContaining("Take 1 standoff out: B") });
    expect(of(g({}, { inCase: true }))).toMatchObject({ severity: "stop", message: expect.stringContaining("1 standoff came out from under it: B") });
    expect(of(g({ standoffsSet: true }, { inCase: true }))).toBeUndefined();
  });
});

describe("a way out, applied, does what it said", () => {
  it("a supply of the smaller format goes on a bracket: the copy that was judged is the build that has it", () => {
    const small = { ...T.supply("s", [], []), body: { formFactor: "SFX" } };
    const { build, types, graph } = given(
      [shell({ supplyForms: ["ATX"] }), board, small],
      [
        { id: "case", type: "c" },
        { id: "board", type: "b" },
        { id: "supply", type: "s" },
      ],
    );
    const found = withTriedWays(graph, checkParts(graph)).find((f) => f.rule === "form-factors");
    expect(found?.ways).toEqual([expect.stringMatching(/^On a bracket from SFX to ATX, to order: removes 1 of \d+ stops?\.$/)]);
    const after = buildGraph({ ...build, parts: build.parts.map((p) => (p.id === "supply" ? { ...p, bracket: true } : p)) }, types);
    expect(checkParts(after).filter((f) => f.rule === "form-factors")).toEqual([]);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../../tests/cases";
import { DEMO, demo } from "../../../tests/fixtures/demo";
import { type Given, given, T } from "../../../tests/fixtures/small";
import { leadToPortMm } from "../../routes";
import { type Ways, wayWords } from "../../wiring";
import { plan, waysIn } from "..";

const ways = async (g: Given): Promise<Ways | undefined> => waysIn(await plan(g.build, g.types), g.types);
const words = (g: Given, w: Ways | undefined) => w?.needs.map((n) => wayWords(g.graph, g.types, n));

const shell = (mounts: number) =>
  T.case(
    "c",
    Array.from({ length: mounts }, (_, i) => T.mount(`m${i}`, "front", 100 + 20 * i, 60)),
  );
const fans = (n: number, headers: number, more: { accessories?: { type: string; count: number }[]; currentA?: number; limitA?: number } = {}) =>
  given(
    [
      shell(n),
      T.board(
        "b",
        Array.from({ length: headers }, (_, i) => T.header(`H${i + 1}`, 20 + 30 * i, { limit: { currentA: more.limitA ?? 2, startCurrentA: 9 } })),
      ),
      T.fan("f", more.currentA ?? 0.2),
      T.splitter("s2", 2),
      T.splitter("s3", 3),
    ],
    [{ id: "case", type: "c" }, { id: "board", type: "b" }, ...Array.from({ length: n }, (_, i) => ({ id: `fan${i}`, type: "f", mount: `m${i}` }))],
    { policy: { mayOrder: false }, accessories: more.accessories ?? [] },
  );

describe("what would let everything in", () => {
  it("nothing is said where nothing wanted is free", async () => {
    expect(await ways(fans(3, 3))).toBeUndefined();
  });
  it("7 fans, 6 places: one more splitter, and the two-way one is enough", async () => {
    const g = fans(7, 6, { accessories: [{ type: "s2", count: 0 }] });
    const w = await ways(g);
    expect(w).toMatchObject({ needs: [{ kind: "accessory", type: "s2", count: 1 }], left: [], proved: true });
    expect(w?.lets).toHaveLength(1);
    expect(words(g, w)).toEqual(["1 more s2"]);
  });
  it("three fans too many: one three-way splitter and a two-way one, not three two-way ones", async () => {
    const w = await ways(
      fans(5, 2, {
        accessories: [
          { type: "s2", count: 0 },
          { type: "s3", count: 0 },
        ],
      }),
    );
    expect(w?.needs.map((n) => (n.kind === "accessory" ? n.count : 0)).reduce((a, b) => a + b, 0)).toBe(2);
    expect(w?.lets).toHaveLength(3);
  });
  it("a shelf without splitters: what is missing is a place", async () => {
    const w = await ways(fans(3, 2));
    expect(w?.needs).toMatchObject([{ kind: "place", family: "fan-4", count: 1 }]);
  });
  it("a fan that takes more than any header gives: by how much", async () => {
    const g = fans(1, 1, { currentA: 1.5, limitA: 1 });
    const w = await ways(g);
    // 1.5 A on 1 A, by hand: 0.5 A over.
    expect(w?.needs).toMatchObject([{ kind: "limit", of: "mA", over: 500 }]);
    expect(words(g, w)).toEqual(["0.5 A more on H1 than it gives"]);
  });
  it("a lead that is too short: the millimetres that are missing", async () => {
    const g = given(
      [
        shell(1),
        T.board("b", [T.header("H1", 20)]),
        { ...T.fan("f", 0.2), leads: [T.lead("lead", "fan-4", "case-fan", 100, { load: { currentA: 0.2 } })] },
      ],
      [
        { id: "case", type: "c" },
        { id: "board", type: "b" },
        { id: "fan", type: "f", mount: "m0" },
      ],
    );
    const [lead, port] = [g.graph.leads.get("fan:lead"), g.graph.ports.get("board:H1")];
    if (!lead || !port) throw new Error("gone");
    const missing = Math.ceil(leadToPortMm(g.graph, lead, port) - 100);
    expect(missing).toBeGreaterThan(0);
    expect((await ways(g))?.needs).toEqual([{ kind: "longer", end: "fan:lead", mm: missing }]);
  });
  it("a drive without a data cable, and a plug of power that does not reach", async () => {
    const g = given(
      [
        T.case("c", [T.mount("m0", "bottom", 300, 300), T.mount("bay", "bottom", 60, 420)]),
        T.board("b", [T.port("S1", "sata-data", "out", "drive-data", { at: { xMm: 200, yMm: 100 } })], {
          cables: [
            {
              id: "sata",
              label: "SATA data",
              count: 1,
              ends: [
                { id: "a", family: "sata-data", atMm: 0 },
                { id: "b", family: "sata-data", atMm: 900 },
              ],
            },
          ],
        }),
        T.supply("p", [{ id: "sata", label: "SATA", count: 1, outlets: ["peri"], ends: [{ id: "s1", family: "sata-power", atMm: 50 }] }], ["peri"]),
        T.drive("d"),
      ],
      [
        { id: "case", type: "c" },
        { id: "board", type: "b" },
        { id: "supply", type: "p", mount: "bay" },
        { id: "drive", type: "d", mount: "m0" },
      ],
    );
    const w = await ways(g);
    expect(w?.needs).toMatchObject([{ kind: "longer", end: "drive:power" }]);
    expect(words(g, w)?.[0]).toMatch(/^a plug that reaches .+: \d+ mm are missing$/);
  });
  it("a plug that somebody fixed in the way: to let go of it is enough", async () => {
    const g = fans(2, 2, { limitA: 1 });
    const held = { ...g.build, connections: [{ lead: "fan0:lead", port: "board:H2", state: "fixed" as const }] };
    // Without anything fixed both fit; the only header that the other reaches is held.
    const short = given(
      [
        T.case("c", [T.mount("m0", "front", 60, 60), T.mount("m1", "front", 60, 60)]),
        T.board("b", [T.header("H1", 20), T.header("H2", 240)]),
        { ...T.fan("short", 0.2), leads: [T.lead("lead", "fan-4", "case-fan", 150, { load: { currentA: 0.2 } })] },
        T.fan("long", 0.2),
      ],
      [
        { id: "case", type: "c" },
        { id: "board", type: "b" },
        { id: "short", type: "short", mount: "m0" },
        { id: "long", type: "long", mount: "m1" },
      ],
      { policy: { mayOrder: false }, connections: [{ lead: "long:lead", port: "board:H1", state: "fixed" }] },
    );
    expect(await waysIn(await plan(held, g.types), g.types)).toBeUndefined();
    expect(await ways(short)).toMatchObject({ lets: ["short:lead"], needs: [{ kind: "release", lead: "long:lead" }], left: [] });
  });
  it("what has no port of its kind at all is left: nothing is bought for it", async () => {
    for (const name of DEMO) {
      const { build, types } = demo(name);
      const made = await plan({ ...build, connections: [] }, types);
      const w = await waysIn(made, types);
      const wanted = made.free.filter((f) => f.need !== "optional").map((f) => f.end);
      if (wanted.length === 0) expect(w).toBeUndefined();
      else {
        expect([...(w?.lets ?? []), ...(w?.left ?? [])].sort()).toEqual(wanted.sort());
        if (w?.lets.length === 0) expect(w.needs).toEqual([]);
      }
    }
  }, 60_000);

  it("is as small as the smallest that trying every number of splitters finds, and a plan with it leaves nothing out", async () => {
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 2, max: 6 }), fc.integer({ min: 1, max: 3 }), fc.integer({ min: 0, max: 1 }), async (n, headers, shelf) => {
        const g = fans(n, headers, {
          accessories: [
            { type: "s2", count: shelf },
            { type: "s3", count: 0 },
          ],
          limitA: 1,
          currentA: 0.3,
        });
        const made = await plan(g.build, g.types);
        const w = await waysIn(made, g.types);
        const free = (p: typeof made) => p.free.filter((f) => f.need !== "optional").length;
        const withOrdered = (s2: number, s3: number) =>
          plan(
            {
              ...g.build,
              accessories: [
                { type: "s2", count: shelf, ordered: s2 },
                { type: "s3", count: 0, ordered: s3 },
              ],
            },
            g.types,
          );
        let least = Number.POSITIVE_INFINITY;
        for (let s2 = 0; s2 <= 3; s2++) for (let s3 = 0; s3 <= 3; s3++) if (s2 + s3 < least && free(await withOrdered(s2, s3)) === 0) least = s2 + s3;
        if (free(made) === 0) {
          expect(w).toBeUndefined();
          return;
        }
        const bought = w?.needs.reduce((sum, x) => sum + (x.kind === "accessory" ? x.count : 100), 0) ?? 0;
        if (Number.isFinite(least)) {
          expect(bought).toBe(least);
          const count = (t: string) => w?.needs.reduce((sum, x) => sum + (x.kind === "accessory" && x.type === t ? x.count : 0), 0) ?? 0;
          expect(free(await withOrdered(count("s2"), count("s3")))).toBe(0);
        } else expect(bought).toBeGreaterThanOrEqual(100);
      }),
      cases(12, 3),
    );
  }, 120_000);
});

it("a hub whose ports and whose supply are both too weak for what would hang on it is asked about both", async () => {
  const hub = {
    id: "h",
    kind: "hub",
    maker: "",
    name: "hub",
    ports: [
      T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 1 }, limit: { currentA: 1.5 } }),
      ...[1, 2].map((i) => T.port(`l-${i}`, "light-5v", "out", "light", { fedBy: "power", controlledBy: "in", limit: { currentA: 0.5 } })),
    ],
    leads: [T.lead("in", "light-5v", "light-control", 900, { load: { currentA: 0.02 } })],
  };
  const strip = { id: "s", kind: "lighting", maker: "", name: "strip", leads: [T.lead("in", "light-5v", "light", 900, { load: { currentA: 0.9 } })] };
  const g = given(
    [
      T.board("b", [T.port("RGB", "light-5v", "out", "light", { limit: { currentA: 0.1 } })]),
      T.supply("p", [{ id: "sata", label: "SATA", count: 1, outlets: ["peri"], ends: [{ id: "s1", family: "sata-power", atMm: 700 }] }], ["peri"]),
      hub,
      strip,
    ],
    [
      { id: "board", type: "b" },
      { id: "supply", type: "p" },
      { id: "hub", type: "h" },
      { id: "one", type: "s" },
      { id: "two", type: "s" },
    ],
    { policy: { mayOrder: false } },
  );
  const made = await plan(g.build, g.types);
  expect(made.free.map((f) => f.end)).toContain("one:in");
  const ways = await waysIn(made, g.types);
  expect(ways?.needs.length ?? 0).toBeGreaterThan(0);
});

describe("what is said to be needed is", () => {
  const hub = (id: string, supplyA: number, portA: number) => ({
    id,
    kind: "hub",
    maker: "",
    name: id,
    ports: [
      T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 1 }, limit: { currentA: supplyA } }),
      ...[1, 2].map((i) => T.port(`l-${i}`, "light-5v", "out", "light", { fedBy: "power", controlledBy: "in", limit: { currentA: portA } })),
    ],
    leads: [T.lead("in", "light-5v", "light-control", 900, { load: { currentA: 0.02 }, ownControl: "button" })],
  });
  const supply = (sockets: number) =>
    T.supply(
      "p",
      [{ id: "sata", label: "SATA", count: sockets, outlets: ["peri"], ends: [{ id: "s1", family: "sata-power", atMm: 700 }] }],
      [...Array.from({ length: sockets }, () => "peri")],
    );
  const strips = (n: number, currentA: number, policy: { mayOrder: boolean }, more: { ordered?: number } = {}) =>
    given(
      [T.board("b", []), supply(3), hub("hub", 4.5, 2), T.strip("s", 10, currentA, false)],
      [{ id: "board", type: "b" }, { id: "supply", type: "p" }, ...Array.from({ length: n }, (_, i) => ({ id: `s${i + 1}`, type: "s" }))],
      { policy, accessories: [{ type: "hub", count: 0, ...more }] },
    );

  it("what the plan orders anyway is no news", async () => {
    // Four strips, two to a hub: the plan orders one hub and one more would do.
    const g = strips(4, 0.5, { mayOrder: true });
    const made = await plan(g.build, g.types);
    expect(made.accessories.map((a) => [a.type, a.from])).toEqual([["hub", "order"]]);
    expect((await waysIn(made, g.types))?.needs).toEqual([{ kind: "accessory", type: "hub", count: 1 }]);
  });
  it("what is ordered already is planned with, and one more may be ordered beside it", async () => {
    const g = strips(4, 0.5, { mayOrder: true }, { ordered: 1 });
    const made = await plan(g.build, g.types);
    expect([made.accessories.map((a) => a.type), made.free.filter((f) => f.need !== "optional")]).toEqual([["hub", "hub"], []]);
  });
  it("what would be bought gives what it gives: nobody is told to ask more of it", async () => {
    const g = strips(1, 2.5, { mayOrder: false });
    const made = await plan(g.build, g.types);
    expect(made.free.map((f) => f.end)).toContain("s1:lead");
    expect(await waysIn(made, g.types)).toMatchObject({ lets: [], needs: [], left: ["s1:lead"] });
  });
  it("a hub's own supply that is too weak is named, not one of its ports", async () => {
    const g = given(
      [T.board("b", []), supply(1), hub("hub", 1.5, 2), T.strip("s", 10, 1, false)],
      [
        { id: "board", type: "b" },
        { id: "supply", type: "p" },
        { id: "hub", type: "hub" },
        { id: "s1", type: "s" },
        { id: "s2", type: "s" },
      ],
      { policy: { mayOrder: false } },
    );
    // Two strips of 1 A on 1.5 A, by hand: 0.5 A over.
    expect((await ways(g))?.needs).toEqual([{ kind: "limit", root: "hub:power", of: "mA", over: 500 }]);
  });
  it("nothing that the plan connects goes out for what it leaves free", async () => {
    // One socket of the supply and two drives: whichever is fed, the other is not let in by what would put the first out.
    const g = given(
      [
        T.case("c", [T.mount("m0", "bottom", 100, 100), T.mount("m1", "bottom", 100, 140)]),
        T.board(
          "b",
          [1, 2].map((i) => T.port(`S${i}`, "sata-data", "out", "drive-data", { at: { xMm: 200, yMm: 100 } })),
          {
            cables: [
              {
                id: "data",
                label: "SATA data",
                count: 2,
                ends: [
                  { id: "a", family: "sata-data", atMm: 0 },
                  { id: "b", family: "sata-data", atMm: 900 },
                ],
              },
            ],
          },
        ),
        T.supply("p", [{ id: "sata", label: "SATA", count: 1, outlets: ["peri"], ends: [{ id: "s1", family: "sata-power", atMm: 900 }] }], ["peri"]),
        T.drive("d"),
      ],
      [
        { id: "case", type: "c" },
        { id: "board", type: "b" },
        { id: "supply", type: "p" },
        { id: "d1", type: "d", mount: "m0" },
        { id: "d2", type: "d", mount: "m1" },
      ],
      { policy: { mayOrder: false } },
    );
    const made = await plan(g.build, g.types);
    const free = made.free.map((f) => f.end);
    expect(free).toHaveLength(1);
    expect(await waysIn(made, g.types)).toMatchObject({ lets: [], needs: [], left: free });
  });
});

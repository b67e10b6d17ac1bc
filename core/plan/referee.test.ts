import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { generated } from "../../tests/fixtures/generated";
import { given, T } from "../../tests/fixtures/small";
import { exhaustive } from "../../tests/referee/exhaustive";
import { plainFans } from "../../tests/referee/plain-model";
import { type Build, buildGraph, type Connection } from "../assembly";
import { mate } from "../catalogue";
import { type Cost, compareCost, plan, verify } from ".";

const strip = ({ canonical: _, ...levels }: Cost) => levels;

const currents = fc.constantFrom(0.1, 0.2, 0.35, 0.5, 0.6);
const region = fc.constantFrom("front-1", "front-2", "rear-1", "top-1");
const mounts = [
  T.mount("front-1", "front", 440, 100),
  T.mount("front-2", "front", 440, 300),
  T.mount("rear-1", "rear", 10, 120),
  T.mount("top-1", "top", 200, 10),
];

const fanBuild = (most: { fans: number; headers: number; splitters: number }) =>
  fc.record({
    headers: fc.array(fc.record({ x: fc.integer({ min: 5, max: 240 }), cpu: fc.boolean(), limit: fc.constantFrom(0.5, 1, 2) }), {
      minLength: 1,
      maxLength: most.headers,
    }),
    fans: fc.array(fc.record({ a: currents, at: region, radiator: fc.boolean() }), { minLength: 1, maxLength: most.fans }),
    two: fc.integer({ min: 0, max: most.splitters }),
    three: fc.integer({ min: 0, max: Math.max(0, most.splitters - 1) }),
  });
type FanGift = ReturnType<typeof fanBuild> extends fc.Arbitrary<infer G> ? G : never;
const fanGiven = (g: FanGift) => {
  const types = [
    T.case("c", mounts),
    T.board(
      "b",
      g.headers.map((h, i) => T.header(`H${i + 1}`, h.x, { limit: { currentA: h.limit }, role: h.cpu && i === 0 ? "cpu-fan" : "case-fan" })),
    ),
    T.splitter("s2", 2),
    T.splitter("s3", 3),
    ...g.fans.map((f, i) => T.fan(`f${i}`, f.a)),
  ];
  const parts = [
    { id: "case", type: "c" },
    { id: "board", type: "b" },
    ...g.fans.map((f, i) => ({ id: `fan-${i}`, type: `f${i}`, mount: f.at, ...(f.radiator ? { zone: "radiator" } : {}) })),
  ];
  return given(types, parts, {
    policy: { mayOrder: false },
    accessories: [
      { type: "s2", count: g.two },
      { type: "s3", count: g.three },
    ],
  });
};

describe("the planner against every possible plan", () => {
  it("costs the same as the best of all assignments: fans, headers, splitters", async () => {
    await fc.assert(
      fc.asyncProperty(fanBuild({ fans: 4, headers: 3, splitters: 1 }), async (g) => {
        const { build, types } = fanGiven(g);
        const made = await plan(build, types);
        expect(made.broken).toEqual([]);
        expect(made.status).toBe("proved");
        expect(strip(made.cost)).toEqual(strip(exhaustive(build, types).cost));
      }),
      cases(60, 7),
    );
  }, 120_000);

  it("costs the same for chained lights under LED and current limits", async () => {
    const arb = fc.record({
      headers: fc.array(fc.constantFrom(1, 2, 3), { minLength: 1, maxLength: 2 }),
      strips: fc.array(fc.record({ leds: fc.constantFrom(10, 20, 30), through: fc.boolean() }), { minLength: 1, maxLength: 4 }),
      splitters: fc.integer({ min: 0, max: 1 }),
    });
    await fc.assert(
      fc.asyncProperty(arb, async (g) => {
        const { build, types } = given(
          [
            T.board(
              "b",
              g.headers.map((a, i) =>
                T.port(`L${i + 1}`, "light-5v", "out", "light", { at: { xMm: 20 + i * 100, yMm: 5 }, limit: { currentA: a, leds: 50 } }),
              ),
            ),
            T.splitter("ls", 2, "light-5v"),
            ...g.strips.map((s, i) => T.strip(`t${i}`, s.leds, s.leds * 0.06, s.through)),
          ],
          [{ id: "board", type: "b" }, ...g.strips.map((_, i) => ({ id: `strip-${i}`, type: `t${i}` }))],
          { policy: { mayOrder: false }, accessories: [{ type: "ls", count: g.splitters }] },
        );
        const made = await plan(build, types);
        expect(made.broken).toEqual([]);
        expect(strip(made.cost)).toEqual(strip(exhaustive(build, types).cost));
      }),
      cases(60, 11),
    );
  }, 120_000);

  it("costs the same for cables out of the bag: reach, spacing, watts and outlets", async () => {
    const arb = fc.record({
      drives: fc.array(fc.record({ y: fc.constantFrom(100, 180, 300), w: fc.constantFrom(5, 30) }), { minLength: 1, maxLength: 3 }),
      short: fc.integer({ min: 1, max: 2 }),
      long: fc.integer({ min: 0, max: 1 }),
      outlets: fc.integer({ min: 1, max: 2 }),
    });
    await fc.assert(
      fc.asyncProperty(arb, async (g) => {
        const { build, types } = given(
          [
            T.case("c", [T.mount("supply", "bottom", 60, 400), ...g.drives.map((d, i) => T.mount(`d${i}`, "front", 400, d.y + i))]),
            T.supply(
              "p",
              [
                {
                  id: "short",
                  label: "short",
                  count: g.short,
                  outlets: ["k"],
                  ends: [
                    { id: "e1", family: "sata-power", atMm: 620 },
                    { id: "e2", family: "sata-power", atMm: 720 },
                  ],
                  limit: { powerW: 40 },
                },
                ...(g.long
                  ? [{ id: "long", label: "long", count: g.long, outlets: ["k"], ends: [{ id: "e1", family: "sata-power", atMm: 900 }], limit: {} }]
                  : []),
              ],
              Array.from({ length: g.outlets }, () => "k"),
            ),
            ...g.drives.map((d, i) => ({
              id: `t${i}`,
              kind: "drive",
              maker: "",
              name: `t${i}`,
              ports: [T.port("power", "sata-power", "in", "device-power", { load: { powerW: d.w }, need: "mandatory" })],
            })),
          ],
          [{ id: "case", type: "c" }, { id: "supply", type: "p" }, ...g.drives.map((_, i) => ({ id: `drive-${i}`, type: `t${i}`, mount: `d${i}` }))],
        );
        const made = await plan(build, types);
        expect(made.broken).toEqual([]);
        expect(strip(made.cost)).toEqual(strip(exhaustive(build, types).cost));
      }),
      cases(40, 13),
    );
  }, 120_000);

  it("costs the same for loose panel plugs on any pin order, and halves of USB 2 headers", async () => {
    const signals = [
      "power switch",
      "power switch ground",
      "reset",
      "reset ground",
      "HDD LED +",
      "HDD LED -",
      "power LED +",
      "power LED -",
      "blank",
      "blank",
    ];
    const arb = fc.record({
      order: fc.shuffledSubarray(signals, { minLength: 10, maxLength: 10 }),
      usb: fc.array(fc.constantFrom(1, 2), { minLength: 0, maxLength: 3 }),
      headers: fc.integer({ min: 1, max: 2 }),
    });
    await fc.assert(
      fc.asyncProperty(arb, async (g) => {
        const loose = (id: string, positions: string[], need: string) => T.lead(id, "panel-loose", "panel", 900, { positions, need });
        const { build, types } = given(
          [
            T.board("b", [
              T.port("P", "panel-block", "out", "panel", {
                at: { xMm: 220, yMm: 240 },
                pinout: Object.fromEntries(g.order.map((s, i) => [String(i + 1), s])),
              }),
              ...Array.from({ length: g.headers }, (_, i) => T.port(`U${i + 1}`, "usb2", "out", "usb", { at: { xMm: 100 + i * 20, yMm: 240 } })),
            ]),
            {
              id: "c",
              kind: "case",
              maker: "",
              name: "c",
              leads: [
                loose("power", ["power switch", "power switch ground"], "mandatory"),
                loose("led-plus", ["power LED +"], "wanted"),
                loose("hdd", ["HDD LED +", "HDD LED -"], "optional"),
                ...g.usb.map((n, i) => T.lead(`usb-${i}`, "usb2", "usb", 900, { usbPorts: n })),
              ],
              body: { boardAt: { xMm: 20, yMm: 40 }, frontIoAt: { xMm: 400, yMm: 20 } },
            },
          ],
          [
            { id: "case", type: "c" },
            { id: "board", type: "b" },
          ],
          { policy: { mayOrder: false } },
        );
        const made = await plan(build, types);
        expect(made.broken).toEqual([]);
        expect(strip(made.cost)).toEqual(strip(exhaustive(build, types).cost));
      }),
      cases(60, 17),
    );
  }, 120_000);
});

describe("the planner against every possible plan, round what is fixed and plugged", () => {
  it("costs the same for fans when some are held where hands put them", async () => {
    await fc.assert(
      fc.asyncProperty(fanBuild({ fans: 4, headers: 3, splitters: 1 }), fc.nat(), fc.boolean(), async (g, n, plugged) => {
        const { build, types, graph } = fanGiven(g);
        const fans = [...graph.leads.values()].filter((l) => l.lead.role === "case-fan" || l.lead.role === "radiator-fan");
        const headers = [...graph.ports.values()].filter((p) => p.part.id === "board");
        const [fan, header] = [fans[n % fans.length], headers[n % headers.length]];
        if (!fan || !header) return;
        const held: Build = { ...build, connections: [{ lead: fan.address, port: header.address, state: plugged ? "plugged" : "fixed" }] };
        const made = await plan(held, types);
        expect(made.broken).toEqual([]);
        expect(made.connections.find((c) => c.lead === fan.address)).toMatchObject({ port: header.address });
        expect(strip(made.cost)).toEqual(strip(exhaustive(held, types).cost));
      }),
      cases(40, 37),
    );
  }, 120_000);

  it("costs the same for cables out of the bag when one plug is already in a drive", async () => {
    const arb = fc.record({
      y: fc.uniqueArray(fc.constantFrom(100, 180, 260, 340), { minLength: 2, maxLength: 3 }),
      first: fc.nat(2),
      short: fc.integer({ min: 1, max: 2 }),
    });
    await fc.assert(
      fc.asyncProperty(arb, async (g) => {
        const end = (id: string, atMm: number) => ({ id, family: "sata-power", atMm });
        const { build, types } = given(
          [
            T.case("c", [T.mount("supply", "bottom", 60, 400), ...g.y.map((y, i) => T.mount(`d${i}`, "front", 400, y))]),
            T.supply(
              "p",
              [{ id: "s", label: "s", count: g.short, outlets: ["k"], ends: [end("e1", 650), end("e2", 800)], limit: { powerW: 60 } }],
              ["k", "k"],
            ),
            ...g.y.map((_, i) => ({
              id: `t${i}`,
              kind: "drive",
              maker: "",
              name: `t${i}`,
              ports: [T.port("power", "sata-power", "in", "device-power", { load: { powerW: 15 }, need: "mandatory" })],
            })),
          ],
          [{ id: "case", type: "c" }, { id: "supply", type: "p" }, ...g.y.map((_, i) => ({ id: `drive-${i}`, type: `t${i}`, mount: `d${i}` }))],
        );
        const held: Build = {
          ...build,
          connections: [
            { lead: "supply/s/1:root-1", port: "supply:o-1", state: "plugged" },
            { lead: "supply/s/1:e1", port: `drive-${g.first % g.y.length}:power`, state: "plugged" },
          ],
        };
        const made = await plan(held, types);
        expect(made.broken).toEqual([]);
        expect(made.connections.filter((c) => c.state === "plugged")).toHaveLength(2);
        expect(strip(made.cost)).toEqual(strip(exhaustive(held, types).cost));
      }),
      cases(30, 39),
    );
  }, 120_000);
});

describe("the planner against the plain model", () => {
  it("reaches the optimum that highs proves for one binary a plug and port", async () => {
    await fc.assert(
      fc.asyncProperty(fanBuild({ fans: 6, headers: 3, splitters: 2 }), async (g) => {
        const { build, types } = fanGiven(g);
        const made = await plan(build, types);
        const plain = await plainFans(build, types);
        for (const [level, value] of Object.entries(plain)) expect([level, made.cost[level as keyof Cost]]).toEqual([level, value]);
      }),
      cases(12, 23),
    );
  }, 300_000);
});

describe("what holds of every plan", () => {
  it("a spare accessory never makes a plan worse", async () => {
    await fc.assert(
      fc.asyncProperty(fanBuild({ fans: 4, headers: 2, splitters: 1 }), async (g) => {
        const { build, types } = fanGiven(g);
        const without = await plan(build, types);
        const more = await plan({ ...build, accessories: build.accessories.map((a) => ({ ...a, count: a.count + 1 })) }, types);
        expect(compareCost(more.cost, without.cost)).toBeLessThanOrEqual(0);
      }),
      cases(20, 29),
    );
  }, 120_000);

  it("whole builds of 38 leads: no plug moved to another port, and no two plugs exchanged, make a proved plan better", async () => {
    for (const seed of [1, 2, 3]) {
      const { build, types, graph: before } = generated(25, seed);
      const made = await plan(build, types);
      expect(made.status).toBe("proved");
      const graph = buildGraph(made.build, types);
      const own = made.build.connections.filter((c) => graph.leads.get(c.lead)?.lead.role !== "cable-root");
      const priced = (connections: Connection[]) => verify(buildGraph({ ...made.build, connections }, types), before, build);
      const better: string[] = [];
      const judge = (what: string, connections: Connection[]) => {
        const v = priced(connections);
        if (v.broken.length === 0 && compareCost(v.cost, made.cost) < 0) better.push(what);
      };
      for (const c of own) {
        const l = graph.leads.get(c.lead);
        if (!l || c.place || l.loom === "seat") continue;
        for (const p of graph.ports.values()) {
          if (p.port.flow === l.lead.flow || p.part === l.part || mate(l.lead.family, p.port.family).outcome === "keyed") continue;
          const there = own.find((o) => o.port === p.address && !o.place);
          if (there === c) continue;
          const moved = made.build.connections.map((o) => (o === c ? { ...o, port: p.address } : o === there ? { ...o, port: c.port } : o));
          judge(`${c.lead} to ${p.address}`, moved);
        }
        judge(
          `${c.lead} free`,
          made.build.connections.filter((o) => o !== c),
        );
      }
      expect(better).toEqual([]);
    }
  }, 240_000);
  it("does not depend on the order of parts, and fixing what it chose changes nothing", async () => {
    await fc.assert(
      fc.asyncProperty(fanBuild({ fans: 4, headers: 3, splitters: 1 }), async (g) => {
        const { build, types } = fanGiven(g);
        const made = await plan(build, types);
        const where = (p: typeof made) => Object.fromEntries(p.connections.map((c) => [c.lead, c.port]));
        const turned = await plan({ ...build, parts: [...build.parts].reverse(), accessories: [...build.accessories].reverse() }, types);
        expect(where(turned)).toEqual(where(made));
        const one = made.connections[0];
        if (!one) return;
        const again = await plan(
          { ...made.build, connections: made.build.connections.map((c) => (c.lead === one.lead ? { ...c, state: "fixed" as const } : c)) },
          types,
        );
        expect(where(again)).toEqual(where(made));
      }),
      cases(25, 31),
    );
  }, 120_000);
});

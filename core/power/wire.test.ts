import { describe, expect, it } from "vitest";
import { demo, demoPlan } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import { checkParts } from "../checks";
import { plugDrops, RAIL_TOLERANCE_V, wireAreaMm2, wireDiameterMm, wireDropV, wireOhmPerM } from ".";

describe("wire, by its number: ASTM B258 (formula)", () => {
  it.each([
    // AWG, mm, mm²: ASTM B258, rounded as handbooks print them (from memory).
    [10, 2.588, 5.261],
    [16, 1.291, 1.309],
    [18, 1.024, 0.823],
    [20, 0.812, 0.518],
    [24, 0.511, 0.205],
    [36, 0.127, 0.0127],
  ])("%i AWG", (awg, mm, mm2) => {
    expect(wireDiameterMm(awg)).toBeCloseTo(mm, 3);
    expect(wireAreaMm2(awg)).toBeCloseTo(mm2, 3);
  });
  it("six numbers less double the diameter, nearly; three less double the area, nearly (rule of thumb)", () => {
    expect(wireDiameterMm(12) / wireDiameterMm(18)).toBeCloseTo(2, 1);
    expect(wireAreaMm2(15) / wireAreaMm2(18)).toBeCloseTo(2, 1);
  });
  it("18 AWG copper at 20 °C: 20.95 mΩ/m (handbook, from memory)", () => {
    expect(wireOhmPerM(18) * 1000).toBeCloseTo(20.95, 2);
  });
  it("600 mm of 18 AWG, three wires each way, 12.5 A: by hand 12.5 × 0.6 × 0.02095 × 2 / 3 = 0.105 V", () => {
    expect(wireDropV({ awg: 18, lengthMm: 600, currentA: 12.5, out: 3, back: 3 })).toBeCloseTo(0.105, 3);
  });
});

describe("volts lost at the plugs", () => {
  it("a pigtail carries both plugs' current up to the first: by hand", () => {
    const { build, types } = demo("fs-1041");
    const supply = build.parts.find((p) => types(p.type)?.kind === "supply");
    const base = supply && types(supply.type);
    if (!supply || !base) throw new Error("no supply");
    const card = { ...structuredClone(types("halcyra-340")), id: "two-plugs" } as NonNullable<ReturnType<typeof types>>;
    card.ratings = { ...card.ratings, peakW: 315 };
    const socket = { ...(card.ports[0] as (typeof card.ports)[number]), family: "gfx-8" as const, role: "graphics-power" as const, load: undefined };
    card.ports = [
      { ...socket, id: "A" },
      { ...socket, id: "B" },
    ];
    const pigtail = {
      ...base,
      id: "one-pigtail",
      cables: [
        {
          id: "gfx",
          label: "graphics",
          count: 1,
          captive: true,
          outlets: [],
          limit: {},
          ends: [
            { id: "1", family: "gfx-6+2" as const, atMm: 600, limit: {} },
            { id: "2", family: "gfx-6+2" as const, atMm: 750, limit: {} },
          ],
        },
      ],
    };
    const cardId = build.parts.find((p) => types(p.type)?.kind === "card")?.id;
    const g = buildGraph(
      {
        ...build,
        parts: build.parts.map((p) => (p.id === supply.id ? { ...p, type: "one-pigtail" } : p.id === cardId ? { ...p, type: "two-plugs" } : p)),
        connections: [
          { lead: `${supply.id}/gfx/1:1`, port: `${cardId}:A`, state: "planned" },
          { lead: `${supply.id}/gfx/1:2`, port: `${cardId}:B`, state: "planned" },
        ],
      },
      (id) => (id === "one-pigtail" ? pigtail : id === "two-plugs" ? card : types(id)),
    );
    // (315 - 75) / 2 = 120 W, 10 A a plug. First plug: 20 A over 600 mm; second: that, and 10 A over 150 mm more.
    const first = 20 * 0.6 * 0.020947 * (2 / 3);
    const drops = plugDrops(g).filter((d) => d.port.startsWith(`${cardId}:`));
    expect(drops.map((d) => d.port.split(":")[1])).toEqual(["B", "A"]);
    expect(drops[1]?.dropV).toBeCloseTo(first, 3);
    expect(drops[0]?.dropV).toBeCloseTo(first + 10 * 0.15 * 0.020947 * (2 / 3), 3);
  });
  it("before a plan the longest cable that has the plug is taken; with one, the cable that is planned", async () => {
    const before = plugDrops(buildGraph({ ...demo("fs-1041").build, connections: [] }, demo("fs-1041").types));
    expect(before.length).toBeGreaterThan(0);
    expect(before.every((d) => !d.planned)).toBe(true);
    // 230 W want one of the two CPU sockets.
    expect(before.map((d) => d.port).filter((p) => p.includes("CPU"))).toEqual(["board:CPU_PWR1"]);
    const made = await demoPlan("fs-1041");
    const after = plugDrops(buildGraph(made.build, demo("fs-1041").types));
    expect(after.some((d) => d.planned)).toBe(true);
    for (const d of after) expect(d.dropV).toBeLessThan(RAIL_TOLERANCE_V);
  });
  it("a supply with cables of three metres warns; the demo's own do not", () => {
    const { build, types } = demo("fs-1043");
    const bare = { ...build, connections: [] };
    const rule = (g: Parameters<typeof checkParts>[0]) => checkParts(g).filter((f) => f.rule === "wire-drop");
    expect(rule(buildGraph(bare, types))).toEqual([]);
    const long = (id: string) => {
      const t = types(id);
      return t?.kind === "supply" ? { ...t, cables: t.cables.map((c) => ({ ...c, ends: c.ends.map((e) => ({ ...e, atMm: 4500 })) })) } : t;
    };
    expect(rule(buildGraph(bare, long))[0]?.message).toMatch(/A over 4500 mm loses 0\.\d\d V of the 0\.6 V/);
  });
});

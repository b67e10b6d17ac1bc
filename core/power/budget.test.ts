import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { DEMO, demo } from "../../tests/fixtures/demo";
import { given, T } from "../../tests/fixtures/small";
import { efficiencyPercent, efficiencyPoints, powerBudget, usualSupply } from ".";

type Json = Record<string, unknown>;
const part = (id: string, kind: string, ratings: Json, more: Json = {}) => ({ id, kind, maker: "", name: id, ratings, ...more });
const psu = (powerW: number, more: Json = {}) => ({ ...T.supply("psu", [], []), ratings: { powerW, efficiency: "gold", ...more } });
const budget = (types: Json[], more: Json = {}) =>
  powerBudget(
    given(
      types,
      types.map((t, i) => ({ id: `p-${i}`, type: t.id as string })),
      more,
    ).graph,
  );

describe("80 PLUS (published, from memory)", () => {
  it.each([
    ["base", 82, 85, 82],
    ["bronze", 85, 88, 85],
    ["silver", 87, 90, 87],
    ["gold", 90, 92, 89],
    ["platinum", 92, 94, 90],
    ["titanium", 94, 96, 94],
  ] as const)("%s, 230 V EU internal: at 20, 50 and 100 %% load", (c, a, b, d) => {
    expect([0.2, 0.5, 1].map((l) => efficiencyPercent(c, l, 230))).toEqual([a, b, d]);
  });
  it("Titanium has 90 at 10 % as well, at either mains", () => {
    expect([115, 230].map((v) => efficiencyPercent("titanium", 0.1, v as 115 | 230))).toEqual([90, 90]);
  });
  it("falls below the first point and never rises above the best one", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("base", "bronze", "silver", "gold", "platinum", "titanium"),
        fc.double({ min: 0.001, max: 1.2, noNaN: true }),
        fc.constantFrom(115, 230),
        (c, share, mains) => {
          const eff = efficiencyPercent(c, share, mains as 115 | 230) ?? 0;
          const points = efficiencyPoints(c, mains as 115 | 230);
          expect(eff).toBeLessThanOrEqual(Math.max(...points.map(([, p]) => p)) + 1e-9);
          expect(eff).toBeGreaterThan(0);
          if (share < (points[0]?.[0] ?? 0)) expect(eff).toBeLessThanOrEqual((points[0]?.[1] ?? 0) + 1e-9);
        },
      ),
      cases(200, 71),
    );
    expect(efficiencyPercent("gold", 0, 230)).toBe(0);
  });
});

describe("the budget by hand", () => {
  it("mains is load over efficiency, heat the difference: 325 W of 650 W gold at 230 V is 353.3 W, 28.3 W of heat", () => {
    const m = budget([psu(650), part("cpu", "cpu", { peakW: 325 })]).moments.find((x) => x.name === "peak");
    expect(m).toMatchObject({ dcW: 325, share: 0.5, efficiencyPercent: 92 });
    expect(m?.mainsW).toBeCloseTo(325 / 0.92, 6);
    expect(m?.heatW).toBeCloseTo(325 / 0.92 - 325, 6);
  });
  it("rails: a 3.5-inch drive of 7 W on 12 V and 4 W on 5 V, an M.2 drive of 8 W on 3.3 V, memory on 5 V", () => {
    const b = budget([
      psu(500, { railsA: { v12: 40, v5: 20, v33: 20 } }),
      part("hdd", "drive", { peakW: 11, railsW: { v12: 7, v5: 4 } }),
      part("nvme", "drive", { peakW: 8, railsW: { v33: 8 } }),
      part("ram", "memory", { peakW: 5 }),
    ]);
    const a = Object.fromEntries(b.rails.map((r) => [r.rail, r.peakA]));
    expect(a.v12).toBeCloseTo(7 / 12, 6);
    expect(a.v5).toBeCloseTo((4 + 5) / 5, 6);
    expect(a.v33).toBeCloseTo(8 / 3.3, 6);
  });
  it("the first second: drives spin up, fans start at 2.2/1.5 of their current (Intel fan specification), the CPU waits", () => {
    const b = budget([psu(500), part("hdd", "drive", { peakW: 10, startW: 25 }), T.fan("fan", 0.3), part("cpu", "cpu", { peakW: 200, idleW: 20 })]);
    expect(b.moments.find((m) => m.name === "start")?.dcW).toBeCloseTo(25 + 0.3 * (2.2 / 1.5) * 12 + 70, 6);
  });
  it("headroom now and after the upgrade that the client names", () => {
    const b = budget([psu(650), part("cpu", "cpu", { peakW: 300 })], { wishes: { upgrade: "a card", upgradeW: 220 } });
    expect([b.headroomW, b.headroomAfterUpgradeW]).toEqual([350, 130]);
  });
  it("a supply of no class has no efficiency, and no mains draw is made up", () => {
    const m = budget([psu(500, { efficiency: "none" }), part("cpu", "cpu", { peakW: 100 })]).moments[0];
    expect(m).not.toHaveProperty("mainsW");
  });
  it("no supply at all: loads without a share", () => {
    const b = budget([part("cpu", "cpu", { peakW: 100 })]);
    expect(b.supplyW).toBe(0);
    expect(b.moments.map((m) => m.share)).toEqual([0, 0, 0, 0]);
  });
  it("plugs against sockets: two 8-pin sockets, one cable with two 6+2 plugs", () => {
    const b = budget([
      {
        ...T.supply(
          "psu",
          [
            {
              id: "g",
              label: "g",
              count: 1,
              captive: true,
              ends: [
                { id: "a", family: "gfx-6+2", atMm: 500 },
                { id: "b", family: "gfx-6+2", atMm: 600 },
              ],
            },
          ],
          [],
        ),
        ratings: { powerW: 600 },
      },
      {
        ...part("card", "card", { peakW: 250 }),
        ports: [
          T.port("P1", "gfx-8", "in", "graphics-power"),
          T.port("P2", "gfx-8", "in", "graphics-power"),
          T.port("P3", "gfx-8", "in", "graphics-power"),
        ],
      },
    ]);
    expect(b.connectors).toEqual([expect.objectContaining({ family: "gfx-8", needed: 3, there: 2 })]);
  });
});

describe("what practitioners fit (common practice)", () => {
  const usual = (...cards: number[]) => {
    const types = cards.map((w, i) => part(`c${i}`, "card", { peakW: w }));
    return usualSupply(
      given([T.case("c", []), ...types], [{ id: "case", type: "c" }, ...types.map((t, i) => ({ id: `card-${i}`, type: t.id }))]).graph,
    );
  };
  it("about 500 W without a card, 550 to 650 for a middling one, 850 for a large one, 1000 and more for the largest or for two", () => {
    const holds = (u: { fromW: number; toW: number }, w: number) => w >= u.fromW && w <= u.toW;
    expect(holds(usual(), 500)).toBe(true);
    expect([550, 650].every((w) => holds(usual(200), w))).toBe(true);
    expect(holds(usual(340), 850)).toBe(true);
    expect(holds(usual(450), 1000)).toBe(true);
    expect(holds(usual(220, 300), 1200)).toBe(true);
    // A card that is no graphics card worth the name changes nothing.
    expect(usual(12)).toEqual(usual());
  });
});

describe("what holds of the demo builds", () => {
  it.each(DEMO)("%s: idle, typical and peak rise; watts by rail never exceed the peak", (name) => {
    const b = powerBudget(demo(name).graph);
    const w = Object.fromEntries(b.moments.map((m) => [m.name, m.dcW]));
    expect(w.idle).toBeLessThan(w.typical ?? 0);
    expect(w.typical).toBeLessThan(w.peak ?? 0);
    const byRail = b.rails.reduce((s, r) => s + r.peakA * ({ v12: 12, v5: 5, v33: 3.3 }[r.rail] ?? 0), 0);
    expect(byRail).toBeLessThanOrEqual((w.peak ?? 0) * 1.001);
    expect(b.headroomW).toBeGreaterThan(0);
  });
});

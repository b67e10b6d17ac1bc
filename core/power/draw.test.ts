import { describe, expect, it } from "vitest";
import { demo } from "../../tests/fixtures/demo";
import { clockMhz, memorySpeed } from "../memory";
import { efficiencyPercent, portDrawW, wholeDraw } from ".";

describe("efficiency: 80 PLUS, 115 V internal (published, from memory)", () => {
  it.each([
    ["base", 80, 80, 80],
    ["bronze", 82, 85, 82],
    ["silver", 85, 88, 85],
    ["gold", 87, 90, 87],
    ["platinum", 90, 92, 89],
    ["titanium", 92, 94, 90],
  ] as const)("%s at 20, 50 and 100 %% load", (c, a, b, d) => {
    expect([0.2, 0.5, 1].map((l) => efficiencyPercent(c, l, 115))).toEqual([a, b, d]);
  });
  it("between the points on straight lines; none for a supply of no class", () => {
    expect(efficiencyPercent("gold", 0.35, 115)).toBeCloseTo(88.5, 9);
    expect(efficiencyPercent("none", 0.5, 230)).toBeUndefined();
    expect(efficiencyPercent(undefined, 0.5, 230)).toBeUndefined();
  });
  it("mains draw is the load over the efficiency: 425 W of 850 W gold at 230 V", () => {
    const eff = efficiencyPercent("gold", 425 / 850, 230) ?? 0;
    expect(425 / (eff / 100)).toBeCloseTo(461.96, 1);
  });
});

describe("draw", () => {
  it("FS-1041 by hand: 230 + 340 + 55 + 4.2 + 2×5 + 8 + 10 + 5 + 3×3 + 3×2.4 + 2.2 W", () => {
    expect(wholeDraw(demo("fs-1041").graph).peakW).toBeCloseTo(230 + 340 + 55 + 4.2 + 10 + 8 + 10 + 5 + 9 + 7.2 + 2.2, 6);
  });
  it("a card's sockets share what the slot does not carry: (300 - 75) / 2", () => {
    const { graph } = demo("fs-1043");
    const socket = graph.ports.get("card-1:PWR_1");
    expect(socket && portDrawW(graph, socket)).toBe(112.5);
  });
});

describe("memory speed", () => {
  const seated = (name: string) => {
    const { graph } = demo(name);
    return {
      ...graph,
      ofLead: new Map(
        [...graph.leads.values()]
          .filter((l) => l.lead.role === "seat")
          .map((l) => [l.address, { lead: l.address, port: "", state: "plugged" as const }]),
      ),
    };
  };
  it("is the least of profile, board and CPU; the default before the profile is on", () => {
    expect(memorySpeed(seated("fs-1041"), true)).toMatchObject({ mts: 6000, sizeGb: 32 });
    expect(memorySpeed(seated("fs-1041"), false)).toMatchObject({ mts: 4800 });
    expect(memorySpeed(seated("fs-1046"), true)).toMatchObject({ mts: 4800, because: "the board" });
    expect(memorySpeed(seated("fs-1043"), true)).toMatchObject({ mts: 5600, because: "the board, with four modules", modules: 4 });
  });
  it("before any plan the listed modules count: four of FS-1043 run at what the board takes with four", () => {
    expect(memorySpeed(demo("fs-1043").graph, true)).toBeUndefined();
    expect(memorySpeed(demo("fs-1043").graph, true, true)).toMatchObject({ mts: 5600, modules: 4 });
  });
  it("tools that read the clock show half: 3600 MT/s is 1800 MHz (JEDEC, from memory)", () => {
    expect(clockMhz(3600)).toBe(1800);
  });
});

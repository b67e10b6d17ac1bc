import { describe, expect, it } from "vitest";
import { DEMO, demo, shelf } from "../../tests/fixtures/demo";
import { type Build, buildGraph, type Graph } from "../assembly";
import type { PartType } from "../catalogue";
import { checkParts, withTriedWays } from "../checks";
import { orderList } from "../intake";
import { clearances, FITTINGS_MM, said, triedWays, tubes, wayOutWords } from ".";

const bare = (name: string) => ({ ...demo(name).build, connections: [] });
function made(name: string, change: (build: Build) => Build, swap: (t: PartType) => PartType = (t) => t): Graph {
  const { types } = demo(name);
  return buildGraph(change(bare(name)), (id) => {
    const t = types(id) ?? shelf.find((s) => s.id === id);
    return t && swap(t);
  });
}
const tubesAt = (end: "rear" | "front" | "top" | "bottom") => (b: Build) => ({
  ...b,
  parts: b.parts.map((p) => (p.id === "cooler" ? { ...p, tubes: end } : p)),
});
const shorter = (tubeMm: number) => (t: PartType) => (t.body.radiator ? { ...t, body: { ...t.body, radiator: { ...t.body.radiator, tubeMm } } } : t);

describe("tubes, by hand", () => {
  // FS-1041: fans at 120, 240 and 360 mm, so the middle is 240; the radiator is 394 mm long: ends at 43 and 437, 12 mm down.
  // The CPU is at 125, 130: (125 - 43) + (130 - 12) = 200; (437 - 125) + (130 - 12) = 430.
  it("from the rear end and from the front end of a top radiator", () => {
    const g = made("fs-1041", (b) => b);
    expect(tubes(g)[0]).toMatchObject({ end: "rear", given: false, reachMm: 200, at: { xMm: 43, yMm: 12 } });
    expect(tubes(made("fs-1041", tubesAt("front")))[0]).toMatchObject({ end: "front", given: true, reachMm: 430 });
  });
  it("400 mm reach from the rear end, 200 mm to spare; from the front end they are 30 mm short, and turning it is the way out", () => {
    const of = (g: Graph) => clearances(g).find((c) => c.id === "tubes:cooler");
    expect(of(made("fs-1041", (b) => b))).toMatchObject({ left: 200, verdict: "fits" });
    const front = of(made("fs-1041", tubesAt("front")));
    expect(front && said(front)).toContain("430 of 400 mm, 30 mm too much");
    const g = made("fs-1041", tubesAt("front"));
    const c = of(g);
    expect(c && triedWays(g, c).map(wayOutWords)).toContain("The radiator turned round, its tubes at the rear end: 200 mm left.");
  });
  it("a tube that reaches from neither end has no turning round as a way out", () => {
    const g = made("fs-1041", (b) => b, shorter(150));
    const c = clearances(g).find((x) => x.id === "tubes:cooler");
    expect(c?.verdict).toBe("not");
    expect(
      c &&
        triedWays(g, c)
          .map(wayOutWords)
          .filter((w) => w.includes("turned round")),
    ).toEqual([]);
  });
  it("fittings stand below the fans and the radiator: 12 + 25 / 2 + 27 mm down", () => {
    expect(tubes(made("fs-1041", (b) => b))[0]?.room).toEqual({ x: 43, y: 51.5, w: FITTINGS_MM.along, h: FITTINGS_MM.away });
  });
});

describe("what tubes block", () => {
  const nearer = (t: PartType): PartType =>
    t.kind === "case"
      ? { ...t, body: { ...t.body, mounts: t.body.mounts.map((m) => (m.id === "rear-1" ? { ...m, at: { xMm: 50, yMm: 90 } } : m)) } }
      : t;
  it("a rear fan that stands at the tubes' end warns when the technician wants that end; else the other end is proposed where it reaches", () => {
    const wanted = made("fs-1041", tubesAt("rear"), nearer);
    const said = withTriedWays(wanted, checkParts(wanted)).find((f) => f.rule === "tube-side");
    expect(said?.message).toMatch(/^The tubes of .+ come out at the rear end of the .+ place, where .+ stands\.$/);
    // Turned round, the tubes are too short for the other end: that is no way out, and is not offered. Giving the fan up is, with the air after it.
    expect(said?.ways).toEqual([expect.stringMatching(/given up: \d+ m³\/h in, \d+ m³\/h out(; removes 1 of 1 stop)?\.$/)]);
    const free = made(
      "fs-1041",
      (b) => b,
      (t) => shorter(500)(nearer(t)),
    );
    expect(tubes(free)[0]).toMatchObject({ end: "front", blocks: [] });
    expect(checkParts(free).some((f) => f.rule === "tube-side")).toBe(false);
  });
  it("a radiator whose upper end hangs below the pump warns", () => {
    const low = (t: PartType): PartType =>
      t.kind === "board" ? { ...t, ports: t.ports.map((p) => (p.role === "cpu" ? { ...p, at: { xMm: 100, yMm: -40 } } : p)) } : t;
    expect(checkParts(made("fs-1041", (b) => b, low)).find((f) => f.rule === "tube-side")?.message).toContain("air gathers in the pump");
  });
  it("none of the demo builds has tubes in the way", () => {
    for (const name of DEMO) expect(checkParts(demo(name).graph).filter((f) => f.rule === "tube-side")).toEqual([]);
  });
});

describe("the riser of a vertical card", () => {
  const stood = (riserMm: number | undefined) =>
    made(
      "fs-1041",
      (b) => ({ ...b, parts: b.parts.map((p) => (demo("fs-1041").types(p.type)?.kind === "card" ? { ...p, vertical: true } : p)) }),
      (t) =>
        t.kind === "case"
          ? { ...t, body: { ...t.body, vertical: { slots: 4, thicknessMm: 90, at: { xMm: 55, yMm: 290 }, ...(riserMm ? { riserMm } : {}) } } }
          : t,
    );
  // SLOT_1 is at 100, 210 mm, the mount at 55, 290: 45 across, 80 down, and 40 mm for the two bends make 165 mm.
  it.each([
    [167, "fits"],
    [166, "tight"],
    [165, "tight"],
    [164, "not"],
  ])("a riser of %i mm: %s", (mm, verdict) => {
    expect(clearances(stood(mm)).find((c) => c.id.startsWith("riser:"))).toMatchObject({ need: 165, has: mm, verdict });
  });
  it("what is too short, or does not come with the case, is put on the order list with its length", () => {
    const item = (n: number | undefined) => orderList(stood(n)).find((i) => i.id.startsWith("riser:"));
    expect(item(400)).toBeUndefined();
    expect(item(undefined)?.what).toBe("Riser lead, 170 mm or longer");
    expect(item(50)?.because).toContain("the riser of the case has 50 mm");
  });
});

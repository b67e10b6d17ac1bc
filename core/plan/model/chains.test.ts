import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../../tests/cases";
import { wantedFree } from "../../../tests/fixtures/cost";
import { type Given, given, T } from "../../../tests/fixtures/small";
import { buildGraph, type PortNode } from "../../assembly";
import { check } from "../../checks";
import { leadToPortMm } from "../../routes";
import { type Plan, plan, verify } from "..";

interface Strip {
  xMm: number;
  yMm: number;
  lengthMm: number;
}
/** Strips with through-plugs at given places of a case, and headers along the board's upper edge. */
const lights = (strips: readonly Strip[], headers: number, mostInChain?: number): Given =>
  given(
    [
      T.case(
        "c",
        strips.map((s, i) => T.mount(`m${i}`, "front", s.xMm, s.yMm)),
        { widthMm: 900, heightMm: 600 },
      ),
      T.board(
        "b",
        Array.from({ length: headers }, (_, i) =>
          T.port(`L${i + 1}`, "light-5v", "out", "light", { at: { xMm: 40 + 160 * i, yMm: 5 }, limit: { currentA: 9, leds: 900 } }),
        ),
      ),
      ...strips.map((s, i) => ({
        ...T.strip(`s${i}`, 10, 0.3, true),
        leads: [T.lead("lead", "light-5v", "light", s.lengthMm, { load: { currentA: 0.3, leds: 10 }, ...(mostInChain ? { mostInChain } : {}) })],
      })),
    ],
    [{ id: "case", type: "c" }, { id: "board", type: "b" }, ...strips.map((_, i) => ({ id: `strip${i}`, type: `s${i}`, mount: `m${i}` }))],
    { policy: { mayOrder: false } },
  );
const at = (p: Plan, i: number) => p.connections.find((c) => c.lead === `strip${i}:lead`)?.port;
const sound = (g: Given, p: Plan) => {
  expect(p.broken).toEqual([]);
  expect(verify(buildGraph(p.build, g.types), g.graph).broken).toEqual([]);
  expect(check(buildGraph(p.build, g.types), "plan").filter((f) => f.rule === "reach")).toEqual([]);
};

/** The most strips that can be lit, by trying every place of every strip. */
function mostLit(g: Given, n: number, headers: number, mostInChain = Number.POSITIVE_INFINITY): number {
  const strip = Array.from({ length: n }, (_, i) => g.graph.leads.get(`strip${i}:lead`));
  const out = (j: number) => g.graph.ports.get(`strip${j}:out`);
  const reach = (i: number, to: PortNode | undefined) => {
    const l = strip[i];
    return l !== undefined && to !== undefined && leadToPortMm(g.graph, l, to) <= l.lead.lengthMm;
  };
  // Where each hangs: -1 nowhere, 0 to n - 1 behind a strip, n and up on a header.
  let best = 0;
  const on = new Array<number>(n).fill(-1);
  const depth = (i: number, seen = 0): number => {
    const up = on[i] ?? -1;
    if (up < 0 || seen > n) return Number.POSITIVE_INFINITY;
    return up >= n ? 0 : 1 + depth(up, seen + 1);
  };
  const walk = (i: number): void => {
    if (i === n) {
      const lit = on.filter((x) => x >= 0).length;
      if (on.every((x, k) => x < 0 || depth(k) < mostInChain)) best = Math.max(best, lit);
      return;
    }
    for (let to = -1; to < n + headers; to++) {
      if (to === i || (to >= 0 && on.slice(0, i).includes(to))) continue;
      if (to >= 0 && !reach(i, to < n ? out(to) : g.graph.ports.get(`board:L${to - n + 1}`))) continue;
      on[i] = to;
      walk(i + 1);
      on[i] = -1;
    }
  };
  walk(0);
  return best;
}

describe("chains", () => {
  it("go from one to the next where only the first reaches the header", async () => {
    // The header is at 60 mm in the case; 60 mm of slack belong to every run.
    const row = [250, 430, 610].map((xMm) => ({ xMm, yMm: 45, lengthMm: 260 }));
    const g = lights([row[2], row[0], row[1]] as Strip[], 1);
    const p = await plan(g.build, g.types);
    expect([at(p, 1), at(p, 2), at(p, 0)]).toEqual(["board:L1", "strip1:out", "strip2:out"]);
    sound(g, p);
  });
  it("do not join what lies too far apart, though both reach the header", async () => {
    // From the header at 60, 45: 400 mm down, 400 mm to the right, 800 mm from one to the other; 60 mm of slack each.
    const apart = [
      { xMm: 60, yMm: 445, lengthMm: 470 },
      { xMm: 460, yMm: 45, lengthMm: 470 },
    ];
    const one = lights(apart, 1);
    const p = await plan(one.build, one.types);
    expect(wantedFree(p.cost)).toBe(1);
    sound(one, p);
    const two = lights(apart, 2);
    const q = await plan(two.build, two.types);
    expect([at(q, 0), at(q, 1)]).toEqual(["board:L1", "board:L2"]);
    sound(two, q);
  });
  it("are no longer than their parts allow", async () => {
    const near = [0, 1, 2, 3].map((i) => ({ xMm: 100 + 30 * i, yMm: 60, lengthMm: 900 }));
    const free = async (headers: number, most?: number) => {
      const g = lights(near, headers, most);
      const p = await plan(g.build, g.types);
      sound(g, p);
      expect(p.status).toBe("proved");
      return wantedFree(p.cost);
    };
    expect([await free(1), await free(1, 3), await free(1, 2), await free(2, 2)]).toEqual([0, 1, 2, 0]);
  });
  it("light as many strips as trying every place of each does, and break nothing", async () => {
    const strip = fc.record({
      xMm: fc.integer({ min: 20, max: 800 }),
      yMm: fc.integer({ min: 20, max: 560 }),
      lengthMm: fc.integer({ min: 120, max: 700 }),
    });
    let behind = 0;
    await fc.assert(
      fc.asyncProperty(
        fc.array(strip, { minLength: 2, maxLength: 4 }),
        fc.integer({ min: 1, max: 2 }),
        fc.option(fc.integer({ min: 1, max: 3 }), { nil: undefined }),
        async (strips, headers, most) => {
          const g = lights(strips, headers, most);
          const p = await plan(g.build, g.types);
          expect(p.status).toBe("proved");
          expect(strips.length - wantedFree(p.cost)).toBe(mostLit(g, strips.length, headers, most));
          if (p.connections.some((c) => c.port.endsWith(":out"))) behind += 1;
          sound(g, p);
        },
      ),
      cases(150, 5),
    );
    expect(behind).toBeGreaterThan(cases(150, 5).numRuns / 10);
  }, 120_000);
  it("of twenty strips that reach only their neighbours, in any order of names, are proved: all lit on one header", async () => {
    const n = 20;
    // 40 mm apart, mixed up by a step that shares no factor with 20; each reaches the next place and no further.
    const strips = Array.from({ length: n }, (_, i) => ({ xMm: 60 + 40 * ((i * 7) % n), yMm: 60, lengthMm: 130 }));
    const g = lights(strips, 1);
    const p = await plan(g.build, g.types, { deadlineS: 30 });
    expect([p.status, wantedFree(p.cost)]).toEqual(["proved", 0]);
    sound(g, p);
  });
  it("that close on themselves light nothing: a ring of strips far from every header stays free, and says what is too far", async () => {
    const strips = [0, 1, 2, 3].map((i) => ({ xMm: 700 + 30 * (i % 2), yMm: 500 + 30 * Math.floor(i / 2), lengthMm: 130 }));
    const g = lights(strips, 2);
    const p = await plan(g.build, g.types, { deadlineS: 30 });
    expect([p.status, wantedFree(p.cost), p.connections.length]).toEqual(["proved", 4, 0]);
    expect(p.free.every((f) => /too far/.test(f.reason))).toBe(true);
  });
  it("at random, sixteen strips on two headers: proved, each that stays free says why, and one more header lights no fewer", async () => {
    const strips = Array.from({ length: 16 }, (_, i) => ({
      xMm: 60 + ((i * 7919 + 1664) % 400),
      yMm: 30 + ((i * 104729 + 77) % 450),
      lengthMm: 210,
    }));
    const [two, three] = [lights(strips, 2), lights(strips, 3)];
    const a = await plan(two.build, two.types, { deadlineS: 60 });
    const b = await plan(three.build, three.types, { deadlineS: 60 });
    expect([a.status, b.status]).toEqual(["proved", "proved"]);
    sound(two, a);
    sound(three, b);
    expect(wantedFree(b.cost)).toBeLessThanOrEqual(wantedFree(a.cost));
    for (const f of a.free) expect(f.reason).toMatch(/^[A-Z0-9].*\.$/s);
  });
});

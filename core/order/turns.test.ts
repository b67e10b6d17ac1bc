import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import { POSTURES, type Posture } from "./model";
import { problemOf } from "./problem";
import { type Net, netOf } from "./rings";
import { bitsOf, fewestTurns } from "./turns";

/** Every valid order, one step at a time: the fewest turns among them. Nothing of the search under test. */
function exhaustive(net: Net, postures: readonly (readonly Posture[])[], start: Posture): number {
  let best = Number.POSITIVE_INFINITY;
  const seen = new Map<string, number>();
  const go = (done: number, lies: Posture, turns: number): void => {
    const key = `${done} ${lies}`;
    if (turns >= best || (seen.get(key) ?? Number.POSITIVE_INFINITY) <= turns) return;
    seen.set(key, turns);
    if (done === (1 << net.ids.length) - 1) {
      best = turns;
      return;
    }
    net.ids.forEach((_, v) => {
      if (done & (1 << v) || !(net.before[v] ?? []).every((b) => done & (1 << b))) return;
      const may = postures[v] ?? [];
      if (may.length === 0) go(done | (1 << v), lies, turns);
      for (const p of may) go(done | (1 << v), p, turns + (p === lies ? 0 : 1));
    });
  };
  go(0, start, 0);
  return best;
}

const set = fc.record({
  n: fc.integer({ min: 1, max: 9 }),
  edges: fc.array(fc.tuple(fc.nat(8), fc.nat(8)), { maxLength: 14 }),
  postures: fc.array(fc.subarray([...POSTURES]), { minLength: 9, maxLength: 9 }),
  start: fc.constantFrom(...POSTURES),
});

describe("the fewest turns of the case", () => {
  it("are as few as in the best of every valid order, on 400 random sets", () => {
    fc.assert(
      fc.property(set, ({ n, edges, postures, start }) => {
        const ids = Array.from({ length: n }, (_, i) => `s${i}`);
        // From the lower to the higher number: no rings.
        const list = edges.flatMap(([a, b]) => (a < b && b < n ? [{ before: `s${a}`, after: `s${b}`, kind: "needs" as const, why: "" }] : []));
        const net = netOf(ids, list);
        const mine = postures.slice(0, n);
        const { blocks } = fewestTurns(net, mine.map(bitsOf), start);
        expect(blocks[0]).toBe(start);
        expect(blocks.length - 1).toBe(exhaustive(net, mine, start));
      }),
      cases(400, 71),
    );
  });
  it.each(DEMO)("%s: are as few as a plain search without the bound finds", async (name) => {
    const { works, precedences } = problemOf(buildGraph((await demoPlan(name)).build, demo(name).types));
    const net = netOf(
      works.map((w) => w.id),
      precedences,
    );
    const may = works.map((w) => bitsOf(w.postures));
    const quick = fewestTurns(net, may, "standing");
    const plain = fewestTurns(net, may, "standing", false);
    expect(quick.blocks.length).toBe(plain.blocks.length);
    expect(quick.states).toBeLessThanOrEqual(plain.states);
  });
});

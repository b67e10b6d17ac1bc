import { describe, expect, it } from "vitest";
import { given, T } from "../../tests/fixtures/small";
import { plan, proofWords } from ".";
import type { Engine } from "./model/model";
import { highsEngine } from "./solve/highs";

/** Finds the best, and never says that it is. */
const unsure: Engine = {
  solve: async (piece, levels, options) => {
    const found = await highsEngine.solve(piece, levels, options);
    return found && { ...found, proved: false };
  },
};
const build = (headers: number, fans: number) =>
  given(
    [
      T.board("b", [
        T.header("CPU_FAN", 10, { role: "cpu-fan", limit: { currentA: 1 } }),
        ...Array.from({ length: headers }, (_, i) => T.header(`SYS${i + 1}`, 60 + 40 * i, { limit: { currentA: 1 } })),
      ]),
      { ...T.fan("tower", 0.2, { role: "cpu-fan", need: "mandatory" }), kind: "cooler" },
      T.fan("f", 0.2),
      T.splitter("s2", 2),
    ],
    [{ id: "board", type: "b" }, { id: "tower", type: "tower" }, ...Array.from({ length: fans }, (_, i) => ({ id: `c${i + 1}`, type: "f" }))],
    { policy: { mayOrder: true }, accessories: [{ type: "s2", count: 0 }] },
  );

describe("a plan that is not proved", () => {
  it("orders nothing: what hands would plug stands, and what the other takes is told", async () => {
    // Two splitters bring three fans onto one header; without ordering one fan goes there, and one beside the CPU's.
    const g = build(1, 5);
    const sure = await plan(g.build, g.types);
    expect([sure.status, sure.other, sure.cost.toOrder > 0]).toEqual(["proved", undefined, true]);
    const p = await plan(g.build, g.types, { engine: unsure });
    expect([p.status, p.broken, p.cost.toOrder, p.accessories]).toEqual(["not yet proved", [], 0, []]);
    expect(p.other).toMatchObject({ fansFree: 0, toOrder: sure.cost.toOrder });
    expect(proofWords(p)).toMatch(
      /^\d leads more would find their place with \d accessories more, \d to order\. Put them on the order list to have it so\.$/,
    );
  });
  it("that orders nothing stands as it is", async () => {
    const g = build(3, 3);
    const p = await plan(g.build, g.types, { engine: unsure });
    expect([p.status, p.other, p.cost.fansFree]).toEqual(["not yet proved", undefined, 0]);
  });
});

import { describe, expect, it } from "vitest";
import { DEMO, demo } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import { clearances, radiatorSeats } from "../fit";
import { bodies } from ".";

describe("what is drawn and what is said", () => {
  it.each(DEMO)("%s: a top radiator hangs over the board by the same millimetres", (name) => {
    const { build, types } = demo(name);
    const g = buildGraph(build, types);
    for (const s of radiatorSeats(g)) {
      const said = clearances(g).find((c) => c.id === `memory-under-radiator:${s.cooler.id}`);
      if (!said || !g.boardRect) continue;
      const stack = bodies(g).filter((b) => b.id === `${s.cooler.id}/radiator` || s.fans.some((f) => f.id === b.id));
      const lowest = Math.max(...stack.map((b) => b.rect.yMm + b.rect.heightMm));
      expect([name, Math.max(0, lowest - g.boardRect.yMm)]).toEqual([name, said.need]);
    }
  });
  it("there is a machine of which that is said", () => {
    const { build, types } = demo("fs-1041");
    expect(clearances(buildGraph(build, types)).some((c) => c.id.startsWith("memory-under-radiator"))).toBe(true);
  });
});

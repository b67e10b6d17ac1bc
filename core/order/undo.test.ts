import { describe, expect, it } from "vitest";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { type Build, buildGraph, type TypeLookup } from "../assembly";
import { orderOf } from "./order";
import { problemOf } from "./problem";
import { pricesOf, undoOf } from "./undo";

/** A demo machine as planned, every step of it done. */
async function whole(name: string): Promise<{ build: Build; types: TypeLookup; problem: ReturnType<typeof problemOf> }> {
  const { types } = demo(name);
  const made = await demoPlan(name);
  const steps = orderOf(buildGraph(made.build, types)).steps.map((s) => s.id);
  const build: Build = {
    ...made.build,
    connections: made.build.connections.map((c) => ({ ...c, state: "plugged" })),
    done: steps.filter((s) => !s.startsWith("plug:")),
  };
  return { build, types, problem: problemOf(buildGraph(build, types)) };
}

describe.each(DEMO)("%s", (name) => {
  it("a modular supply comes out with its own plugs and its screws; a fixed one with all that hangs on it", async () => {
    const { build, types, problem } = await whole(name);
    const supply = build.parts.find((p) => types(p.type)?.kind === "supply");
    const undo = undoOf(problem, `mount:${supply?.id}`);
    const out = undo?.out.map((o) => o.step) ?? [];
    // Read off the connections, without anything of the order: what is in an outlet of this supply.
    const own = build.connections.filter((c) => c.port.startsWith(`${supply?.id}:`)).map((c) => `plug:${c.lead}`);
    const modular = own.length > 0;
    if (modular) expect(out.filter((s) => s !== "close").sort()).toEqual([`mount:${supply?.id}`, ...own].sort());
    else {
      const far = build.connections.filter((c) => c.lead.startsWith(`${supply?.id}/`)).map((c) => `plug:${c.lead}`);
      expect(far.length).toBeGreaterThan(2);
      for (const plug of far) expect(out).toContain(plug);
    }
  });
  it("the price of every step, without its order, is that of undoing it", async () => {
    const { problem } = await whole(name);
    const prices = pricesOf(problem);
    for (const w of problem.works.filter((_, i) => i % 3 === 0)) {
      const undo = undoOf(problem, w.id);
      const price = prices(w.id);
      expect([w.id, price?.steps, price?.leads, price?.screws]).toEqual([w.id, undo?.out.length, undo?.leads, undo?.screws]);
      expect(price?.handsMinutes ?? 0).toBeLessThanOrEqual(price?.minutes ?? 0);
      expect(Math.abs((price?.minutes ?? 0) - (undo?.minutes.whole ?? 0))).toBeLessThanOrEqual(1);
    }
    expect(prices("no-such-step")).toBeUndefined();
  });
  it("the client's bag stays packed, and the test on the box never comes back", async () => {
    const { problem } = await whole(name);
    for (const w of problem.works) {
      const undo = undoOf(problem, w.id);
      const touched = [...(undo?.out.map((o) => o.step) ?? []), ...(undo?.back.map((b) => b.step) ?? [])];
      if (w.id !== "pack") expect([w.id, touched.includes("pack")]).toEqual([w.id, false]);
      if (w.id !== "bench-test") expect([w.id, touched.includes("bench-test")]).toEqual([w.id, false]);
    }
  });
  it("after its cooler or head was off it is started before it is closed", async () => {
    const { problem } = await whole(name);
    for (const w of problem.works.filter((x) => x.measure === "head" || x.measure === "cooler")) {
      const back = undoOf(problem, w.id)?.back.map((b) => b.step) ?? [];
      expect([w.id, back.indexOf(w.id) >= 0 && back.indexOf(w.id) < back.indexOf("first-start")]).toEqual([w.id, true]);
      if (back.includes("close")) expect(back.indexOf("first-start")).toBeLessThan(back.indexOf("close"));
    }
  });
});

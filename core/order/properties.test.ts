import { describe, expect, it } from "vitest";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import { stepsOf } from ".";

const graphOf = async (name: string) => buildGraph((await demoPlan(name)).build, demo(name).types);

describe.each(DEMO)("%s: what holds of every order", (name) => {
  it("is the same twice, whatever the order of the file", async () => {
    const made = await demoPlan(name);
    const { types } = demo(name);
    const one = stepsOf(buildGraph(made.build, types)).steps.map((s) => s.id);
    const turned = {
      ...made.build,
      parts: [...made.build.parts].reverse(),
      connections: [...made.build.connections].reverse(),
    };
    expect([...stepsOf(buildGraph(turned, types)).steps.map((s) => s.id)].sort()).toEqual([...one].sort());
    expect(stepsOf(buildGraph(made.build, types)).steps.map((s) => s.id)).toEqual(one);
  });
  it("has no step twice, and every step has words, minutes and an id that survives a change of the plan", async () => {
    const { steps } = stepsOf(await graphOf(name));
    expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
    for (const s of steps) {
      expect(s.title.length).toBeGreaterThan(5);
      expect(s.minutes).toBeGreaterThan(0);
      expect(s.minutes).toBeLessThanOrEqual(60);
    }
  });
  it("nothing is plugged into a port after what covers that port", async () => {
    const graph = await graphOf(name);
    const { steps } = stepsOf(graph);
    const card = steps.findIndex((s) => /^plug:card.*:seat$/.test(s.id));
    if (card < 0) return;
    for (const [i, s] of steps.entries()) {
      const p = s.port ? graph.ports.get(s.port) : undefined;
      if (p?.part.type.kind !== "board" || !p.port.coveredBy.includes("card")) continue;
      expect([s.title, i < card]).toEqual([s.title, true]);
    }
  });
  it("whatever is already done, the rest keeps its order and says what comes next", async () => {
    const graph = await graphOf(name);
    const all = stepsOf(graph).steps;
    for (const n of [1, Math.floor(all.length / 3), all.length - 1]) {
      const done = new Set(all.slice(0, n).map((s) => s.id));
      const left = stepsOf(graph, done).steps.filter((s) => !s.done);
      const at = new Map(all.map((s, i) => [s.id, i]));
      for (const s of left) for (const a of s.after) expect(done.has(a) || left.findIndex((x) => x.id === a) < left.indexOf(s)).toBe(true);
      expect(left.every((s) => at.has(s.id))).toBe(true);
    }
  });
  it("the supply's plugs carry the mains caution, and modular ones the caution of their own supply", async () => {
    const graph = await graphOf(name);
    for (const s of stepsOf(graph).steps) {
      const l = s.lead ? graph.leads.get(s.lead) : undefined;
      if (l?.loom !== "power") continue;
      if (l.lead.role === "cable-root") expect([s.title, s.caution]).toEqual([s.title, expect.stringMatching(/Only cables of this supply/)]);
    }
  });
});

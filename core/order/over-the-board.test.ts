import { describe, expect, it } from "vitest";
import { demo, demoPlan } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import type { PartType } from "../catalogue";
import { bodyOf } from "../space";
import { orderOf } from "./order";

describe("a supply that hangs over the board", () => {
  it("goes in after the plugs that it hides, its own among them, without a contradiction", async () => {
    const { types } = demo("fs-1044");
    const graph = buildGraph((await demoPlan("fs-1044")).build, types);
    const rect = bodyOf(graph, "supply")?.rect;
    if (!rect) throw new Error("a supply");
    // Which ports lie under it, read off the catalogue and the case alone.
    const under = graph.connections.filter((c) => {
      const at = graph.ports.get(c.port)?.at;
      return (
        c.port.startsWith("board:") &&
        at !== undefined &&
        at.xMm > rect.xMm &&
        at.xMm < rect.xMm + rect.widthMm &&
        at.yMm > rect.yMm &&
        at.yMm < rect.yMm + rect.heightMm
      );
    });
    expect(under.length).toBeGreaterThan(1);
    const { steps, conflicts } = orderOf(graph);
    expect(conflicts).toEqual([]);
    const at = (id: string) => steps.findIndex((s) => s.id === id);
    for (const c of under) expect([c.lead, at(`plug:${c.lead}`) < at("mount:supply")]).toEqual([c.lead, true]);
  });
});

describe("firmware that does not know the CPU", () => {
  const old = (alone: boolean) => {
    const { build, types } = demo("fs-1041");
    const edit = (t: PartType | undefined): PartType | undefined =>
      t?.kind === "board"
        ? { ...t, ratings: { ...t.ratings, firmware: 1, flashWithoutCpu: alone } }
        : t?.kind === "cpu"
          ? { ...t, ratings: { ...t.ratings, needsFirmware: { T40: 2 } } }
          : t;
    return { build, types: (id: string) => edit(types(id)) };
  };
  it.each([true, false])("is made new before the CPU, the bench test and the board's place, with its caution; alone: %s", (alone) => {
    const { build, types } = old(alone);
    const { steps, conflicts } = orderOf(buildGraph({ ...build, connections: [{ lead: "cpu:seat", port: "board:CPU", state: "planned" }] }, types));
    expect(conflicts).toEqual([]);
    const at = (id: string) => steps.findIndex((s) => s.id === id);
    expect(at("firmware")).toBeGreaterThan(-1);
    for (const later of ["plug:cpu:seat", "bench-test", "board-in", "first-start"])
      expect([later, at("firmware") < at(later)]).toEqual([later, true]);
    expect(steps[at("firmware")]).toMatchObject({
      title: expect.stringContaining("to 2 or later"),
      caution: expect.stringContaining("Power never goes"),
    });
    expect(steps[at("firmware")]?.detail.includes("without a CPU")).toBe(alone);
  });
  it("is no step where the machine was started with this CPU, nor where the board knows it", () => {
    const { build, types } = old(true);
    const ids = (b: typeof build, t: typeof types) => orderOf(buildGraph(b, t)).steps.map((s) => s.id);
    expect(ids({ ...build, done: ["bench-test"] }, types)).not.toContain("firmware");
    expect(ids(build, demo("fs-1041").types as typeof types)).not.toContain("firmware");
    // What somebody read off this very board counts instead of what its like are delivered with.
    const read = (firmware: number) => ({ ...build, parts: build.parts.map((p) => (p.id === "board" ? { ...p, firmware } : p)) });
    expect(ids(read(2.1), types)).not.toContain("firmware");
    expect(ids(read(1.9), types)).toContain("firmware");
  });
});

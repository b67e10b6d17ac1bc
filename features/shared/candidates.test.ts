import { describe, expect, it } from "vitest";
import { buildGraph } from "../../core/assembly";
import { demo, demoPlan } from "../../tests/fixtures/demo";
import { candidates } from "./candidates";

const planned = async (name: string) => {
  const p = await demoPlan(name);
  return { build: { ...p.build, partTypes: demo(name).build.partTypes }, graph: buildGraph(p.build, demo(name).types) };
};

describe("where a lead could go", () => {
  it("offers only ports that the plug goes into, nearest first, each with what speaks for it", async () => {
    const { graph } = await planned("fs-1041");
    const rear = graph.leads.get("fan-rear:lead");
    const list = rear ? candidates(graph, rear) : [];
    expect(list[0]?.here).toBe(true);
    const open = list.filter((c) => !c.here && !c.taken);
    expect(open.length).toBeGreaterThan(1);
    for (let i = 1; i < open.length; i++) expect(open[i]?.runMm).toBeGreaterThanOrEqual(open[i - 1]?.runMm ?? 0);
    for (const c of list) expect(graph.ports.get(c.port)?.port.family).toMatch(/^fan-/);
    expect(list.find((c) => c.port === "board:SYS_FAN4")?.words).toMatch(/0\.18 A of 1 A; (\d+ mm of 450 mm|\d+ mm too short)/);
  });
  it("names who holds a port already, and never the lead's own part", async () => {
    const { graph } = await planned("fs-1045");
    const strip = graph.leads.get("strip-top:lead");
    const list = strip ? candidates(graph, strip) : [];
    expect(list.some((c) => c.port.startsWith("strip-top:"))).toBe(false);
    expect(list.some((c) => c.taken)).toBe(true);
    expect(list.every((c) => graph.ports.get(c.port)?.port.family === "light-5v")).toBe(true);
  });
  it("offers a panel plug its pins, not the block", async () => {
    const { graph } = await planned("fs-1041");
    const led = graph.leads.get("case:hdd-led");
    expect(led && candidates(graph, led).map((c) => c.place)).toEqual([[1, 3]]);
    const power = graph.leads.get("case:power-switch");
    expect(power && candidates(graph, power).map((c) => c.place)).toEqual([
      [6, 8],
      [8, 6],
    ]);
  });
  it("counts the lead that is already there only once in the current", async () => {
    const { graph } = await planned("fs-1041");
    const fan = graph.leads.get("rad-fan-1:lead");
    expect(fan && candidates(graph, fan).find((c) => c.here)?.words).toContain("0.75 A of 1 A");
  });
});

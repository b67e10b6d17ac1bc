import { describe, expect, it } from "vitest";
import { type Build, buildGraph, typeLookup } from "../core/assembly";
import { linesOf, readReport } from "../core/report";
import { pluggedDemo, shelf } from "../tests/fixtures/demo";
import { hiddenIn, SimulatedMachine } from "./machine";
import { REPORTS, reportOf } from "./reports";

const plugged = await pluggedDemo("fs-1045");
const built: Build = { ...plugged.build, partTypes: [...new Map([...shelf, ...plugged.build.partTypes].map((t) => [t.id, t])).values()] };
const started = (modes: Record<string, string> = {}) => {
  const m = new SimulatedMachine(built, modes);
  m.do("mains");
  m.do("press");
  m.pass(60);
  return m;
};
const graph = buildGraph(built, typeLookup(built, []));

describe("a simulated machine", () => {
  it("is dark without mains, starts in turn: fans, lights, code, picture; the very first picture comes late", () => {
    const m = new SimulatedMachine(built);
    expect(m.do("press")).toBe("Nothing happens: the supply is off at its switch.");
    m.do("mains");
    expect(m.state().standbyLit).toBe(true);
    m.do("press");
    expect(m.state().fans.every((f) => !f.turns)).toBe(true);
    m.pass(1);
    expect(m.state().fans.every((f) => f.turns)).toBe(true);
    m.pass(9);
    expect([m.state().screen, m.state().stage]).toEqual([[], "memory"]);
    m.pass(40);
    expect(m.state().screen.join()).toMatch(/Memory \d+ GB/);
    m.do("press");
    m.do("press");
    m.pass(16);
    expect(m.state().screen.length).toBeGreaterThan(0);
  });
  it("warms up under load as a lump of heat does, cools when it is off, and is as fast as it is told", () => {
    const m = started();
    const idle = m.readings()["CPU °C"] ?? 0;
    m.do("load");
    m.faster = 60;
    m.pass(60);
    const full = m.readings()["CPU °C"] ?? 0;
    expect(full).toBeGreaterThan(idle + 10);
    m.do("press");
    m.pass(60);
    m.faster = 1;
    m.do("press");
    m.pass(20);
    expect(m.readings()["CPU °C"]).toBeLessThan(idle + 5);
    expect(m.state().clockS).toBeGreaterThan(7000);
  });
  it("hands go in only when it is off; what is put right works again, what is not stays; minutes pass meanwhile", () => {
    const board = built.parts.find((p) => graph.parts.get(p.id)?.type.kind === "memory")?.id ?? "";
    const m = started({ [board]: "unseated" });
    expect(m.do("seat", board)).toMatch(/^Off first/);
    m.do("press");
    m.do("mains");
    m.do("swap", board);
    expect(m.do("mains")).toMatch(/^Hands are still at/);
    m.pass(601);
    expect(m.hidden).toEqual([{ element: board, mode: "unseated", still: true }]);
    m.do("seat", board);
    m.pass(181);
    expect(m.hidden[0]?.still).toBe(false);
  });
  it("plugs that move to where the record has them take minutes, and what is hidden stays", () => {
    const fan = graph.connections.find((c) => graph.leads.get(c.lead)?.part.type.kind === "fan")?.lead ?? "";
    const without = { ...built, connections: built.connections.filter((c) => c.lead !== fan) };
    const m = new SimulatedMachine(without, { mains: "off" });
    m.become(built);
    m.pass(170);
    expect(m.state().busy).not.toBeNull();
    m.pass(20);
    expect(m.graph.ofLead.has(fan)).toBe(true);
    expect(m.hidden).toEqual([{ element: "mains", mode: "off", still: true }]);
  });
  it("its reports, read as files are, say what the sheet expects of a machine that is right", () => {
    const told = started().told;
    expect(told).toBeDefined();
    if (!told) return;
    const read = REPORTS.flatMap((r) => {
      const one = readReport(reportOf(told, r));
      return typeof one === "string" ? [] : [one];
    });
    expect(read.map((r) => r.from)).toEqual([...REPORTS]);
    const lines = linesOf(graph, read);
    expect(lines.length).toBeGreaterThan(4);
    expect(lines.filter((l) => l.state !== "as expected")).toEqual([]);
    expect(lines.some((l) => l.id.startsWith("reads:"))).toBe(true);
  });
  it("hides faults that show, the same for the same number, and none that burns", () => {
    for (let seed = 0; seed < 12; seed++) {
      const one = hiddenIn(built, 1, seed);
      expect(Object.keys(one)).toHaveLength(1);
      expect(hiddenIn(built, 1, seed)).toEqual(one);
    }
    expect(Object.keys(hiddenIn(built, 2, 5))).toHaveLength(2);
  });
});

import { describe, expect, it } from "vitest";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { given, T } from "../../tests/fixtures/small";
import { buildGraph } from "../assembly";
import { stepsOf } from ".";

const stepsFor = async (name: string) => stepsOf(buildGraph((await demoPlan(name)).build, demo(name).types));

describe("the order of work", () => {
  it.each(DEMO)("%s: every connection is a step, precedence holds, nothing is in conflict", async (name) => {
    const { steps, conflicts } = await stepsFor(name);
    const made = await demoPlan(name);
    expect(conflicts).toEqual([]);
    expect(steps.flatMap((s) => s.lead ?? []).sort()).toEqual(made.connections.map((c) => c.lead).sort());
    const at = new Map(steps.map((s, i) => [s.id, i]));
    for (const s of steps) for (const a of s.after) expect(at.get(a)).toBeLessThan(at.get(s.id) ?? -1);
  });
  it("what the card, the radiator or the cooler covers is plugged before it", async () => {
    const { steps } = await stepsFor("fs-1041");
    const at = (id: string) => steps.findIndex((s) => s.id === id);
    const port = (label: string) => steps.findIndex((s) => s.port === `board:${label}`);
    for (const label of ["AUDIO1", "USB3_1", "SATA_1"]) expect(port(label)).toBeLessThan(at("plug:card:seat"));
    for (const label of ["CPU_FAN", "PUMP1"]) expect(port(label)).toBeLessThan(at("mount:cooler"));
    expect(at("plug:cpu:seat")).toBeLessThan(at("board-in"));
    expect(at("plug:card:seat")).toBeLessThan(at("plug:supply/g16/1:plug-1"));
    expect(at("board-in")).toBeLessThan(port("ATX_PWR"));
    expect(steps.find((s) => s.id === "plug:card:seat")?.covers).toContain("AUDIO1");
  });
  it("a loose I/O shield comes before the board; a fixed one is no step", async () => {
    const office = (await stepsFor("fs-1046")).steps.map((s) => s.id);
    expect(office.indexOf("io-shield")).toBeLessThan(office.indexOf("board-in"));
    expect(office).toContain("io-shield");
    expect((await stepsFor("fs-1041")).steps.map((s) => s.id)).not.toContain("io-shield");
  });
  it("says which standoffs to move where the case was set for another board", async () => {
    expect((await stepsFor("fs-1047")).steps.find((s) => s.id === "standoffs")?.title).toBe("Standoffs: take out B, R, S, add A, G, K, M");
    expect((await stepsFor("fs-1041")).steps.find((s) => s.id === "standoffs")?.title).toBe("Check the standoffs: 9 for this board");
  });
  it("shows the usual caution where hands meet power, static and narrow blocks", async () => {
    const { steps } = await stepsFor("fs-1045");
    expect(steps.find((s) => s.port === "board:ATX_PWR")?.caution).toMatch(/mains lead out, press the button once/);
    expect(steps.find((s) => s.lead?.includes(":root-1"))?.caution).toMatch(/Only cables of this supply/);
    expect(steps.find((s) => s.lead === "cpu:seat")?.caution).toMatch(/earth point/);
    expect(steps.find((s) => s.port === "board:USB3_1")?.caution).toMatch(/never at an angle/);
    expect(steps.find((s) => s.lead?.startsWith("strip-top"))?.caution).toMatch(/not interchangeable/);
  });
  it("after the machine was powered, every plug still to go in carries the mains caution", async () => {
    const graph = buildGraph((await demoPlan("fs-1041")).build, demo("fs-1041").types);
    for (const s of stepsOf(graph, new Set(), true).steps.filter((x) => x.lead)) expect(s.caution).toMatch(/mains lead out/);
  });
  it("two steps that each need the other first are a finding, not a hang", () => {
    // The card's own power lead would go into a header that the card covers.
    const { graph } = given(
      [
        T.board("b", [T.port("SLOT", "pcie-slot", "out", "expansion"), T.port("H", "fan-4", "out", "case-fan", { coveredBy: ["card"] })]),
        {
          id: "card",
          kind: "card",
          maker: "",
          name: "card",
          ports: [T.port("P", "gfx-8", "in", "graphics-power", { coveredBy: ["card"] })],
          leads: [T.lead("seat", "pcie-slot", "seat", 0)],
        },
        T.supply("p", [{ id: "g", label: "g", count: 1, captive: true, ends: [{ id: "e", family: "gfx-6+2", atMm: 900 }] }], []),
      ],
      [
        { id: "board", type: "b" },
        { id: "card", type: "card" },
        { id: "supply", type: "p" },
      ],
      {
        connections: [
          { lead: "card:seat", port: "board:SLOT" },
          { lead: "supply/g/1:e", port: "card:P" },
        ],
      },
    );
    const { conflicts, steps } = stepsOf(graph);
    expect(conflicts.length).toBeGreaterThan(0);
    expect(steps.some((s) => s.lead === "card:seat")).toBe(true);
  });
});

import { describe, expect, it } from "vitest";
import { buildGraph } from "../../core/assembly";
import { demo, demoPlan, pluggedDemo } from "../../tests/fixtures/demo";
import { candidates, dockOfLead, sceneOf } from "./scene";

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
    expect(list.find((c) => c.port === "board:SYS_FAN4")?.words).toMatch(/0\.18 A of 1 A; \d+ mm of 450 mm/);
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

describe("what is drawn", () => {
  it("the board's ports and a dock for everything with leads or sockets, each on its own side", async () => {
    const { types, build } = demo("fs-1043");
    const scene = sceneOf({
      ...(await demoPlan("fs-1043")).build,
      partTypes: build.parts.flatMap((p) => types(p.type) ?? []).concat((await demoPlan("fs-1043")).accessories.flatMap((a) => types(a.type) ?? [])),
    });
    expect(scene.ports.map((p) => p.label)).toContain("CPU_FAN");
    const side = (id: string) => scene.docks.find((d) => d.id === id)?.side;
    expect([side("case"), side("card-1"), side("hub-a"), side("rad-fan-1"), side("fan-rear-1"), side("supply:BOARD_1"), side("hdd-1")]).toEqual([
      "right",
      "right",
      "right",
      "top",
      "left",
      "bottom",
      "right",
    ]);
    expect(scene.docks.some((d) => d.id === "mem-1" || d.id === "cpu")).toBe(false);
  });
  it("a cable starts at its outlet; a data cable at its other end", async () => {
    const graph = await pluggedDemo("fs-1041");
    const plug = graph.leads.get("supply/sata/1:plug-1");
    expect(plug && dockOfLead(graph, plug)).toMatch(/^supply:DRIVE_\d$/);
    const atBoard = [...graph.leads.values()].find(
      (l) => l.part.id === "board/sata-lead/1" && graph.ofLead.get(l.address)?.port.startsWith("board:"),
    );
    expect(atBoard && ["hdd-1", "ssd-1"].includes(dockOfLead(graph, atBoard))).toBe(true);
  });
});

import { describe, expect, it } from "vitest";
import { wantedFree } from "../../tests/fixtures/cost";
import { demo, demoPlan } from "../../tests/fixtures/demo";
import { airOf } from "../air";
import { buildGraph, type Graph } from "../assembly";
import { hungOn } from "../brings";
import { check, checkParts } from "../checks";
import { orderOf } from "../order";
import { sheetOf } from "../sheet";

/** A demo build as planned, and what hangs where. */
async function planned(name: string) {
  const plan = await demoPlan(name);
  const graph = buildGraph(plan.build, demo(name).types);
  const leads = (test: (l: ReturnType<Graph["leads"]["get"]> & object) => boolean) => [...graph.leads.values()].filter(test);
  const rootOf = (lead: string) => {
    const port = graph.ports.get(graph.ofLead.get(lead)?.port ?? "");
    return port && hungOn(graph, port);
  };
  /** Sockets of a part that want power, and whether a plug is in each. */
  const fed = (part: string) =>
    [...graph.ports.values()].filter((p) => p.part.id === part && p.port.flow === "in").map((p) => graph.atPort.has(p.address));
  return { plan, graph, leads, rootOf, fed, of: (kind: string) => plan.build.parts.filter((p) => graph.parts.get(p.id)?.type.kind === kind) };
}

describe("what each machine of the demo is for shows in its plan", () => {
  it("FS-1041, the ordinary case: complete, and no light anywhere", async () => {
    const { plan, leads } = await planned("fs-1041");
    expect([plan.cost.mandatoryFree, wantedFree(plan.cost), plan.cost.functionsReduced]).toEqual([0, 0, 0]);
    expect(leads((l) => l.loom === "lighting" && l.lead.need !== "optional")).toEqual([]);
  });
  it("FS-1042, the quiet one: fanless supply, a picture without a card, a low-noise lead told wherever it is plugged, quieter than asked", async () => {
    const { plan, graph, of } = await planned("fs-1042");
    expect(of("card")).toEqual([]);
    expect(of("supply").map((p) => graph.parts.get(p.id)?.type.ratings.fanless)).toEqual([true]);
    expect(check(graph, "plan").filter((f) => f.rule === "picture-source")).toEqual([]);
    const two = plan.connections.filter((c) => c.lead.startsWith("mem-"));
    expect(two.map((c) => c.port).sort()).toEqual(["board:DIMM_A2", "board:DIMM_B2"]);
    const c = plan.connections.find((x) => x.lead === "fan-rear:lead");
    expect(c?.why).toContain("Its low-noise lead, a resistor, goes between");
    expect(orderOf(graph).steps.find((s) => s.lead === "fan-rear:lead")?.title).toMatch(/^Plug Rear fan into .+, its low-noise lead between$/);
    expect(sheetOf(graph).rows.find((r) => r.lead === "fan-rear:lead")?.plug).toBe("Rear fan, low-noise lead between");
    const front = orderOf(graph).steps.find((s) => s.lead === "fan-front-1:lead");
    expect(front?.title).toMatch(/^Plug Front fan/);
    expect(front?.title).not.toContain("low-noise");
    const wish = plan.build.wishes.noiseDb ?? 0;
    expect(airOf(graph).noiseDb).toBeLessThan(wish);
    // Without the lead the rear fan draws more out than the front one brings in, and that is said.
    const loud = demo("fs-1042").build;
    const without = buildGraph({ ...loud, parts: loud.parts.map(({ lowNoise: _, ...p }) => p) }, demo("fs-1042").types);
    expect(checkParts(demo("fs-1042").graph).map((f) => f.rule)).not.toContain("air-enough");
    expect(checkParts(without).map((f) => f.rule)).toContain("air-enough");
  });
  it("FS-1043, the large one: ten drives with data and power, two cards fed, sixteen fans that turn, two hubs with power and signal", async () => {
    const { plan, graph, leads, rootOf, fed, of } = await planned("fs-1043");
    expect(wantedFree(plan.cost) + plan.cost.mandatoryFree).toBe(0);
    const drives = of("drive");
    expect(drives).toHaveLength(10);
    for (const d of drives) {
      const disk = graph.parts.get(d.id)?.type.ports.some((p) => p.family === "sata-power");
      if (disk) expect([d.id, fed(d.id)]).toEqual([d.id, [true, true]]);
      else expect([d.id, graph.ofLead.get(`${d.id}:edge`)?.port]).toEqual([d.id, expect.stringMatching(/^board:M2_/)]);
    }
    expect(of("card")).toHaveLength(2);
    for (const c of of("card")) expect(fed(c.id).every(Boolean)).toBe(true);
    const fans = leads((l) => l.part.type.kind === "fan" && l.loom === "fans");
    expect(fans).toHaveLength(16);
    for (const f of fans) expect(rootOf(f.address)).toBeDefined();
    const hubs = of("hub");
    expect(hubs).toHaveLength(2);
    for (const h of hubs) {
      expect(fed(h.id)).toEqual([true]);
      expect(leads((l) => l.part.id === h.id && l.lead.role === "hub-control").every((l) => graph.ofLead.has(l.address))).toBe(true);
    }
    expect(new Set(fans.map((f) => rootOf(f.address)?.hub).filter(Boolean))).toEqual(new Set(hubs.map((h) => h.id)));
  });
  it("FS-1047, the rebuild: what the client brought is wired in with the rest, and the old case's plug says why it stays free", async () => {
    const { plan, graph } = await planned("fs-1047");
    const old = plan.build.parts.filter((p) => p.reused).map((p) => p.id);
    expect(old).toEqual(["case", "hdd-1", "fan-rear"]);
    for (const id of ["hdd-1", "fan-rear"]) expect([id, plan.free.some((f) => f.end.startsWith(`${id}:`))]).toEqual([id, false]);
    expect(graph.atPort.get("hdd-1:power")).toBeDefined();
    expect(plan.free.filter((f) => f.end.startsWith("case:")).map((f) => f.end)).toEqual(["case:power-led"]);
  });
  it("FS-1048, the one that waits for a supply: its wiring is ready for the day it comes", async () => {
    const { plan } = await planned("fs-1048");
    expect(plan.free).toEqual([]);
    expect([plan.cost.toOrder, plan.cost.fromShelf]).toEqual([0, 0]);
  });
});

import { describe, expect, it } from "vitest";
import { demo, demoPlan, pluggedDemo } from "../../tests/fixtures/demo";
import { buildGraph, type Connection } from "../assembly";
import { rootOf } from "../brings";
import { powerOn } from ".";

const without =
  (...leads: string[]) =>
  (l: Connection[]) =>
    l.filter((c) => !leads.includes(c.lead));
const line = (p: ReturnType<typeof powerOn>, id: string) => p.lines.find((x) => x.id === id);

describe("first boot, computed from what is plugged", () => {
  it("everything in: it starts, every fan turns, memory reads 32 GB at its default speed", async () => {
    const p = powerOn(await pluggedDemo("fs-1041"));
    expect(p.stopsAt).toBeUndefined();
    expect(p.lines.filter((l) => !l.works)).toEqual([]);
    expect(line(p, "memory-size")?.expected).toBe("32");
    expect(line(p, "memory-speed")).toMatchObject({ expected: "4800", because: expect.stringContaining("2400 MHz") });
    expect(p.lines.filter((l) => l.group === "Fans and pump")).toHaveLength(8);
  });
  it("counts what is ticked, not what is planned", async () => {
    const made = await demoPlan("fs-1041");
    const planned = buildGraph(made.build, demo("fs-1041").types);
    expect(powerOn(planned).stopsAt).toBe("standby");
    expect(powerOn(planned).verdict).toBe("If you press now: nothing at all. ATX_PWR is empty.");
  });
  it.each([
    ["supply/board/1:plug-1", "standby", "standby", "dark"],
    ["supply/board/1:root-1", "standby", "standby", "dark"],
    ["case:power-switch", "button", "button", "nothing"],
    ["supply/cpu/1:plug-1", "cpu", "picture", "none"],
    ["cpu:seat", "cpu", "cpu", "stops"],
    ["supply/g16/1:plug-1", "picture", "picture", "none"],
    ["card:seat", "picture", "picture", "none"],
  ])("without %s it stops at %s", async (lead, stage, id, seen) => {
    const p = powerOn(await pluggedDemo("fs-1041", without(lead)));
    expect(p.stopsAt).toBe(stage);
    expect(line(p, id)?.expected).toBe(seen);
  });
  it("CPU power forgotten: fans spin, no picture", async () => {
    const p = powerOn(await pluggedDemo("fs-1041", without("supply/cpu/1:plug-1")));
    expect(p.verdict).toBe("If you press now: all fans turn, no picture. CPU_PWR1 is empty.");
  });
  it("what comes after the place where it stops is not reached, whatever is plugged there", async () => {
    const p = powerOn(await pluggedDemo("fs-1041", without("mem-1:seat", "mem-2:seat")));
    const later = p.lines.filter((l) => ["Drives", "Front ports"].includes(l.group));
    expect(later.length).toBeGreaterThan(2);
    for (const l of later) expect(l).toMatchObject({ works: false, expected: "not reached", because: "Memory 1 is not in its memory slot." });
    for (const l of later) expect(l.otherwise).not.toContain("not reached");
  });
  it("a machine without any fan is told without fans", async () => {
    const { build, types } = demo("fs-1048");
    const fanless = new Set(build.parts.filter((x) => ["fan", "cooler", "splitter", "hub"].includes(types(x.type)?.kind ?? "")).map((x) => x.id));
    const graph = await pluggedDemo("fs-1048", (l) =>
      l.filter((c) => ![...fanless].some((id) => c.lead.startsWith(`${id}:`) || c.port.startsWith(`${id}:`))),
    );
    const bare = { ...graph.build, parts: graph.build.parts.filter((x) => !fanless.has(x.id)) };
    expect(powerOn(buildGraph(bare, types)).verdict).toMatch(/^If you press now: (it starts|start-up halts)/);
    const noCpu = buildGraph({ ...bare, connections: bare.connections.filter((c) => c.lead !== "cpu:seat") }, types);
    expect(powerOn(noCpu).verdict).toMatch(/^If you press now: no picture\. /);
  });
  it("a CPU that draws more than its plugs carry is told to shut down, not to be out of order", async () => {
    const { build, types } = demo("fs-1041");
    const graph = await pluggedDemo("fs-1041");
    const cpu = build.parts.find((x) => types(x.type)?.kind === "cpu")?.type;
    const hungry = (id: string) => {
      const t = types(id);
      return t && id === cpu ? { ...t, ratings: { ...t.ratings, powerW: 900, peakW: 900 } } : t;
    };
    const said = powerOn(buildGraph(graph.build, hungry)).verdict;
    expect(said).toMatch(/; under full load on the CPU it shuts down\.$/);
    expect(said).not.toContain("not working");
  });
  it("one module left: half the memory; none: the memory stage", async () => {
    expect(line(powerOn(await pluggedDemo("fs-1041", without("mem-2:seat"))), "memory-size")?.expected).toBe("16");
    expect(powerOn(await pluggedDemo("fs-1041", without("mem-1:seat", "mem-2:seat"))).stopsAt).toBe("memory");
  });
  it("no speed signal on CPU_FAN halts start-up, unless the warning is ignored", async () => {
    const graph = await pluggedDemo("fs-1044", without("cooler:fan"));
    const bare = await pluggedDemo("fs-1044", (l) => l.filter((c) => c.port !== "board:CPU_FAN" && !c.lead.startsWith("cooler:")));
    expect(powerOn(bare).stopsAt).toBe("fan-warning");
    expect(powerOn(bare).verdict).toContain("halts with a CPU fan warning and waits for a key");
    const ignored = { ...bare, build: { ...bare.build, settings: { ...bare.build.settings, cpuFanWarning: "ignore" as const } } };
    expect(powerOn(ignored).stopsAt).toBeUndefined();
    expect(line(powerOn(graph), "turns:cooler:fan")?.expected).toBe("still");
  });
  it("a hub without power: all its fans still; without its control lead: full speed", async () => {
    const dark = powerOn(await pluggedDemo("fs-1045", (l) => l.filter((c) => c.port !== "hub-fan:power")));
    const whole = await pluggedDemo("fs-1045");
    const onHub = [...whole.leads.values()].filter((l) => {
      const port = whole.ports.get(whole.ofLead.get(l.address)?.port ?? "");
      const root = port && rootOf(whole, port);
      return l.lead.role === "case-fan" && root?.kind === "hub" && root.part.id === "hub-fan";
    });
    expect(onHub.length).toBeGreaterThan(2);
    for (const l of onHub) expect(line(dark, `turns:${l.address}`)?.expected).toBe("still");
    const loud = powerOn(await pluggedDemo("fs-1045", without("hub-fan:pwm")));
    expect(line(loud, `turns:${onHub[0]?.address}`)).toMatchObject({ expected: "turns", because: "Full speed: its hub has no speed signal." });
  });
  it("5 V lights on 12 V: do not press", async () => {
    const p = powerOn(
      await pluggedDemo("fs-1045", (l) => [
        ...l.filter((c) => c.lead !== "strip-front:lead" && c.port !== "board:LED12V_1"),
        { lead: "strip-front:lead", port: "board:LED12V_1", state: "plugged" },
      ]),
    );
    expect(p.damage).toHaveLength(1);
    expect(p.verdict).toMatch(/^Do not press: LT-\d+ .*they die at power-on/);
  });
  it("a drive on a port that a filled slot switches off is missing, the others are listed", async () => {
    const p = powerOn(await pluggedDemo("fs-1041", (l) => l.map((c) => (c.lead === "nvme-1:edge" ? { ...c, port: "board:M2_3" } : c))));
    const off = p.lines.filter((l) => l.group === "Drives" && !l.works);
    for (const l of off) expect(l.because).toContain("M2_3 switches");
    expect(line(p, "drive:nvme-1")?.expected).toBe("listed");
  });
  it("a bad splitter stills exactly what hangs on it; under CPU_FAN it halts start-up too", async () => {
    const graph = await pluggedDemo("fs-1041");
    const splitterOf = (fan: string) => graph.ofLead.get(`${fan}:lead`)?.port.split(":")[0] ?? "";
    const still = (p: ReturnType<typeof powerOn>) =>
      p.lines
        .filter((l) => !l.works && l.group === "Fans and pump")
        .map((l) => l.id)
        .sort();
    const front = powerOn(graph, new Set([splitterOf("fan-front-1")]));
    expect(still(front)).toEqual(["turns:fan-front-1:lead", "turns:fan-front-2:lead", "turns:fan-front-3:lead"]);
    expect(front.stopsAt).toBeUndefined();
    const radiator = powerOn(graph, new Set([splitterOf("rad-fan-1")]));
    expect(still(radiator)).toEqual(["turns:rad-fan-1:lead", "turns:rad-fan-2:lead", "turns:rad-fan-3:lead"]);
    expect(radiator.stopsAt).toBe("fan-warning");
  });
});

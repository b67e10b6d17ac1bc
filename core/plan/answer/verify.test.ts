import { describe, expect, it } from "vitest";
import { DEMO, demo, demoPlan } from "../../../tests/fixtures/demo";
import { given, T } from "../../../tests/fixtures/small";
import { type Build, buildGraph, type Connection, type Graph, isDone } from "../../assembly";
import { type Cost, compareCost, LEVELS, plan, verify, wholeCost } from "..";

/** The verdict on a demo plan whose connections were edited afterwards. */
async function edited(name: string, edit: (list: Connection[], graph: Graph) => Connection[]) {
  const made = await demoPlan(name);
  const { build, types } = demo(name);
  const graph = buildGraph(made.build, types);
  const connections = edit(
    made.build.connections.map((c) => ({ ...c })),
    graph,
  );
  return verify(buildGraph({ ...made.build, connections }, types), buildGraph(build, types));
}

describe("the independent checker finds what is wrong with a plan", () => {
  it.each(DEMO)("%s: the plan as made has nothing broken, and costs what the planner said", async (name) => {
    const made = await demoPlan(name);
    const verdict = await edited(name, (l) => l);
    expect(verdict.broken).toEqual([]);
    expect(verdict.cost).toEqual(made.cost);
  });

  it.each(DEMO)("%s: counted as a whole, a plan made from nothing costs what the planner said, whatever is held of it afterwards", async (name) => {
    const made = await demoPlan(name);
    const { types } = demo(name);
    expect(wholeCost(made.build, types)).toEqual(made.cost);
    for (const state of ["fixed", "plugged"] as const) {
      const held = { ...made.build, connections: made.build.connections.map((c, i) => (i % 3 === 0 ? { ...c, state } : c)) };
      expect(wholeCost(held, types)).toEqual(made.cost);
    }
  });

  it.each(DEMO)("%s: every connection left out costs more or breaks something", async (name) => {
    const made = await demoPlan(name);
    const { build, types } = demo(name);
    const before = buildGraph(build, types);
    const worse: string[] = [];
    for (const c of made.build.connections) {
      if (isDone(c)) continue;
      const verdict = verify(buildGraph({ ...made.build, connections: made.build.connections.filter((x) => x !== c) }, types), before);
      if (verdict.broken.length === 0 && compareCost(verdict.cost, made.cost) <= 0) worse.push(`${c.lead} into ${c.port} is needless`);
    }
    expect(worse).toEqual([]);
  });

  it.each(DEMO)("%s: no fan, light or panel lead is better off in any other free port", async (name) => {
    const made = await demoPlan(name);
    const { build, types } = demo(name);
    const before = buildGraph(build, types);
    const graph = buildGraph(made.build, types);
    const free = [...graph.ports.values()].filter((p) => p.port.flow === "out" && !graph.atPort.get(p.address)?.length);
    let tried = 0;
    for (const c of made.build.connections) {
      const l = graph.leads.get(c.lead);
      if (!l || isDone(c) || l.lead.flow !== "in" || c.place) continue;
      for (const p of free) {
        if (p.port.family !== l.lead.family || p.part === l.part) continue;
        tried++;
        const moved = made.build.connections.map((x) => (x === c ? { ...x, port: p.address } : x));
        const verdict = verify(buildGraph({ ...made.build, connections: moved }, types), before);
        expect([c.lead, p.address, verdict.broken.length > 0 || compareCost(verdict.cost, made.cost) >= 0]).toEqual([c.lead, p.address, true]);
      }
    }
    expect(tried).toBeGreaterThan(0);
  });

  it("two plugs in one place", async () => {
    const verdict = await edited("fs-1041", (list) =>
      list.map((c) => (c.lead === "fan-rear:lead" ? { ...c, port: list.find((x) => x.lead === "cooler:pump")?.port ?? "" } : c)),
    );
    expect(verdict.broken.join("\n")).toMatch(/holds two plugs/);
  });
  it("an end that does not exist, and one that does not mate", async () => {
    expect((await edited("fs-1041", (l) => [...l, { lead: "ghost:x", port: "board:PUMP1", state: "planned" }])).broken[0]).toMatch(/no such end/);
    const wrong = await edited("fs-1041", (l) =>
      l.map((c) => (c.lead === "case:audio" ? { lead: c.lead, port: "board:USB2_1", state: "planned" } : c)),
    );
    expect(wrong.broken.join("\n")).toMatch(/case:audio does not mate with board:USB2_1/);
  });
  it("a splitter that hangs on nothing takes its fans with it", async () => {
    const verdict = await edited("fs-1041", (l, g) => {
      const splitter = g.ofLead.get("fan-front-1:lead")?.port.split(":")[0];
      return l.filter((c) => c.lead !== `${splitter}:in`);
    });
    expect(verdict.broken.filter((b) => /plugged into nothing/.test(b)).length).toBe(3);
  });
  it("a cable that is not in the supply", async () => {
    const verdict = await edited("fs-1041", (l) => l.filter((c) => c.lead !== "supply/g16/1:root-1"));
    expect(verdict.broken).toContain("supply/g16/1 is not plugged into the supply");
  });
  it("a data cable with one end loose", async () => {
    const verdict = await edited("fs-1043", (l, g) => {
      const data = l.find((c) => g.ports.get(c.port)?.port.role === "drive-data" && g.ports.get(c.port)?.port.flow === "out");
      return l.filter((c) => c !== data);
    });
    expect(verdict.broken.join("\n")).toMatch(/cable that leads nowhere/);
  });
});

describe("limits, one at a time", () => {
  const fans = (currents: number[], limit: Record<string, number>, more: Record<string, unknown> = {}) =>
    given(
      [
        T.board("b", [T.header("H1", 20, { limit })]),
        T.splitter("s", currents.length),
        ...currents.map((a, i) => T.fan(`f${i}`, a, i === 0 ? more : {})),
      ],
      [{ id: "board", type: "b" }, { id: "split", type: "s", from: "shelf" }, ...currents.map((_, i) => ({ id: `fan-${i}`, type: `f${i}` }))],
      {
        connections: [
          { lead: "split:in", port: "board:H1", state: "planned" },
          ...currents.map((_, i) => ({ lead: `fan-${i}:lead`, port: `split:out-${i + 1}`, state: "planned" })),
        ],
      },
    );
  const verdict = (g: { build: Build; graph: Graph; types: Parameters<typeof buildGraph>[1] }) =>
    verify(g.graph, buildGraph({ ...g.build, connections: [] }, g.types));
  it("current: 1.0 A on 1 A holds, 1.1 A does not", () => {
    expect(verdict(fans([0.5, 0.5], { currentA: 1 })).broken).toEqual([]);
    expect(verdict(fans([0.5, 0.6], { currentA: 1 })).broken).toEqual(
      ["board:H1 carries more than its current"].concat("board:H1 carries more than its starting current"),
    );
  });
  it("starting current alone: 2.2/1.5 of the steady current where the data gives none", () => {
    // 2 x 0.5 A steady start at 1.467 A; a header that says 1.4 A for starting refuses them.
    expect(verdict(fans([0.5, 0.5], { currentA: 1, startCurrentA: 1.4 })).broken).toEqual(["board:H1 carries more than its starting current"]);
    expect(verdict(fans([0.5, 0.5], { currentA: 1, startCurrentA: 1.47 })).broken).toEqual([]);
  });
  it("reach: a lead of 30 mm reaches nothing", () => {
    expect(verdict(fans([0.2], { currentA: 1 }, { lengthMm: 30 })).broken.join()).toMatch(/fan-0:lead does not reach/);
  });
  it("LEDs on a header: 50 at 3 A, formula 3 A / 60 mA", () => {
    const strips = (leds: number) =>
      given(
        [T.board("b", [T.port("L", "light-5v", "out", "light", { limit: { currentA: 3, leds: 50 } })]), T.strip("t", leds, leds * 0.06, false)],
        [
          { id: "board", type: "b" },
          { id: "strip", type: "t" },
        ],
        { connections: [{ lead: "strip:lead", port: "board:L", state: "planned" }] },
      );
    expect(verdict(strips(50)).broken).toEqual([]);
    expect(verdict(strips(51)).broken.join()).toMatch(/too many LEDs/);
  });
});

describe("costs are compared level by level", () => {
  const zero = Object.fromEntries(LEVELS.map((l) => [l, 0])) as unknown as Cost;
  it("the higher level decides, however large the lower one", () => {
    for (const [i, level] of LEVELS.entries()) {
      // The order of names breaks ties and is no cost.
      if (level === "canonical") continue;
      const worse = { ...zero, [level]: 1 } as Cost;
      const lower = LEVELS[i + 1];
      expect(compareCost(worse, zero)).toBeGreaterThan(0);
      if (lower && lower !== "canonical") expect(compareCost(worse, { ...zero, [lower]: 1e6 } as Cost)).toBeGreaterThan(0);
    }
    expect(compareCost(zero, { ...zero })).toBe(0);
  });
});

describe("what is plugged stays, right or wrong", () => {
  it("a fan plugged where nobody would plan it is kept, and everything else is planned round it", async () => {
    const { build, types } = demo("fs-1041");
    const held: Connection[] = [{ lead: "fan-rear:lead", port: "board:CPU_FAN", state: "plugged" }];
    const made = await plan({ ...build, connections: held }, types);
    expect(made.connections.find((c) => c.lead === "fan-rear:lead")).toMatchObject({ port: "board:CPU_FAN", state: "plugged" });
    expect(made.broken).toEqual([]);
    const others = made.connections.filter((c) => c.port === "board:CPU_FAN").map((c) => c.lead);
    expect(others).toEqual(["fan-rear:lead"]);
    expect(made.connections.filter((c) => /^rad-fan-\d:lead$/.test(c.lead))).toHaveLength(3);
  });
});

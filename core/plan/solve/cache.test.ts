import { describe, expect, it } from "vitest";
import { DEMO, demo } from "../../../tests/fixtures/demo";
import { buildGraph } from "../../assembly";
import { leadToPortMm } from "../../routes";
import { costsOfPlaces, costWords, LEVELS, type Plan, plan, SolvedPieces } from "..";

const key = (p: Plan) => p.connections.map((c) => `${c.lead} ${c.port} ${c.place?.join() ?? ""}`).join("\n");

describe("a plan with solved pieces at hand", () => {
  it.each(DEMO)(
    "%s: from nothing, again, and round each of five fixed leads it is the plan without one, to the last plug",
    async (name) => {
      const { build, types } = demo(name);
      const solved = new SolvedPieces();
      const bare = { ...build, connections: [] };
      const first = await plan(bare, types, { solved });
      expect(key(first)).toBe(key(await plan(bare, types)));
      const planned = first.build;
      // The planned build again: nothing may move, and no piece is solved a second time.
      const before = solved.hits;
      const again = await plan(planned, types, { solved });
      expect(key(again)).toBe(key(first));
      expect(solved.hits).toBeGreaterThan(before);
      const mine = new Set(planned.parts.filter((p) => p.from === "client").map((p) => p.id));
      const part = (end: string) => end.split(/[:/]/)[0] ?? "";
      const own = planned.connections.filter((c) => !c.lead.includes("/") && mine.has(part(c.lead)) && mine.has(part(c.port)));
      for (let i = 0; i < 5; i++) {
        const pick = own[Math.floor((own.length * i) / 5)];
        const fixed = { ...planned, connections: planned.connections.map((c) => (c === pick ? { ...c, state: "fixed" as const } : c)) };
        const [a, b] = [await plan(fixed, types, { solved }), await plan(fixed, types)];
        expect(key(a)).toBe(key(b));
        expect(a.cost).toEqual(b.cost);
        expect(key(a)).toBe(key(first));
      }
      // Accessories and cables too: what is held where the best plan has it leaves that plan the best.
      for (let i = 0; i < 8; i++) {
        const pick = planned.connections[Math.floor((planned.connections.length * i) / 8)];
        const fixed = { ...planned, connections: planned.connections.map((c) => (c === pick ? { ...c, state: "fixed" as const } : c)) };
        const held = await plan(fixed, types, { solved });
        expect(key(held)).toBe(key(first));
        expect(held).toMatchObject({ status: "proved", broken: [] });
        expect(held.connections.find((c) => c.lead === pick?.lead)?.state).toBe("fixed");
      }
    },
    120_000,
  );
  it("a plan made while a fan was held elsewhere is not the best once it is let go", async () => {
    const { build, types } = demo("fs-1041");
    const solved = new SolvedPieces();
    const best = await plan({ ...build, connections: [] }, types, { solved });
    const fan = best.connections.find((c) => c.port === "board:SYS_FAN2");
    const held = {
      ...best.build,
      connections: best.build.connections
        .filter((c) => c.port !== "board:SYS_FAN3")
        .map((c) => (c.lead === fan?.lead ? { ...c, port: "board:SYS_FAN3", state: "fixed" as const } : c)),
    };
    const worse = await plan(held, types, { solved });
    expect(worse.connections.find((c) => c.lead === fan?.lead)?.port).toBe("board:SYS_FAN3");
    const free = { ...worse.build, connections: worse.build.connections.map((c) => ({ ...c, state: "planned" as const })) };
    expect(key(await plan(free, types, { solved }))).toBe(key(await plan(free, types)));
    expect(solved.stillBest(free)).toBe(false);
  }, 120_000);
  it("holds no more than it may: the least lately used goes", async () => {
    const { build, types } = demo("fs-1041");
    const none = new SolvedPieces(1);
    await plan({ ...build, connections: [] }, types, { solved: none });
    const much = new SolvedPieces();
    await plan({ ...build, connections: [] }, types, { solved: much });
    const count = (m: SolvedPieces) => (m as unknown as { pieces: Map<string, unknown> }).pieces.size;
    expect(count(much)).toBeGreaterThan(1);
    expect(count(none)).toBeLessThanOrEqual(1);
  });
});

describe("what another place would cost", () => {
  it("the place that the plan chose costs nothing more; no other costs less; the words name the first level that differs", async () => {
    const { build, types } = demo("fs-1041");
    const planned = (await plan({ ...build, connections: [] }, types)).build;
    const fan = planned.connections.find((c) => c.port === "board:SYS_FAN2");
    if (!fan) throw new Error("no fan on SYS_FAN2");
    const places = ["board:SYS_FAN1", "board:SYS_FAN2", "board:SYS_FAN3", "board:SYS_FAN4", "board:CPU_OPT"].map((port) => ({ port }));
    const costs = await costsOfPlaces(planned, types, fan.lead, places);
    expect(costs.map((c) => c.port)).toEqual(places.map((p) => p.port));
    const here = costs.find((c) => c.port === fan.port);
    expect(here).toMatchObject({ words: "nothing more", best: true, rank: 0, proved: true });
    expect([...costs].map((c) => c.rank).sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 4]);
    for (const c of costs) if (c !== here) expect(c.words).not.toBe("");
    // By the planner itself: fixing it elsewhere is never cheaper.
    expect(costs.filter((c) => c.best).every((c) => c.words === "nothing more")).toBe(true);
  }, 60_000);
  it("a fan's own wire counts wherever it is fixed: elsewhere is never better than where the plan put it", async () => {
    const { build, types } = demo("fs-1041");
    const planned = (await plan({ ...build, connections: [] }, types)).build;
    const fan = planned.connections.find((c) => c.lead === "fan-rear:lead");
    if (!fan) throw new Error("no rear fan");
    const places = ["board:SYS_FAN1", "board:SYS_FAN3", "board:CPU_FAN"].map((port) => ({ port }));
    const costs = await costsOfPlaces(planned, types, fan.lead, places);
    expect(costs.map((c) => [c.port, c.best])).toEqual(places.map((p) => [p.port, p.port === fan.port]));
    expect(costs[0]?.words).toBe("nothing more");
    for (const c of costs.slice(1)) expect(c.words).not.toMatch(/shorter|fewer|nothing/);
  }, 60_000);
  it("a place out of reach is no second best: SYS_FAN4 for the upper front fan, by the board's own millimetres", async () => {
    const { build, types } = demo("fs-1041");
    const planned = (await plan({ ...build, connections: [] }, types)).build;
    const fan = planned.connections.find((c) => c.lead === "fan-front-1:lead");
    if (!fan) throw new Error("no upper front fan");
    const costs = await costsOfPlaces(planned, types, fan.lead, [{ port: fan.port }, { port: "board:SYS_FAN4" }, { port: "board:CPU_OPT" }]);
    const g = buildGraph(planned, types);
    const [lead, port] = [g.leads.get(fan.lead), g.ports.get("board:SYS_FAN4")];
    if (!lead || !port) throw new Error("gone");
    expect(leadToPortMm(g, lead, port)).toBeGreaterThan(lead.lead.lengthMm);
    expect(costs.map((c) => [c.holds, c.best])).toEqual([
      [true, true],
      [false, false],
      [true, false],
    ]);
    expect(costs[1]).toMatchObject({ words: "out of reach, or over a limit", rank: 2 });
  }, 60_000);
  it("without time there is no answer for a place, not a wrong one", async () => {
    const { build, types } = demo("fs-1048");
    const planned = (await plan({ ...build, connections: [] }, types)).build;
    const fan = planned.connections.find((c) => c.port.startsWith("board:") && c.port.includes("FAN"));
    if (!fan) throw new Error("no fan");
    expect(await costsOfPlaces(planned, types, fan.lead, [{ port: fan.port }], { deadlineS: 0.5 })).toEqual([]);
  });
  it("costs in plain words", () => {
    const zero = Object.fromEntries(LEVELS.map((l) => [l, 0])) as Plan["cost"];
    expect(costWords(zero, zero)).toBe("nothing more");
    expect(costWords(zero, { ...zero, canonical: 7 })).toBe("nothing more");
    expect(costWords(zero, { ...zero, lengthCm: 12 })).toBe("12 cm longer");
    expect(costWords(zero, { ...zero, wantedFree: 1, lengthCm: -3, changes: 2 })).toBe(
      "other plugs that are wanted and have no place: 1 more, 2 plugs move",
    );
  });
});

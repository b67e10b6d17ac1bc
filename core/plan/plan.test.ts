import { describe, expect, it } from "vitest";
import { wantedFree } from "../../tests/fixtures/cost";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { given, T } from "../../tests/fixtures/small";
import { buildGraph } from "../assembly";
import { hungOn } from "../brings";
import { check } from "../checks";
import { plan } from ".";

const at = (p: Awaited<ReturnType<typeof demoPlan>>, lead: string) => p.connections.find((c) => c.lead === lead);

describe("the demo builds", () => {
  it.each(DEMO)("%s is planned, proved, and breaks no rule", async (name) => {
    const p = await demoPlan(name);
    expect(p.status).toBe("proved");
    expect(p.broken).toEqual([]);
    const { types } = demo(name);
    expect(check(buildGraph(p.build, types), "plan").filter((f) => f.severity === "stop")).toEqual([]);
    // Each reason and each note is a sentence or more; that they are so is the laws' business.
    for (const why of [...p.connections.map((c) => c.why), ...p.free.map((f) => f.reason)]) expect(why).toMatch(/^[A-Z0-9].*[.:]$/s);
  });
  it("FS-1041 leaves no lead family out", async () => {
    const p = await demoPlan("fs-1041");
    expect(at(p, "cooler:pump")?.port).toBe("board:PUMP1");
    for (const n of [1, 2, 3]) {
      const graph = buildGraph(p.build, demo("fs-1041").types);
      const port = graph.ports.get(at(p, `rad-fan-${n}:lead`)?.port ?? "");
      expect(port && hungOn(graph, port)?.name).toBe("CPU_FAN");
    }
    expect(at(p, "case:power-switch")?.place).toEqual([6, 8]);
    expect(at(p, "case:power-led-plus")?.place).toEqual([2]);
    expect(at(p, "case:hdd-led")?.place).toEqual([1, 3]);
    expect(at(p, "supply/g16/1:plug-1")?.port).toBe("card:PWR_1");
    expect(at(p, "nvme-1:edge")?.port).toBe("board:M2_1");
    expect([at(p, "mem-1:seat")?.port, at(p, "mem-2:seat")?.port]).toEqual(["board:DIMM_A2", "board:DIMM_B2"]);
    expect(p.free.map((f) => f.end)).toEqual(["board:CPU_PWR2"]);
    expect(p.free[0]?.reason).toContain("230 W");
  });
  it("FS-1045 gets 7 case fans onto a 6-port hub, and its lights within their currents", async () => {
    const p = await demoPlan("fs-1045");
    const graph = buildGraph(p.build, demo("fs-1045").types);
    const fans = [...graph.leads.values()].filter((l) => l.lead.role === "case-fan");
    expect(fans).toHaveLength(7);
    for (const f of fans) expect(hungOn(graph, graph.ports.get(graph.ofLead.get(f.address)?.port ?? "") ?? ([] as never))?.hub).toMatch(/hub/);
    for (const l of [...graph.leads.values()].filter((x) => x.lead.role === "light")) {
      const on = hungOn(graph, graph.ports.get(graph.ofLead.get(l.address)?.port ?? "") ?? ([] as never));
      expect(on?.currentA).toBeLessThanOrEqual(on?.limitA ?? Number.POSITIVE_INFINITY);
    }
  });
  it("FS-1044 feeds three fans from two headers; FS-1046 says why USB-C stays free", async () => {
    expect((await demoPlan("fs-1044")).cost.wantedFree).toBe(0);
    const office = await demoPlan("fs-1046");
    expect(office.free.find((f) => f.end === "case:usbc")?.reason).toContain("Nothing in this build has a port for it");
    expect((await demoPlan("fs-1047")).free.find((f) => f.end === "case:power-led")?.reason).toContain("does not fit pins that stand side by side");
  });
  it("does not depend on the order of the file", async () => {
    const { build, types } = demo("fs-1041");
    const turned = await plan(
      { ...build, parts: [...build.parts].reverse(), partTypes: [...build.partTypes].reverse(), accessories: [...build.accessories].reverse() },
      types,
    );
    const where = (c: { lead: string; port: string }[]) => c.map((x) => `${x.lead} ${x.port}`).sort();
    expect(where(turned.connections)).toEqual(where((await demoPlan("fs-1041")).connections));
  });
  it("a plan that stands is given up only for a better one, however little time there is", async () => {
    const { build, types } = demo("fs-1043");
    const made = await plan(build, types);
    const again = await plan(made.build, types, { deadlineS: 0 });
    expect([made.status, again.status]).toEqual(["proved", "not yet proved"]);
    expect(again.connections.map((c) => [c.lead, c.port])).toEqual(made.connections.map((c) => [c.lead, c.port]));
  });
  it("planning again moves nothing; what is plugged never moves; what is fixed stays", async () => {
    const first = await demoPlan("fs-1041");
    const { types } = demo("fs-1041");
    const again = await plan(first.build, types);
    expect(again.cost.changes).toBe(0);
    expect(again.connections.map((c) => [c.lead, c.port])).toEqual(first.connections.map((c) => [c.lead, c.port]));
    const odd = {
      ...first.build,
      connections: first.build.connections.map((c) =>
        c.lead === "fan-rear:lead"
          ? { lead: c.lead, port: "board:CPU_OPT", state: "plugged" as const }
          : c.lead === "case:audio"
            ? { ...c, state: "fixed" as const }
            : c,
      ),
    };
    const kept = await plan(odd, types);
    expect(at(kept, "fan-rear:lead")).toMatchObject({ port: "board:CPU_OPT", state: "plugged" });
    expect(at(kept, "case:audio")).toMatchObject({ port: at(first, "case:audio")?.port, state: "fixed" });
    expect(kept.status).toBe("proved");
  });
});

describe("limits and adapters", () => {
  it("uses both plugs of a pigtail only while the whole card stays within the cable", async () => {
    const build = (peakW: number) =>
      given(
        [
          T.supply(
            "p",
            [
              {
                id: "g",
                label: "g",
                count: 2,
                outlets: ["k"],
                ends: [
                  { id: "e1", family: "gfx-6+2", atMm: 900 },
                  { id: "e2", family: "gfx-6+2", atMm: 1000 },
                ],
                limit: { powerW: 225 },
              },
            ],
            ["k", "k"],
          ),
          {
            id: "card",
            kind: "card",
            maker: "",
            name: "card",
            ports: [
              T.port("a", "gfx-8", "in", "graphics-power", { need: "mandatory" }),
              T.port("b", "gfx-8", "in", "graphics-power", { need: "mandatory" }),
            ],
            ratings: { peakW },
          },
        ],
        [
          { id: "supply", type: "p" },
          { id: "card", type: "card" },
        ],
      );
    // What the whole card draws through its cables counts: 290 W less the slot's 75 W go through one cable of 225 W, 320 W do not.
    const small = build(290);
    const large = build(320);
    expect((await plan(small.build, small.types)).cables.used).toHaveLength(1);
    expect((await plan(large.build, large.types)).cables.used).toHaveLength(2);
  });
  it("takes a second CPU plug when the draw asks for it or the shop always does", async () => {
    const make = (watts: number, policy: object) =>
      given(
        [
          T.board("b", [
            T.port("E1", "cpu-8", "in", "cpu-power", { need: "mandatory" }),
            T.port("E2", "cpu-8", "in", "cpu-power", { rank: 1, need: "optional" }),
            T.port("S", "cpu-socket", "out", "cpu", { key: "Q" }),
          ]),
          {
            id: "c",
            kind: "cpu",
            maker: "",
            name: "c",
            leads: [T.lead("seat", "cpu-socket", "seat", 0, { key: "Q", need: "mandatory" })],
            ratings: { peakW: watts },
          },
          T.supply("p", [{ id: "cpu", label: "cpu", count: 2, outlets: ["k"], ends: [{ id: "e", family: "cpu-4+4", atMm: 900 }] }], ["k", "k"]),
        ],
        [
          { id: "board", type: "b" },
          { id: "cpu", type: "c" },
          { id: "supply", type: "p" },
        ],
        { policy },
      );
    const used = async (g: ReturnType<typeof make>) => (await plan(g.build, g.types)).cables.used.length;
    expect(await used(make(200, {}))).toBe(1);
    expect(await used(make(400, {}))).toBe(2);
    expect(await used(make(200, { secondCpuPlug: "always" }))).toBe(2);
  });
  it("feeds a 16-pin card by an adapter from the shelf when the supply has no such cable", async () => {
    const { build, types } = given(
      [
        T.supply("p", [{ id: "g", label: "g", count: 2, outlets: ["k"], ends: [{ id: "e1", family: "gfx-6+2", atMm: 900 }] }], ["k", "k"]),
        {
          id: "card",
          kind: "card",
          maker: "",
          name: "card",
          ports: [T.port("a", "gfx-16", "in", "graphics-power", { need: "mandatory" })],
          ratings: { peakW: 300 },
        },
        {
          id: "ad",
          kind: "adapter",
          maker: "",
          name: "ad",
          ports: [T.port("i1", "gfx-8", "in", "graphics-power"), T.port("i2", "gfx-8", "in", "graphics-power")],
          leads: [T.lead("out", "gfx-16", "power-out", 100, { flow: "out", limit: { powerW: 300 }, need: "optional" })],
        },
      ],
      [
        { id: "supply", type: "p" },
        { id: "card", type: "card" },
      ],
      { accessories: [{ type: "ad", count: 1 }] },
    );
    const p = await plan(build, types);
    expect(p.cost.mandatoryFree).toBe(0);
    expect(p.accessories).toEqual([{ id: "ad.1", type: "ad", from: "shelf" }]);
    expect(p.broken).toEqual([]);
  });
  it("puts a missing splitter on the order list before receipt, and leaves the fan free with a reason after", async () => {
    const make = (mayOrder: boolean) =>
      given(
        [T.board("b", [T.header("H1", 10)]), T.fan("f", 0.2), T.splitter("s2", 2)],
        [
          { id: "board", type: "b" },
          { id: "f1", type: "f" },
          { id: "f2", type: "f" },
        ],
        { policy: { mayOrder }, accessories: [{ type: "s2", count: 0 }] },
      );
    const before = make(true);
    expect((await plan(before.build, before.types)).accessories).toEqual([{ id: "s2.1", type: "s2", from: "order" }]);
    const after = make(false);
    const p = await plan(after.build, after.types);
    expect(p.accessories).toEqual([]);
    expect(p.free.map((f) => f.reason)).toEqual([expect.stringContaining("H1, the only port for it, is taken")]);
  });
  it("gives a shelf hub power, a header and its fans, or leaves it on the shelf", async () => {
    const types = [
      T.board("b", [T.header("H1", 10, { limit: { currentA: 0.3 } })]),
      T.fan("f", 0.25),
      T.hub("hub", 4, 4),
      T.supply("p", [{ id: "s", label: "s", count: 1, outlets: ["k"], ends: [{ id: "e1", family: "sata-power", atMm: 900 }] }], ["k"]),
    ];
    const fans = [1, 2, 3].map((n) => ({ id: `f${n}`, type: "f" }));
    const with1 = given(types, [{ id: "board", type: "b" }, { id: "supply", type: "p" }, ...fans], {
      policy: { mayOrder: false },
      accessories: [{ type: "hub", count: 1 }],
    });
    const p = await plan(with1.build, with1.types);
    expect(wantedFree(p.cost)).toBe(0);
    expect(p.connections.find((c) => c.port === "hub.1:power")).toBeDefined();
    expect(p.connections.find((c) => c.lead === "hub.1:pwm")?.port).toBe("board:H1");
    const noPower = given(types, [{ id: "board", type: "b" }, ...fans], { policy: { mayOrder: false }, accessories: [{ type: "hub", count: 1 }] });
    expect((await plan(noPower.build, noPower.types)).accessories).toEqual([]);
  });
});

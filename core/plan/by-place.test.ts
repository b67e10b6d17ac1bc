import { describe, expect, it } from "vitest";
import { type Given, given, T } from "../../tests/fixtures/small";
import { buildGraph, type Graph } from "../assembly";
import { rootId, rootOf } from "../brings";
import { type Plan, plan } from ".";

type Json = Record<string, unknown>;
const planned = async (g: Given) => {
  const made = await plan(g.build, g.types);
  expect([made.status, made.broken]).toEqual(["proved", []]);
  return { made, graph: buildGraph(made.build, g.types) };
};
const header = (id: string, x: number, role = "case-fan", more: Json = {}) => T.header(id, x, { role, limit: { currentA: 1 }, ...more });
const tower: Json = { ...T.fan("tower", 0.2, { role: "cpu-fan", need: "mandatory" }), kind: "cooler" };
const supply = T.supply(
  "supply",
  [
    {
      id: "sata",
      label: "SATA",
      count: 2,
      outlets: ["peri"],
      ends: [1, 2, 3].map((i) => ({ id: `s${i}`, family: "sata-power", atMm: 700 + 150 * i })),
    },
  ],
  ["peri", "peri"],
);
const rootsOf = (graph: Graph, made: Plan, parts: readonly string[]) =>
  new Set(
    parts.map((p) => {
      const port = graph.ports.get(made.connections.find((c) => c.lead === `${p}:lead`)?.port ?? "");
      const root = port && rootOf(graph, port);
      return root && root.kind !== "nothing" ? rootId(root) : "nowhere";
    }),
  );

describe("departures from the shop's way", () => {
  const fans = (zone: string, n: number) => Array.from({ length: n }, (_, i) => ({ id: `${zone}${i + 1}`, type: "f", zone }));
  const build = (accessories: { type: string; count: number }[], mayOrder: boolean) =>
    given(
      [
        T.board("b", [header("CPU_FAN", 10, "cpu-fan"), header("CPU_OPT", 20, "cpu-optional-fan"), header("SYS1", 200)]),
        tower,
        T.fan("f", 0.2),
        T.splitter("s3", 3),
        T.hub("h", 4, 4),
        supply,
      ],
      [{ id: "board", type: "b" }, { id: "tower", type: "tower" }, { id: "supply", type: "supply" }, ...fans("top", 3), ...fans("front", 2)],
      { policy: { mayOrder }, accessories },
    );
  it("a place counts once, however many of its fans depart; nothing is ordered to avoid one", async () => {
    const { made } = await planned(
      build(
        [
          { type: "s3", count: 2 },
          { type: "h", count: 0 },
        ],
        true,
      ),
    );
    // Two places, one header for case fans: one of them goes on the header of the CPU's second fan, or both share one header.
    expect([made.cost.schoolDepartures <= 1, made.cost.toOrder, made.cost.hubsBehind, made.cost.fansFree]).toEqual([true, 0, 0, 0]);
  });
  it("three that depart are as bad as one: what is left decides", async () => {
    const { made } = await planned(build([{ type: "s3", count: 2 }], false));
    expect(made.cost.fansFree).toBe(0);
    const one = await planned(build([{ type: "s3", count: 1 }], false));
    // One splitter: three fans on it, one on the header that is left, one free. Where the three depart it is one departure.
    expect(one.made.cost.schoolDepartures).toBeLessThanOrEqual(1);
  });
  it("with a header for each, every place of which a fan shares one departs", async () => {
    const g = build([{ type: "s3", count: 2 }], false);
    const { made } = await planned({ ...g, build: { ...g.build, policy: { ...g.build.policy, caseFans: "own-header" } } });
    expect(made.cost.schoolDepartures).toBe(2);
  });
});

describe("the fans of one radiator are one thing", () => {
  it("all on the hub under the CPU's header, beside case fans that departed from nothing, rather than one on the header", async () => {
    const { made, graph } = await planned(
      given(
        [
          T.board("b", [header("CPU_FAN", 10, "cpu-fan"), header("PUMP", 60, "pump"), header("SYS1", 100)]),
          {
            id: "pump",
            kind: "cooler",
            maker: "",
            name: "cooler",
            leads: [T.lead("pump", "fan-4", "pump", 700, { load: { currentA: 0.3 }, control: "both", reportsSpeed: true })],
          },
          T.fan("f", 0.5),
          T.hub("h", 6, 4),
          supply,
        ],
        [
          { id: "board", type: "b" },
          { id: "supply", type: "supply" },
          { id: "cooler", type: "pump" },
          { id: "hub", type: "h" },
          ...[1, 2, 3].map((n) => ({ id: `r${n}`, type: "f", zone: "radiator" })),
          ...[1, 2, 3].map((n) => ({ id: `c${n}`, type: "f" })),
        ],
        { policy: { mayOrder: false } },
      ),
    );
    expect(rootsOf(graph, made, ["r1", "r2", "r3"]).size).toBe(1);
    expect([made.cost.radiatorDivided, made.cost.schoolDepartures, made.cost.fansFree]).toEqual([0, 0, 0]);
  });
});

describe("hubs", () => {
  it("one whose control lead reaches nothing leaves each of its fans without control: one each, and no more on it than must be", async () => {
    const short = { ...T.hub("h", 4, 4) };
    const g = given(
      [
        T.board("b", [header("CPU_FAN", 10, "cpu-fan"), header("SYS1", 100)]),
        tower,
        T.fan("f", 0.2),
        { ...short, leads: (short.leads as Json[]).map((l) => ({ ...l, lengthMm: 1 })) },
        supply,
      ],
      [
        { id: "board", type: "b" },
        { id: "tower", type: "tower" },
        { id: "supply", type: "supply" },
        { id: "hub", type: "h" },
        ...[1, 2, 3].map((n) => ({ id: `c${n}`, type: "f" })),
      ],
      { policy: { mayOrder: false } },
    );
    const { made } = await planned(g);
    // One header for case fans: it takes one, the hub two, and those two have no control.
    expect([made.cost.fansFree, made.cost.functionsReduced, made.cost.wantedFree]).toEqual([0, 2, 0]);
  });
});

describe("lights by place", () => {
  it("the strips of one place share one chain or hub while there is room", async () => {
    const hub: Json = {
      id: "lh",
      kind: "hub",
      maker: "",
      name: "light hub",
      ports: [
        T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 1 }, limit: { currentA: 4 } }),
        ...[1, 2, 3].map((i) => T.port(`l-${i}`, "light-5v", "out", "light", { fedBy: "power", controlledBy: "in" })),
      ],
      leads: [T.lead("in", "light-5v", "light-control", 900, { load: { currentA: 0.02 } })],
    };
    const { made, graph } = await planned(
      given(
        [
          T.board(
            "b",
            [1, 2].map((n) => T.port(`L${n}`, "light-5v", "out", "light", { limit: { currentA: 3 } })),
          ),
          hub,
          T.strip("s", 10, 0.6, true),
          supply,
        ],
        [
          { id: "board", type: "b" },
          { id: "supply", type: "supply" },
          { id: "hub", type: "lh" },
          ...["top", "floor"].flatMap((zone) => [1, 2].map((n) => ({ id: `${zone}${n}`, type: "s", zone }))),
        ],
        { policy: { mayOrder: false } },
      ),
    );
    expect([made.cost.lightsFree, made.cost.lightsDivided]).toEqual([0, 0]);
    for (const zone of ["top", "floor"]) expect(rootsOf(graph, made, [`${zone}1`, `${zone}2`]).size).toBe(1);
  });
});

describe("drives on cables", () => {
  const drive = (id: string, more: Json = {}) => ({ id, type: "d", ...more });
  const build = (drives: Json[], outlets: string[], label: (i: number) => string) =>
    given(
      [
        T.case(
          "c",
          [4, 3, 2, 1].map((n) => T.mount(`bay-${n}`, "front", 300, 40 * n)),
        ),
        T.board(
          "b",
          [1, 2, 3, 4].map((n) => T.port(`SATA_${n}`, "sata-data", "out", "drive-data", { at: { xMm: 230, yMm: 200 - 40 * n } })),
          {
            cables: [
              { id: "data", label: "SATA data", count: 4, outlets: [], ends: ["a", "b"].map((e) => ({ id: e, family: "sata-data", atMm: 900 })) },
            ],
          },
        ),
        {
          ...T.supply(
            "p",
            [
              {
                id: "sata",
                label: "SATA string",
                count: 2,
                outlets: ["peri"],
                ends: [1, 2].map((i) => ({ id: `s${i}`, family: "sata-power", atMm: 1200 + 200 * i })),
              },
            ],
            outlets,
          ),
          ports: outlets.map((key, i) => T.port(`o-${i + 1}`, "supply-outlet", "out", "outlet", { key, label: label(i) })),
        },
        T.drive("d"),
      ],
      [{ id: "case", type: "c" }, { id: "board", type: "b" }, { id: "supply", type: "p" }, ...drives],
      { policy: { mayOrder: false } },
    );
  const bays = (boot?: string) =>
    ["bay-1", "bay-2", "bay-3", "bay-4"].map((mount, i) => drive(`d${i + 1}`, { mount, ...(boot === `d${i + 1}` ? { boot: true } : {}) }));
  const socketOf = (graph: Graph, id: string) => {
    const cable = graph.atPort.get(`${id}:data`)?.[0]?.lead.split(":")[0];
    return graph.connections.find((c) => c.lead.startsWith(`${cable}:`) && c.port.startsWith("board:"))?.port;
  };
  it("the first sockets first, in the order of the cage; the one that the system starts from in the lowest", async () => {
    const plain = await planned(build(bays("d4"), ["peri", "peri"], (i) => `DRIVE_${i + 1}`));
    // The case lists its bays from the fourth to the first.
    expect(["d4", "d3", "d2", "d1"].map((d) => socketOf(plain.graph, d))).toEqual([1, 2, 3, 4].map((n) => `board:SATA_${n}`));
    const boot = await planned(build(bays("d1").slice(0, 3), ["peri", "peri"], (i) => `DRIVE_${i + 1}`));
    expect(["d1", "d3", "d2"].map((d) => socketOf(boot.graph, d))).toEqual([1, 2, 3].map((n) => `board:SATA_${n}`));
  });
  it("each string feeds neighbours, and goes into the outlet that is called like it", async () => {
    const { made, graph } = await planned(build(bays(), ["peri", "peri", "peri"], (i) => ["FAN", "SATA 1", "SATA 2"][i] ?? ""));
    expect(made.cost.outOfOrder % 1).toBe(0);
    const stringOf = (d: string) => graph.atPort.get(`${d}:power`)?.[0]?.lead.split(":")[0];
    expect([stringOf("d1") === stringOf("d2"), stringOf("d3") === stringOf("d4"), stringOf("d2") === stringOf("d3")]).toEqual([true, true, false]);
    for (const n of [1, 2]) expect(made.connections.find((c) => c.lead === `supply/sata/${n}:root-1`)?.port).toBe(`supply:o-${n + 1}`);
  });
});

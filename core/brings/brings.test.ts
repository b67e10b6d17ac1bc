import { describe, expect, it } from "vitest";
import { given, T } from "../../tests/fixtures/small";
import { controlLost, headerLimit } from "../catalogue";
import { netsOf } from "../plan/model/consumers";
import { departs } from "../schools";
import { closesRing, hungOn, panelPlaces, rootOf, signallers } from ".";

const chain = (states: string[]) =>
  given(
    [T.board("b", [T.header("H1", 10), T.header("H2", 30)]), T.splitter("s2", 2), T.fan("f", 0.3)],
    [
      { id: "board", type: "b" },
      { id: "s", type: "s2" },
      { id: "x", type: "s2" },
      { id: "f1", type: "f" },
      { id: "f2", type: "f" },
    ],
    {
      connections: [
        { lead: "s:in", port: "board:H1", state: states[0] },
        { lead: "x:in", port: "s:out-1", state: states[1] },
        { lead: "f1:lead", port: "x:out-2", state: states[2] },
      ],
    },
  ).graph;

describe("what hangs on what", () => {
  it("a fan two splitters deep is on the header, and its current counts there", () => {
    const graph = chain(["plugged", "plugged", "plugged"]);
    const port = graph.ports.get("x:out-2");
    const on = port && hungOn(graph, port);
    expect([on?.name, on?.currentA, on?.limitA]).toEqual(["H1", 0.3, 1]);
    expect(on?.leads.map((l) => l.address)).toEqual(["f1:lead"]);
  });
  it("with the first splitter out it hangs on nothing, and says on which lead that depends", () => {
    const graph = { ...chain(["plugged", "plugged", "plugged"]) };
    graph.connections = graph.connections.filter((c) => c.lead !== "s:in");
    graph.ofLead = new Map([...graph.ofLead].filter(([l]) => l !== "s:in"));
    const port = graph.ports.get("x:out-2");
    expect(port && rootOf(graph, port)).toEqual({ kind: "nothing", lead: "s:in", ring: false });
    expect(port && hungOn(graph, port)).toBeUndefined();
  });
  it("what is plugged leaves its root with the places and the current that remain", () => {
    const nets = netsOf(chain(["plugged", "plugged", "plugged"]), () => false);
    const h1 = nets.roots.find((r) => r.id === "board:H1");
    expect(h1?.ports).toEqual(["s:out-2", "x:out-1"]);
    expect(nets.groups.get("board:H1")?.mA).toBe(700);
    expect(nets.consumers.map((c) => c.address)).toEqual(["f2:lead"]);
  });
  it("a splitter filled before it is plugged carries its fan as one consumer", () => {
    const graph = chain(["planned", "plugged", "plugged"]);
    const nets = netsOf(graph, () => false);
    const top = nets.consumers.find((c) => c.address === "s:in");
    expect([top?.mA, top?.opens, top?.spare, top?.carries.map((l) => l.address)]).toEqual([300, 1 + 1, false, ["f1:lead"]]);
  });
});

describe("front-panel plugs on pins", () => {
  const block = given([T.board("b", [T.port("P", "panel-block", "out", "panel")])], [{ id: "b", type: "b" }]).graph.ports.get("b:P")?.port;
  const plug = (...positions: string[]) => ({ positions }) as never;
  it("the standard's places: switch either way, LEDs one way, single wires anywhere they belong", () => {
    if (!block) throw new Error("no block");
    expect(panelPlaces(plug("power switch", "power switch ground"), block)).toEqual([
      [6, 8],
      [8, 6],
    ]);
    expect(panelPlaces(plug("reset", "reset ground"), block)).toEqual([
      [5, 7],
      [7, 5],
    ]);
    expect(panelPlaces(plug("HDD LED +", "HDD LED -"), block)).toEqual([[1, 3]]);
    expect(panelPlaces(plug("power LED +"), block)).toEqual([[2]]);
    expect(panelPlaces(plug("power LED +", "blank", "power LED -"), block)).toEqual([]);
    expect(panelPlaces(plug("speaker +", "speaker -"), block)).toEqual([]);
  });
  it("a board's own order overrides the standard, and then three positions may fit", () => {
    if (!block) throw new Error("no block");
    const own = { ...block, pinout: { "2": "power LED +", "4": "blank", "6": "power LED -", "8": "power switch", "10": "power switch ground" } };
    expect(panelPlaces(plug("power LED +", "blank", "power LED -"), own)).toEqual([[2, 4, 6]]);
    expect(panelPlaces(plug("power switch", "power switch ground"), own)).toEqual([
      [8, 10],
      [10, 8],
    ]);
  });
});

describe("limits, control and schools", () => {
  it("fills in common practice where the data gives nothing: 1 A a fan header, 2 A a pump header, 3 A lights", () => {
    const { graph } = given(
      [T.board("b", [T.header("F", 1), T.header("P", 9, { role: "pump" }), T.port("L", "light-5v", "out", "light")])],
      [{ id: "b", type: "b" }],
    );
    const of = (id: string) => {
      const p = graph.ports.get(`b:${id}`);
      return p && headerLimit(p.port);
    };
    expect([of("F")?.currentA, of("P")?.currentA, of("L")?.currentA]).toEqual([1, 2, 3]);
    // Intel 4-wire specification 1.3: 2.2 A against 1.5 A (from memory).
    expect(of("F")?.startCurrentA).toBeCloseTo(2.2 / 1.5, 9);
  });
  it.each([
    ["pwm", "pwm", false],
    ["pwm", "voltage", false],
    ["voltage", "pwm", true],
    ["voltage", "both", false],
    ["pwm", "none", true],
    ["none", "pwm", false],
  ] as const)("a %s fan on a %s header loses its speed control: %s", (lead, header, lost) => {
    expect(controlLost({ control: lead } as never, { control: header } as never)).toBe(lost);
  });
  it("each school has its own right place for pump and radiator fans", () => {
    const make = (cooling: string) =>
      given(
        [
          T.board("b", [T.header("CPU", 1, { role: "cpu-fan" }), T.header("PUMP", 9, { role: "pump" }), T.header("SYS", 20)]),
          T.fan("f", 0.2),
          { id: "c", kind: "cooler", maker: "", name: "c", leads: [T.lead("pump", "fan-4", "pump", 400, { load: { currentA: 0.3 } })] },
        ],
        [
          { id: "b", type: "b" },
          { id: "c", type: "c" },
          { id: "f", type: "f", zone: "radiator" },
        ],
        { policy: { cooling } },
      );
    const off = (cooling: string, lead: string, port: string) => {
      const { graph } = make(cooling);
      const l = graph.leads.get(lead);
      const p = graph.ports.get(port);
      return l && p ? Number(departs(graph, l, { header: p })) : -1;
    };
    expect([
      off("fans-follow-cpu", "c:pump", "b:PUMP"),
      off("fans-follow-cpu", "c:pump", "b:CPU"),
      off("fans-follow-cpu", "f:lead", "b:CPU"),
      off("fans-follow-cpu", "f:lead", "b:SYS"),
    ]).toEqual([0, 1, 0, 1]);
    expect([
      off("pump-first", "c:pump", "b:CPU"),
      off("pump-first", "c:pump", "b:PUMP"),
      off("pump-first", "f:lead", "b:SYS"),
      off("pump-first", "f:lead", "b:CPU"),
    ]).toEqual([0, 1, 0, 1]);
  });
});

describe("speed signals and rings", () => {
  const deep = (more: { lead: string; port: string }[]) =>
    given(
      [T.board("b", [T.header("H1", 20, { role: "cpu-fan" }), T.header("H2", 60)]), T.splitter("s", 2), T.fan("f", 0.1), T.hub("hub", 2, 4)],
      [
        { id: "board", type: "b" },
        { id: "one", type: "s" },
        { id: "two", type: "s" },
        { id: "hub", type: "hub" },
        { id: "fan-1", type: "f" },
        { id: "fan-2", type: "f" },
      ],
      { connections: more.map((c) => ({ ...c, state: "plugged" })) },
    ).graph;
  const on = (graph: ReturnType<typeof deep>, header: string) => {
    const p = graph.ports.get(header);
    return p ? signallers(graph, p).map((s) => [s.lead.address, s.through.map((l) => l.address)]) : [];
  };
  it("a splitter passes on the signal of its first outlet only (common practice), through any number of them", () => {
    expect(
      on(
        deep([
          { lead: "one:in", port: "board:H1" },
          { lead: "two:in", port: "one:out-1" },
          { lead: "fan-1:lead", port: "two:out-1" },
          { lead: "fan-2:lead", port: "two:out-2" },
        ]),
        "board:H1",
      ),
    ).toEqual([["fan-1:lead", ["two:in", "one:in"]]]);
    expect(
      on(
        deep([
          { lead: "one:in", port: "board:H1" },
          { lead: "fan-1:lead", port: "one:out-2" },
        ]),
        "board:H1",
      ),
    ).toEqual([]);
  });
  it("a hub passes on its first port's signal on its control lead", () => {
    const g = deep([
      { lead: "hub:pwm", port: "board:H1" },
      { lead: "fan-1:lead", port: "hub:f-1" },
      { lead: "fan-2:lead", port: "hub:f-2" },
    ]);
    expect(on(g, "board:H1")).toEqual([["fan-1:lead", ["hub:pwm"]]]);
    expect(on(g, "board:H2")).toEqual([]);
  });
  it("a ring gives no signal and ends; closing one is known beforehand, anything else is not called one", () => {
    const ring = deep([
      { lead: "one:in", port: "two:out-1" },
      { lead: "two:in", port: "one:out-1" },
      { lead: "fan-1:lead", port: "one:out-2" },
    ]);
    expect(on(ring, "board:H1")).toEqual([]);
    const open = deep([
      { lead: "one:in", port: "board:H1" },
      { lead: "two:in", port: "one:out-1" },
    ]);
    const closes = (graph: typeof open, lead: string, port: string) => {
      const [l, p] = [graph.leads.get(lead), graph.ports.get(port)];
      return l && p ? closesRing(graph, l, p) : undefined;
    };
    expect(closes(open, "one:in", "two:out-1")).toBe(true);
    expect(closes(open, "one:in", "one:out-2")).toBe(true);
    expect(closes(open, "one:in", "board:H2")).toBe(false);
    expect(closes(open, "fan-1:lead", "two:out-2")).toBe(false);
    expect(closes(ring, "fan-2:lead", "two:out-2")).toBe(true);
  });
});

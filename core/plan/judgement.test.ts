import { describe, expect, it } from "vitest";
import { processorMs } from "../../tests/cases";
import { type Given, given, T } from "../../tests/fixtures/small";
import { buildGraph, type Graph } from "../assembly";
import { commander, hungOn, signallers, wayOfLead } from "../brings";
import { check } from "../checks";
import { freeEnds, hindrance, say } from "../claims";
import { powerOn } from "../machine";
import { portDrawW } from "../power";
import { type Plan, plan } from ".";

type Json = Record<string, unknown>;
const seen = async (g: Given) => {
  const made = await plan(g.build, g.types);
  expect(made.broken).toEqual([]);
  const graph = buildGraph(made.build, g.types);
  return { made, graph };
};
const at = (made: Plan, lead: string) => made.connections.find((c) => c.lead === lead)?.port;
const freeLeads = (made: Plan) => made.free.filter((f) => f.need !== "optional").map((f) => f.end);
const header = (id: string, x: number, role = "case-fan", more: Json = {}) => T.header(id, x, { role, limit: { currentA: 1 }, ...more });
const sata = (count: number, plugs = 3, more: Json = {}) => ({
  id: "sata",
  label: "SATA",
  count,
  outlets: ["peri"],
  ends: Array.from({ length: plugs }, (_, i) => ({ id: `s${i + 1}`, family: "sata-power", atMm: 700 + 150 * i })),
  ...more,
});
const supply = (cables: Json[] = [sata(3)], outlets = ["peri", "peri", "peri"]) => T.supply("supply", cables, outlets);
const lightHub = (id: string, more: Json = {}): Json => ({
  id,
  kind: "hub",
  maker: "",
  name: id,
  ports: [
    T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 1 }, limit: { currentA: 4 } }),
    ...[1, 2, 3].map((i) => T.port(`l-${i}`, "light-5v", "out", "light", { fedBy: "power", controlledBy: "in" })),
  ],
  leads: [T.lead("in", "light-5v", "light-control", 900, { load: { currentA: 0.02 }, ...more })],
});
const pump = (more: Json[] = []): Json => ({
  id: "pump",
  kind: "cooler",
  maker: "",
  name: "cooler",
  leads: [T.lead("pump", "fan-4", "pump", 700, { load: { currentA: 0.3 }, control: "both", reportsSpeed: true }), ...more],
});
const plugged = (made: Plan, g: Given): Graph =>
  buildGraph({ ...made.build, connections: made.build.connections.map((c) => ({ ...c, state: "plugged" as const })) }, g.types);

describe("nothing feeds or commands itself", () => {
  it("two light hubs and one header: one hangs on the other, never both on each other, and all is lit", async () => {
    const g = given(
      [T.board("b", [T.port("L1", "light-5v", "out", "light", { limit: { currentA: 3 } })]), lightHub("lh"), T.strip("s", 10, 0.6, false), supply()],
      [
        { id: "board", type: "b" },
        { id: "supply", type: "supply" },
        { id: "hub-1", type: "lh" },
        { id: "hub-2", type: "lh" },
        ...[1, 2, 3, 4].map((n) => ({ id: `s${n}`, type: "s" })),
      ],
      { policy: { mayOrder: false } },
    );
    const { made, graph } = await seen(g);
    expect([made.status, freeLeads(made)]).toEqual(["proved", []]);
    for (const l of ["hub-1:in", "hub-2:in"]) expect(wayOfLead(graph, l, "colour").end).toMatchObject({ kind: "header" });
    expect(
      powerOn(plugged(made, g))
        .lines.filter((l) => l.group === "Lights")
        .map((l) => l.expected),
    ).not.toContain("still");
  });
  it("hands that plug two hubs into each other: said, and dark or at full speed", () => {
    const g = given(
      [T.board("b", [header("CPU_FAN", 10, "cpu-fan")]), T.hub("h", 3, 3), lightHub("lh"), T.strip("s", 10, 0.6, false), T.fan("f", 0.2), supply()],
      [
        { id: "board", type: "b" },
        { id: "supply", type: "supply" },
        { id: "h1", type: "h" },
        { id: "h2", type: "h" },
        { id: "l1", type: "lh" },
        { id: "l2", type: "lh" },
        { id: "f1", type: "f" },
        { id: "s1", type: "s" },
      ],
      {
        connections: [
          { lead: "h1:pwm", port: "h2:f-1", state: "plugged" },
          { lead: "h2:pwm", port: "h1:f-1", state: "plugged" },
          { lead: "f1:lead", port: "h1:f-2", state: "plugged" },
          { lead: "l1:in", port: "l2:l-1", state: "plugged" },
          { lead: "l2:in", port: "l1:l-1", state: "plugged" },
          { lead: "s1:lead", port: "l1:l-2", state: "plugged" },
        ],
      },
    ).graph;
    expect(wayOfLead(g, "f1:lead", "control").nowhere?.kind).toBe("ring");
    expect(wayOfLead(g, "s1:lead", "colour").nowhere?.kind).toBe("ring");
    expect(check(g, "plugged").filter((f) => f.rule === "command-nowhere")).toHaveLength(4);
    const lines = powerOn(g).lines;
    expect(lines.find((l) => l.id === "lit:s1:lead")?.works).toBe(false);
  });
});

describe("pumps, coolers and their fans", () => {
  it("a pump has its header to itself, whatever else stays free", async () => {
    const g = given(
      [T.board("b", [header("CPU_FAN", 10, "cpu-fan"), header("SYS1", 60)]), pump(), T.fan("f", 0.2), T.splitter("s2", 2)],
      [
        { id: "board", type: "b" },
        { id: "cooler", type: "pump" },
        { id: "r1", type: "f", zone: "radiator" },
        { id: "r2", type: "f", zone: "radiator" },
        { id: "c1", type: "f" },
      ],
      { policy: { mayOrder: false }, accessories: [{ type: "s2", count: 1 }] },
    );
    const { made, graph } = await seen(g);
    const own = graph.ports.get(at(made, "cooler:pump") ?? "");
    expect(own && hungOn(graph, own)?.leads.map((l) => l.address)).toEqual(["cooler:pump"]);
    // One header and one splitter are left: what cools the CPU comes before the fan of the case.
    expect(freeLeads(made)).toEqual(["c1:lead"]);
  });
  it("what cools the CPU shares its control with no case fan while a header is empty", async () => {
    const g = given(
      [
        T.board("b", [header("CPU_FAN", 10, "cpu-fan"), header("SYS1", 200)]),
        { ...T.fan("t", 0.2, { role: "cpu-fan", need: "mandatory" }), kind: "cooler" },
        T.fan("f", 0.2),
        T.splitter("s3", 3),
      ],
      [{ id: "board", type: "b" }, { id: "tower", type: "t" }, ...[1, 2, 3].map((n) => ({ id: `c${n}`, type: "f" }))],
      { policy: { mayOrder: false }, accessories: [{ type: "s3", count: 2 }] },
    );
    const { made, graph } = await seen(g);
    expect(made.cost.coolingShared).toBe(0);
    const cpu = graph.ports.get("board:CPU_FAN");
    expect(cpu && hungOn(graph, cpu)?.leads.map((l) => l.address)).toEqual(["tower:lead"]);
  });
  it("radiator fans on a hub follow the CPU when the hub does; the CPU fan header hears one of them", async () => {
    const g = given(
      [
        T.board("b", [header("CPU_FAN", 10, "cpu-fan"), header("PUMP", 60, "pump"), header("SYS1", 100)]),
        pump(),
        T.fan("f", 0.5),
        T.hub("h", 5, 4),
        supply(),
      ],
      [
        { id: "board", type: "b" },
        { id: "supply", type: "supply" },
        { id: "cooler", type: "pump" },
        { id: "hub", type: "h" },
        ...[1, 2, 3].map((n) => ({ id: `r${n}`, type: "f", zone: "radiator" })),
      ],
      { policy: { mayOrder: false } },
    );
    const { made, graph } = await seen(g);
    expect([made.cost.schoolDepartures, made.cost.mandatoryFree, freeLeads(made)]).toEqual([0, 0, []]);
    for (const n of [1, 2, 3]) {
      const port = graph.ports.get(at(made, `r${n}:lead`) ?? "");
      const by = port && commander(graph, port);
      expect(by?.kind === "header" && by.port.address).toBe("board:CPU_FAN");
    }
    const cpu = graph.ports.get("board:CPU_FAN");
    expect(cpu && signallers(graph, cpu).map((s) => s.lead.lead.role)).toEqual(["radiator-fan"]);
  });
  it("a cooler's own outlets take its radiator's fans and nothing else", async () => {
    const self: Json = {
      id: "self",
      kind: "cooler",
      maker: "",
      name: "self",
      ports: [
        T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 5 }, limit: { currentA: 2 } }),
        ...[1, 2, 3].map((i) =>
          T.port(`o-${i}`, "fan-4", "out", "case-fan", { fedBy: "power", control: "pwm", ...(i === 1 ? { speedTo: "speed" } : {}) }),
        ),
      ],
      leads: [T.lead("speed", "fan-4", "cooler-speed", 700, { need: "mandatory", reportsSpeed: true })],
    };
    const g = given(
      [T.board("b", [header("CPU_FAN", 10, "cpu-fan"), header("SYS1", 60)]), self, T.fan("f", 0.2), supply()],
      [
        { id: "board", type: "b" },
        { id: "supply", type: "supply" },
        { id: "cooler", type: "self" },
        { id: "r1", type: "f", zone: "radiator" },
        { id: "r2", type: "f", zone: "radiator" },
        { id: "c1", type: "f" },
        { id: "c2", type: "f" },
      ],
      { policy: { mayOrder: false, cooling: "self-controlled" } },
    );
    const { made } = await seen(g);
    expect([at(made, "r1:lead"), at(made, "r2:lead")].every((p) => p?.startsWith("cooler:"))).toBe(true);
    expect([at(made, "c1:lead"), at(made, "c2:lead")].some((p) => p?.startsWith("cooler:"))).toBe(false);
    expect(at(made, "cooler:speed")).toBe("board:CPU_FAN");
  });
  it("a through-plug for its own kind takes no other", async () => {
    const own = { ...T.fan("own", 0.1), ports: [T.port("out", "fan-4", "out", "case-fan", { fedBy: "lead", control: "both", ownKindOnly: true })] };
    const g = given(
      [T.board("b", [header("SYS1", 60)]), own, T.fan("f", 0.1)],
      [
        { id: "board", type: "b" },
        { id: "o1", type: "own" },
        { id: "o2", type: "own" },
        { id: "c1", type: "f" },
      ],
      { policy: { mayOrder: false } },
    );
    const { made } = await seen(g);
    expect(freeLeads(made)).toEqual(["c1:lead"]);
    expect(made.free.find((f) => f.end === "c1:lead")?.reason).toMatch(/takes its own kind only|is taken/);
  });
});

describe("what adds up", () => {
  it("a hub draws its own and what hangs on it; a string that would carry too much is not chosen", async () => {
    const g = given(
      [
        T.board("b", [header("SYS1", 60)]),
        T.hub("h", 6, 4.5),
        T.fan("f", 0.7),
        T.drive("d", 20),
        supply([sata(2, 3, { limit: { powerW: 70 } })], ["peri", "peri"]),
      ],
      [
        { id: "board", type: "b" },
        { id: "supply", type: "supply" },
        { id: "hub", type: "h" },
        ...[1, 2, 3, 4].map((n) => ({ id: `f${n}`, type: "f" })),
        { id: "d1", type: "d" },
        { id: "d2", type: "d" },
      ],
      { policy: { mayOrder: false } },
    );
    const { made, graph } = await seen(g);
    const socket = graph.ports.get("hub:power");
    const on = [1, 2, 3, 4].filter((n) => at(made, `f${n}:lead`)?.startsWith("hub:")).length;
    expect(on).toBeGreaterThan(2);
    // 10 W of its own and 0.7 A at 12 V a fan.
    expect(socket && portDrawW(graph, socket)).toBeCloseTo(10 + on * 8.4, 6);
    expect(check(graph, "plan").filter((f) => f.rule === "cable-watts")).toEqual([]);
  });
  it("LEDs without a current count as 60 mA each, and that is said", async () => {
    const g = given(
      [T.board("b", [T.port("L1", "light-5v", "out", "light", { limit: { currentA: 3 } })]), T.strip("s", 30, 0, true)],
      [
        { id: "board", type: "b" },
        { id: "s1", type: "s" },
        { id: "s2", type: "s" },
      ],
      { policy: { mayOrder: false } },
    );
    const { made } = await seen(g);
    expect(freeLeads(made)).toHaveLength(1);
    expect(made.free[0]?.reason).toContain("3.6 A of 3 A");
    expect(made.connections[0]?.why).toContain("30 LEDs counted at 60 mA each, 1.8 A");
  });
  const cpuBuild = (watts: number, second: string, plugs: number) =>
    given(
      [
        T.board("b", [
          T.port("C1", "cpu-8", "in", "cpu-power", { need: "mandatory" }),
          T.port("C2", second, "in", "cpu-power", { need: "optional", rank: 1 }),
          T.port("S", "cpu-socket", "out", "cpu", { key: "Q" }),
        ]),
        { id: "c", kind: "cpu", maker: "", name: "c", leads: [T.lead("seat", "cpu-socket", "seat", 0, { key: "Q" })], ratings: { peakW: watts } },
        T.supply("p", [{ id: "e", label: "CPU", count: plugs, outlets: ["k"], ends: [{ id: "p", family: "cpu-4+4", atMm: 1200 }] }], ["k", "k"]),
      ],
      [
        { id: "board", type: "b" },
        { id: "cpu", type: "c" },
        { id: "supply", type: "p" },
      ],
    );
  it("CPU power by watts: a second plug when the draw asks for it, whatever the entry's need says", async () => {
    expect((await seen(cpuBuild(300, "cpu-8", 2))).made.cables.used).toHaveLength(1);
    // 400 W over 8 + 4 contacts: 336 + 168 W carry it.
    const two = await seen(cpuBuild(400, "cpu-4", 2));
    expect([two.made.cables.used.length, two.made.cost.mandatoryFree]).toEqual([2, 0]);
    expect(two.made.connections.find((c) => c.port === "board:C1")?.why).toContain("The CPU draws 400 W at most");
    const short = await seen(cpuBuild(400, "cpu-4", 1));
    expect(short.made.free.find((f) => f.end === "board:C2")?.need).toBe("mandatory");
    expect(check(short.graph, "plan").find((f) => f.rule === "cpu-power")).toMatchObject({
      severity: "stop",
      message: expect.stringContaining("336 W"),
    });
  });
  it("a CPU that draws more than its plugs carry is plugged all the same, and what is missing is said", async () => {
    // One plug of 336 W for 420 W: it goes in, the other socket says that the plug is in use.
    const one = await seen(cpuBuild(420, "cpu-8", 1));
    expect(one.made.connections.map((c) => c.port)).toContain("board:C1");
    expect(one.made.free.find((f) => f.end === "board:C2")?.reason).toBe("The one plug that reaches it is in use or tethered elsewhere.");
    // Two plugs for 700 W: both go in, none is "too weak" by itself, and together they are too few.
    const two = await seen(cpuBuild(700, "cpu-8", 2));
    expect(two.made.free.filter((f) => f.need === "mandatory")).toEqual([]);
    expect(check(two.graph, "plan").find((f) => f.rule === "cpu-power")).toMatchObject({
      severity: "stop",
      message: expect.stringContaining("The CPU draws 700 W at most; C1 and C2 carry 672 W"),
    });
    // Nothing plugged yet: a plug is there, and none of them is called weak.
    expect(freeEnds(buildGraph(cpuBuild(420, "cpu-8", 1).build, cpuBuild(420, "cpu-8", 1).types)).find((f) => f.end === "board:C2")?.claim.kind).toBe(
      "room",
    );
  });
  it("an empty main socket is a stop whatever sits in its sibling; capacities add up at power-on", () => {
    const g = cpuBuild(300, "cpu-8", 1);
    const wrong = buildGraph({ ...g.build, connections: [{ lead: "supply/e/1:p", port: "board:C2", state: "plugged" }] }, g.types);
    expect(check(wrong, "plan").find((f) => f.rule === "needs-power" && f.ends.includes("board:C1"))?.severity).toBe("stop");
  });
  const cardBuild = (watts: number, pigtails: number) =>
    given(
      [
        T.supply(
          "p",
          [
            {
              id: "g",
              label: "graphics",
              count: pigtails,
              outlets: ["k"],
              ends: ["1", "2"].map((n) => ({ id: `e${n}`, family: "gfx-6+2", atMm: 900 })),
            },
          ],
          ["k", "k"],
        ),
        {
          id: "card",
          kind: "card",
          maker: "",
          name: "card",
          ports: ["a", "b"].map((n) => T.port(n, "gfx-8", "in", "graphics-power", { need: "mandatory" })),
          ratings: { peakW: watts, hasGraphics: true },
        },
      ],
      [
        { id: "supply", type: "p" },
        { id: "card", type: "card" },
      ],
    );
  it("a card counts whole: one pigtail within its limit, two cables beyond; one forced stands and warns", async () => {
    const used = async (w: number, n: number) => (await seen(cardBuild(w, n))).made.cables.used.length;
    expect([await used(290, 2), await used(320, 2), await used(320, 1)]).toEqual([1, 2, 1]);
    const forced = await seen(cardBuild(320, 1));
    expect([forced.made.cost.mandatoryFree, forced.made.cost.cardCables]).toEqual([1, 0]);
    const byHand = {
      ...forced.made.build,
      connections: ["e1", "e2"].map((e, i) => ({ lead: `supply/g/1:${e}`, port: `card:${["a", "b"][i]}`, state: "plugged" as const })),
    };
    expect(check(buildGraph(byHand, cardBuild(320, 1).types), "plugged").find((f) => f.rule === "graphics-doubled")).toMatchObject({
      severity: "warn",
      message: expect.stringContaining("245 W through its cables; the cable is good for 225 W"),
    });
  });
  it("a cable set made for the supply's outlet system is as good as its own; one of another system is foreign", async () => {
    const set = (outletSystem: string) => ({
      id: "set",
      kind: "cable",
      maker: "Quarrybank",
      outletSystem,
      name: "sleeved set",
      cables: [{ id: "a", label: "24-pin", count: 1, outlets: ["board"], ends: [{ id: "p", family: "atx-24", atMm: 900 }] }],
    });
    const make = (key: string) =>
      given(
        [
          T.board("b", [T.port("ATX", "atx-24", "in", "board-power", { need: "mandatory" })]),
          { ...T.supply("p", [], ["board"]), maker: "Quarrybank", outletSystem: "sys-1" },
          set(key),
        ],
        [
          { id: "board", type: "b" },
          { id: "supply", type: "p" },
          { id: "set", type: "set" },
        ],
      );
    const { made, graph } = await seen(make("sys-1"));
    expect([at(made, "set/a/1:p"), at(made, "set/a/1:root-1"), made.cost.mandatoryFree]).toEqual(["board:ATX", "supply:o-1", 0]);
    expect(check(graph, "plan").filter((f) => f.rule === "supply-system")).toEqual([]);
    expect((await plan(make("other").build, make("other").types)).cost.mandatoryFree).toBe(1);
  });
});

describe("slots and drives", () => {
  const card = (id: string, graphics: boolean, lanes: number): Json => ({
    id,
    kind: "card",
    maker: "",
    name: id,
    leads: [T.lead("seat", "pcie-slot", "seat", 0, { link: { generation: 4, lanes } })],
    ratings: { hasGraphics: graphics, powerW: 60 },
  });
  const slot = (id: string, y: number, lanes: number, more: Json = {}) =>
    T.port(id, "pcie-slot", "out", "expansion", { at: { xMm: 60, yMm: y }, link: { generation: 4, lanes }, ...more });
  it("the graphics card goes first, never by the alphabet; lanes that are lost are named", async () => {
    const g = given(
      [T.board("b", [slot("X4", 100, 4), slot("X16", 140, 16)]), card("a-network", false, 4), card("z-graphics", true, 16)],
      [
        { id: "board", type: "b" },
        { id: "a-card", type: "a-network" },
        { id: "z-card", type: "z-graphics" },
      ],
    );
    const { made } = await seen(g);
    expect([at(made, "z-card:seat"), at(made, "a-card:seat"), made.cost.functionsReduced]).toEqual(["board:X16", "board:X4", 0]);
    const shared = given(
      [
        T.board("b", [slot("X16", 100, 16, { sharesLanes: [{ with: "X8", lanes: 8 }] }), slot("X8", 140, 8, { rank: 1 })]),
        card("n", false, 4),
        card("z", true, 16),
      ],
      [
        { id: "board", type: "b" },
        { id: "n", type: "n" },
        { id: "z", type: "z" },
      ],
    );
    const s = await seen(shared);
    expect([at(s.made, "z:seat"), s.made.cost.functionsReduced]).toEqual(["board:X16", 1]);
    expect(check(s.graph, "plan").find((f) => f.rule === "lanes")?.message).toMatch(/8 of the 16 lanes .* X8 shares its lanes/);
  });
  it("what a slot switches off may depend on the drive in it; the drive that the system starts from never stays free", async () => {
    const make = (protocol: string) =>
      given(
        [
          T.board(
            "b",
            [
              T.port("M2", "m2", "out", "drive-data", { key: "m", displacesWhen: [{ protocol: "sata", ports: ["SATA1"] }] }),
              T.port("SATA1", "sata-data", "out", "drive-data"),
            ],
            { cables: [{ id: "d", label: "data", count: 2, ends: ["a", "b"].map((id, i) => ({ id, family: "sata-data", atMm: i * 900 })) }] },
          ),
          T.drive("disk", 5),
          { id: "stick", kind: "drive", maker: "", name: "stick", leads: [T.lead("edge", "m2", "seat", 0, { key: "m", protocol })] },
          supply(),
        ],
        [
          { id: "board", type: "b" },
          { id: "supply", type: "supply" },
          { id: "a-disk", type: "disk", ...(protocol === "sata" ? { boot: true } : {}) },
          { id: "stick", type: "stick" },
        ],
      );
    expect(freeLeads((await seen(make("nvme"))).made)).toEqual([]);
    const { made } = await seen(make("sata"));
    expect(freeLeads(made)).toEqual(["stick:edge"]);
    expect(made.free.find((f) => f.end === "stick:edge")?.reason).toMatch(/would switch SATA1 off, which is in use/);
  });
});

describe("chains without an order", () => {
  it("eight strips in two far corners and one header: the largest chain is placed, the rest says why, in seconds", async () => {
    const strip = { ...T.strip("s", 5, 0.1, true), leads: [T.lead("lead", "light-5v", "light", 330, { load: { currentA: 0.1, leds: 5 } })] };
    const g = given(
      [
        T.case(
          "c",
          Array.from({ length: 8 }, (_, i) => T.mount(`m${i}`, "front", i < 5 ? 60 + 40 * i : 900 + 30 * i, 60)),
          { widthMm: 1300 },
        ),
        T.board("b", [T.port("L1", "light-5v", "out", "light", { at: { xMm: 20, yMm: 5 }, limit: { currentA: 3 } })]),
        strip,
      ],
      [{ id: "case", type: "c" }, { id: "board", type: "b" }, ...Array.from({ length: 8 }, (_, i) => ({ id: `s${i}`, type: "s", mount: `m${i}` }))],
      { policy: { mayOrder: false } },
    );
    const t = processorMs();
    const { made } = await seen(g);
    expect(made.status).toBe("proved");
    expect(freeLeads(made)).toEqual(["s5:lead", "s6:lead", "s7:lead"]);
    for (const f of made.free) expect(f.reason).toMatch(/too far|taken/);
    expect(processorMs() - t).toBeLessThan(10_000);
  });
});

describe("a splitter that hands have plugged into itself", () => {
  it("hinders a free fan as the ring it is; only its own lead would feed itself", () => {
    const g = given(
      [T.board("b", [header("H1", 20)]), T.fan("f", 0.2), T.splitter("s", 2)],
      [
        { id: "board", type: "b" },
        { id: "one", type: "f" },
        { id: "two", type: "f" },
        { id: "split", type: "s" },
      ],
      {
        connections: [
          { lead: "one:lead", port: "board:H1", state: "plugged" },
          { lead: "split:in", port: "split:out-1", state: "plugged" },
        ],
      },
    );
    const free = freeEnds(g.graph).find((f) => f.end === "two:lead")?.claim;
    expect(free && say(g.graph, free)).toMatch(/^2 of the 3 ports for it are taken and .+ out-2 is in a ring that nothing feeds\.$/);
    const [two, itself, out] = [g.graph.leads.get("two:lead"), g.graph.leads.get("split:in"), g.graph.ports.get("split:out-2")];
    if (!two || !itself || !out) throw new Error("not built");
    expect([hindrance(g.graph, two, out), hindrance(g.graph, itself, out)]).toEqual([{ kind: "ring" }, { kind: "own-part" }]);
  });
});

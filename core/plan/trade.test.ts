import { describe, expect, it } from "vitest";
import { wantedFree } from "../../tests/fixtures/cost";
import { type Given, given, T } from "../../tests/fixtures/small";
import { airOf, LOW_NOISE } from "../air";
import { buildGraph } from "../assembly";
import type { Port } from "../catalogue";
import { check, checkParts } from "../checks";
import { powerOn } from "../machine";
import { plugLimitW, SENSE_W } from "../power";
import { slotMBs } from "../wiring";
import { type Plan, plan } from ".";

/** What technicians meet on supplies, fans and drives, one build each; figures by hand beside them. */
const planned = async ({ build, types }: Given): Promise<Plan> => plan(build, types);
const at = (p: Plan, lead: string) => p.connections.find((c) => c.lead === lead)?.port;
const feeds = (p: Plan, port: string) => p.connections.find((c) => c.port === port)?.lead;
const rules = (g: Given, p: Plan) => new Set(check(buildGraph(p.build, g.types), "plan").map((f) => f.rule));

describe("the supply's side", () => {
  const gfx = (id: string, limit: object, outlets: string[] = ["k"]) => ({
    id,
    label: id,
    count: 3,
    outlets,
    ends: [{ id: "e", family: "gfx-16", atMm: 900, limit }],
  });
  const card = (peakW: number, sockets = 1) => ({
    id: "card",
    kind: "card",
    maker: "",
    name: "card",
    ports: Array.from({ length: sockets }, (_, i) => T.port(`s${i}`, "gfx-16", "in", "graphics-power", { need: "mandatory" })),
    ratings: { peakW },
  });

  it("sense pins of a 16-pin plug: 600, 450, 300 and 150 W (PCI Express 5.0 CEM)", () => {
    expect([SENSE_W["gnd gnd"], SENSE_W["open gnd"], SENSE_W["gnd open"], SENSE_W.tied]).toEqual([600, 450, 300, 150]);
    expect(plugLimitW("gfx-16", { powerW: 450, sense: "gnd gnd" })).toBe(450);
    expect(plugLimitW("gfx-16", { powerW: 600, sense: "gnd open" })).toBe(300);
  });
  it.each([
    ["open gnd", 500, true], // 500 - 75 from the slot = 425 W, 450 allowed
    ["gnd open", 500, false], // 300 allowed
    ["gnd gnd", 600, true],
    ["tied", 220, true], // 145 of 150
    ["tied", 240, false],
  ])("a card on a plug with its sense pins %s: %i W at peak, fed: %s", async (sense, peakW, fed) => {
    const p = await planned(
      given(
        [T.supply("p", [gfx("g", { sense })], ["k", "k", "k"]), card(peakW as number)],
        [
          { id: "supply", type: "p" },
          { id: "card", type: "card" },
        ],
      ),
    );
    expect(p.cost.mandatoryFree).toBe(fed ? 0 : 1);
    expect(p.broken).toEqual([]);
  });

  const outlet = (id: string, more: object) => ({ ...T.port(id, "supply-outlet", "out", "outlet", { key: "k" }), ...more });
  const two = (outlets: object[], railLimitsA?: Record<string, number>) => ({
    ...T.supply("p", [{ id: "g", label: "g", count: 3, outlets: ["k"], ends: [{ id: "e", family: "gfx-8", atMm: 900 }] }], []),
    ports: outlets,
    ratings: { powerW: 900, ...(railLimitsA ? { railLimitsA } : {}) },
  });
  const sockets = (peakW: number) => ({
    id: "card",
    kind: "card",
    maker: "",
    name: "card",
    ports: [0, 1].map((i) => T.port(`s${i}`, "gfx-8", "in", "graphics-power", { need: "mandatory" })),
    ratings: { peakW },
  });
  const parts = [
    { id: "supply", type: "p" },
    { id: "card", type: "card" },
  ];
  it("an outlet carries what it may and no more", async () => {
    // 275 W at peak: 75 from the slot, 100 W a socket.
    const weak = given([two([outlet("o1", { limit: { powerW: 60 } }), outlet("o2", {}), outlet("o3", {})]), sockets(275)], parts);
    const p = await planned(weak);
    expect(p.cost.mandatoryFree).toBe(0);
    expect(p.connections.some((c) => c.port === "supply:o1")).toBe(false);
    expect((await planned(given([two([outlet("o1", { limit: { powerW: 60 } }), outlet("o2", {})]), sockets(275)], parts))).cost.mandatoryFree).toBe(
      1,
    );
  });
  it("two cables go to two 12 V rails where one rail would be too weak; the rule sees what hands do", async () => {
    // 100 W a socket = 8.3 A: a rail of 12 A carries one, of 20 A both.
    const rails = (r: Record<string, number>) =>
      given([two([outlet("o1", { rail: "1" }), outlet("o2", { rail: "1" }), outlet("o3", { rail: "2" })], r), sockets(275)], parts);
    const g = rails({ "1": 12, "2": 12 });
    const p = await planned(g);
    expect(p).toMatchObject({ broken: [], status: "proved" });
    expect(p.cost.mandatoryFree).toBe(0);
    const roots = p.connections.filter((c) => c.lead.includes(":root-")).map((c) => c.port);
    expect(roots).toContain("supply:o3");
    expect(rules(g, p).has("outlet-watts")).toBe(false);
    const beside = roots.includes("supply:o1") ? "supply:o2" : "supply:o1";
    const moved = {
      ...p,
      build: { ...p.build, connections: p.build.connections.map((c) => (c.port === "supply:o3" ? { ...c, port: beside } : c)) },
    };
    expect(roots).not.toContain(beside);
    expect(rules(g, moved).has("outlet-watts")).toBe(true);
    expect((await planned(rails({ "1": 12, "2": 3 }))).cost.mandatoryFree).toBe(1);
    expect((await planned(rails({ "1": 20, "2": 3 }))).cost.mandatoryFree).toBe(0);
  });
  it("one half of a 4+4 goes into a board's socket of four", async () => {
    const g = given(
      [
        T.board("b", [T.port("E1", "cpu-4", "in", "cpu-power", { need: "mandatory" })]),
        T.supply("p", [{ id: "cpu", label: "cpu", count: 1, outlets: ["k"], ends: [{ id: "e", family: "cpu-4+4", atMm: 900 }] }], ["k"]),
      ],
      [
        { id: "board", type: "b" },
        { id: "supply", type: "p" },
      ],
    );
    const p = await planned(g);
    expect(feeds(p, "board:E1")).toMatch(/:e$/);
    expect(p).toMatchObject({ broken: [], status: "proved" });
  });
  it("a cable of another supply's system stays out, whatever its plugs", async () => {
    const p = await planned(given([{ ...two([outlet("o1", { key: "other" }), outlet("o2", { key: "other" })]) }, sockets(275)], parts));
    expect(p.cost.mandatoryFree).toBe(2);
    expect(p.connections).toEqual([]);
  });
});

describe("fans, lights, USB and drives", () => {
  it("a low-noise lead is a resistor: four fifths of the air, and a warning before a radiator only", () => {
    const types = [
      T.case("c", [{ ...T.mount("a", "front", 440, 100), sizeMm: 120 }]),
      { ...T.fan("f", 0.2), body: { widthMm: 120, heightMm: 120 }, ratings: { flowM3h: 100, noiseDb: 30 } },
    ];
    const make = (lowNoise: boolean) =>
      given(types, [
        { id: "case", type: "c" },
        { id: "fan", type: "f", mount: "a", lowNoise },
      ]);
    const [slow, full] = [airOf(make(true).graph), airOf(make(false).graph)];
    expect(slow.fans[0]?.flowM3h).toBeCloseTo((full.fans[0]?.flowM3h ?? 0) * LOW_NOISE, 6);
    // Fan law: 50 log10(0.8) = -4.85 dB.
    expect((slow.fans[0]?.noiseDb ?? 0) - (full.fans[0]?.noiseDb ?? 0)).toBeCloseTo(-4.85, 2);
    expect(checkParts(make(true).graph).map((f) => f.rule)).not.toContain("low-noise");
  });
  it("a maker's own lighting plug goes to that maker's controller, never to a header or another maker's", async () => {
    const strip = (key: string) => ({
      ...T.strip("s", 10, 0.3, false, "light-maker"),
      leads: [T.lead("lead", "light-maker", "light", 900, { key, load: { currentA: 0.3, leds: 10 } })],
    });
    const box = {
      id: "box",
      kind: "hub",
      maker: "",
      name: "controller",
      ports: [
        T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 10 }, limit: { currentA: 3 } }),
        T.port("l1", "light-maker", "out", "light", { key: "mine", fedBy: "power" }),
      ],
      leads: [],
    };
    const make = (key: string) =>
      given(
        [
          T.board("b", [T.port("L1", "light-5v", "out", "light", { limit: { currentA: 3, leds: 100 } })]),
          T.supply("p", [{ id: "s", label: "s", count: 1, outlets: ["k"], ends: [{ id: "e", family: "sata-power", atMm: 900 }] }], ["k"]),
          strip(key),
          box,
        ],
        [
          { id: "board", type: "b" },
          { id: "supply", type: "p" },
          { id: "strip", type: "s" },
          { id: "box", type: "box" },
        ],
      );
    expect(at(await planned(make("mine")), "strip:lead")).toBe("box:l1");
    expect(at(await planned(make("other")), "strip:lead")).toBeUndefined();
  });
  it("lights beyond a header's current go on a powered splitter, which takes nothing from the header", async () => {
    const powered = {
      id: "ps",
      kind: "hub",
      maker: "",
      name: "powered splitter",
      ports: [
        T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 20 }, limit: { currentA: 4 } }),
        ...[1, 2, 3].map((i) => T.port(`l${i}`, "light-5v", "out", "light", { fedBy: "power", controlledBy: "in" })),
      ],
      leads: [T.lead("in", "light-5v", "light-control", 900)],
    };
    const g = given(
      [
        T.board("b", [T.port("L1", "light-5v", "out", "light", { limit: { currentA: 2, leds: 200 } })]),
        T.supply("p", [{ id: "s", label: "s", count: 1, outlets: ["k"], ends: [{ id: "e", family: "sata-power", atMm: 900 }] }], ["k"]),
        T.strip("s", 30, 1.3, true),
        powered,
      ],
      [{ id: "board", type: "b" }, { id: "supply", type: "p" }, ...[1, 2, 3].map((i) => ({ id: `s${i}`, type: "s" }))],
      { policy: { mayOrder: false }, accessories: [{ type: "ps", count: 1 }] },
    );
    const p = await planned(g);
    // 3 × 1.3 = 3.9 A: the header gives 2 A, the splitter 4 A.
    expect(wantedFree(p.cost)).toBe(0);
    expect(at(p, "ps.1:in")).toBe("board:L1");
    expect([1, 2, 3].map((i) => at(p, `s${i}:lead`)).every((x) => x && x !== "board:L1")).toBe(true);
    expect(p.broken).toEqual([]);
  });
  const m2 = (id: string) => ({
    id,
    kind: "drive",
    maker: "",
    name: id,
    leads: [T.lead("edge", "m2", "seat", 0, { protocol: "nvme" })],
  });
  const slots = T.board("b", [
    T.port("M2_1", "m2", "out", "drive-data", { rank: 0, protocols: ["nvme"] }),
    T.port("M2_2", "m2", "out", "drive-data", { rank: 1, protocols: ["nvme", "sata"] }),
  ]);
  it.each([
    ["none says so: the first", {}, "d1:edge"],
    ["the second says so", { boot: true }, "d2:edge"],
  ])("the drive that the system starts from gets the fastest slot; %s", async (_, more, first) => {
    const g = given(
      [slots, m2("d")],
      [
        { id: "board", type: "b" },
        { id: "d1", type: "d" },
        { id: "d2", type: "d", ...more },
      ],
    );
    const p = await planned(g);
    expect(feeds(p, "board:M2_1")).toBe(first);
    expect(p.connections.find((c) => c.lead === first)?.why).toMatch(/^The system starts from this drive/);
  });
  const fast = (id: string, readMBs: number, peakW: number) => ({ ...m2(id), ratings: { readMBs, peakW } });
  const three = (heatsinks: boolean[] = [true, false, false], ranks = [0, 1, 2]) =>
    T.board(
      "b",
      [5, 4, 3].map((generation, i) =>
        T.port(`M2_${i + 1}`, "m2", "out", "drive-data", { rank: ranks[i], link: { generation, lanes: 4 }, heatsink: heatsinks[i] }),
      ),
    );
  const seats = (p: Plan) => ["M2_1", "M2_2", "M2_3"].map((s) => feeds(p, `board:${s}`)?.split(":")[0]);
  it("the drive of the system first, then the fastest drive in the fastest slot, whatever they are called", async () => {
    const drives = [fast("slow", 3500, 5), fast("quick", 12000, 11), fast("mid", 7000, 6)];
    const ids = (boot?: string) => [
      { id: "board", type: "b" },
      { id: "a", type: "slow", ...(boot === "a" ? { boot: true } : {}) },
      { id: "b", type: "mid", ...(boot === "b" ? { boot: true } : {}) },
      { id: "c", type: "quick", ...(boot === "c" ? { boot: true } : {}) },
    ];
    expect(seats(await planned(given([three(), ...drives], ids("c"))))).toEqual(["c", "b", "a"]);
    expect(seats(await planned(given([three(), ...drives], ids("a"))))).toEqual(["a", "c", "b"]);
    // Nobody says so: the first of the list starts the system.
    expect(seats(await planned(given([three(), ...drives], ids())))).toEqual(["a", "c", "b"]);
  });
  it("where slots are equally fast, the hot drive gets the heatsink", async () => {
    const drives = [fast("cool", 7000, 5), fast("hot", 7000, 9)];
    const g = given(
      [three([false, true, false], [0, 0, 1]), ...drives],
      [
        { id: "board", type: "b" },
        { id: "a", type: "cool" },
        { id: "z", type: "hot" },
      ],
    );
    const p = await planned(g);
    expect(seats(p)).toEqual(["a", "z", undefined]);
    expect(rules(g, p).has("drive-heat")).toBe(false);
    const bare = given([three([false, false, false]), ...drives], g.build.parts as never);
    expect(rules(bare, await planned(bare)).has("drive-heat")).toBe(true);
  });
  // PCI Express base specification (from memory): 8, 16 and 32 GT/s a lane, 128 bits of data in 130; SATA 6 Gbit/s, 8 in 10.
  it.each([
    [3, 4, "nvme", 3938],
    [3, 2, "nvme", 1969],
    [4, 4, "nvme", 7877],
    [5, 4, "nvme", 15754],
    [4, 4, "sata", 600],
  ] as const)("PCIe %i.0 x%i carries %s at %i MB/s", (generation, lanes, protocol, mbs) => {
    expect(Math.round(slotMBs({ link: { generation, lanes } } as Port, protocol) ?? 0)).toBe(mbs);
  });
  it("a fast drive that hands put into a slow slot is named with a better one; where no better one is left it is a note", async () => {
    const g = given(
      [three(), fast("quick", 12000, 5)],
      [
        { id: "board", type: "b" },
        { id: "d", type: "quick" },
      ],
    );
    const found = (port: string) =>
      check(buildGraph({ ...g.build, connections: [{ lead: "d:edge", port, state: "plugged" }] }, g.types), "plugged").filter(
        (f) => f.rule === "drive-speed",
      );
    expect(found("board:M2_1")).toEqual([]);
    expect(found("board:M2_3")[0]).toMatchObject({ severity: "warn", remedy: { kind: "move", port: "board:M2_1" } });
    const two = given(
      [three(), fast("quick", 12000, 5)],
      [
        { id: "board", type: "b" },
        { id: "d", type: "quick" },
        { id: "e", type: "quick" },
      ],
    );
    const p = await planned(two);
    const notes = check(buildGraph(p.build, two.types), "plan").filter((f) => f.rule === "drive-speed");
    expect(notes.map((f) => [f.severity, f.ends[1]])).toEqual([["note", "board:M2_2"]]);
  });
  it("a light hub with a button gives way where the header is wanted for lights that have none; without a button it needs the header", async () => {
    const hub = (more: Record<string, unknown>) => ({
      id: "h",
      kind: "hub",
      maker: "",
      name: "light hub",
      ports: [
        T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 10 }, limit: { currentA: 4 } }),
        T.port("l1", "light-5v", "out", "light", { fedBy: "power", controlledBy: "in" }),
      ],
      leads: [T.lead("in", "light-5v", "light-control", 900, more)],
    });
    const make = (more: Record<string, unknown>, headers: number) =>
      given(
        [
          T.board("b", [
            T.port("ATX", "atx-24", "in", "board-power", { need: "mandatory" }),
            T.port("FP", "panel-block", "out", "panel"),
            ...Array.from({ length: headers }, (_, i) => T.port(`L${i}`, "light-5v", "out", "light", { limit: { currentA: 3, leds: 100 } })),
          ]),
          T.supply(
            "p",
            [
              { id: "s", label: "s", count: 1, outlets: ["k"], ends: [{ id: "e", family: "sata-power", atMm: 900 }] },
              { id: "m", label: "m", count: 1, captive: true, outlets: [], ends: [{ id: "e", family: "atx-24", atMm: 900 }] },
            ],
            ["k"],
          ),
          T.strip("s", 10, 0.3, false),
          hub(more),
          {
            ...T.case("c", []),
            leads: [T.lead("sw", "panel-loose", "panel", 900, { positions: ["power switch", "power switch ground"], need: "mandatory" })],
          },
        ],
        [
          { id: "case", type: "c" },
          { id: "board", type: "b" },
          { id: "supply", type: "p" },
          { id: "hub", type: "h" },
          { id: "s1", type: "s" },
          { id: "s2", type: "s" },
        ],
      );
    const lit = (g: Given, p: Plan, seen: "lit" | "dark") =>
      powerOn(buildGraph({ ...p.build, connections: p.build.connections.map((c) => ({ ...c, state: "plugged" as const })) }, g.types)).lines.filter(
        (l) => l.id.startsWith("lit:") && l.expected === seen,
      ).length;
    // One header: the strip takes it, the hub runs by its button and feeds the other strip.
    const button = make({ ownControl: "button" }, 1);
    const p = await planned(button);
    expect(p).toMatchObject({ broken: [], status: "proved" });
    expect([wantedFree(p.cost), p.cost.functionsReduced]).toEqual([0, 1]);
    expect(p.free.find((f) => f.end === "hub:in")).toMatchObject({ need: "optional", reason: expect.stringMatching(/own button/) });
    expect(lit(button, p, "lit")).toBe(2);
    // Without a button one strip stays dark: the header can serve a strip or the hub.
    const none = make({}, 1);
    const q = await planned(none);
    expect(wantedFree(q.cost)).toBe(1);
    // Whatever it leaves out: a hub without signal and button lights nothing.
    expect(lit(none, q, "lit")).toBe(1);
    // Two headers: the board sets both.
    const both = await planned(make({ ownControl: "button" }, 2));
    expect([wantedFree(both.cost), both.cost.functionsReduced]).toEqual([0, 0]);
    expect(both.connections.find((c) => c.lead === "hub:in")?.why).toMatch(/hold the hub's button/);
  });
  it("a hub from the shelf may be taken for its button alone", async () => {
    const hub = {
      id: "h",
      kind: "hub",
      maker: "",
      name: "light hub",
      ports: [
        T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 10 }, limit: { currentA: 4 } }),
        ...[1, 2, 3].map((i) => T.port(`l${i}`, "light-5v", "out", "light", { fedBy: "power", controlledBy: "in" })),
      ],
      leads: [T.lead("in", "light-5v", "light-control", 900, { ownControl: "button" })],
    };
    const g = given(
      [
        T.board("b", []),
        T.supply("p", [{ id: "s", label: "s", count: 1, outlets: ["k"], ends: [{ id: "e", family: "sata-power", atMm: 900 }] }], ["k"]),
        T.strip("s", 10, 0.3, false),
        hub,
      ],
      [
        { id: "board", type: "b" },
        { id: "supply", type: "p" },
        { id: "s1", type: "s" },
        { id: "s2", type: "s" },
      ],
      { policy: { mayOrder: false }, accessories: [{ type: "h", count: 1 }] },
    );
    const p = await planned(g);
    expect(p).toMatchObject({ broken: [], status: "proved" });
    expect([wantedFree(p.cost), p.cost.functionsReduced, p.cost.fromShelf]).toEqual([0, 1, 1]);
  });
  it("an internal USB hub is taken for two devices more than the board has halves, and hangs on one of them", async () => {
    const hub = {
      id: "uh",
      kind: "usb-hub",
      maker: "",
      name: "uh",
      ports: [
        T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 5 } }),
        ...[1, 2].map((i) => T.port(`U${i}`, "usb2", "out", "usb", { fedBy: "in" })),
      ],
      leads: [T.lead("in", "usb2", "usb", 900, { usbPorts: 1 })],
    };
    const device = { id: "d", kind: "lighting", maker: "", name: "d", ports: [], leads: [T.lead("usb", "usb2", "usb", 900, { usbPorts: 1 })] };
    const g = given(
      [
        T.board("b", [T.port("USB2_1", "usb2", "out", "usb")]),
        T.supply("p", [{ id: "s", label: "s", count: 1, outlets: ["k"], ends: [{ id: "e", family: "sata-power", atMm: 900 }] }], ["k"]),
        hub,
        device,
      ],
      [{ id: "board", type: "b" }, { id: "supply", type: "p" }, ...[1, 2, 3, 4].map((i) => ({ id: `d${i}`, type: "d" }))],
      { policy: { mayOrder: false }, accessories: [{ type: "uh", count: 1 }] },
    );
    const p = await planned(g);
    expect(wantedFree(p.cost)).toBe(0);
    expect(at(p, "uh.1:in")).toBe("board:USB2_1");
    expect(p.broken).toEqual([]);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { pluggedDemo } from "../../tests/fixtures/demo";
import { given, T } from "../../tests/fixtures/small";
import { build, type Recipe, recipe } from "../../tests/laws/builds";
import { buildGraph, type Connection } from "../assembly";
import { powerOn } from "../machine";
import { check, checkAll, RULES } from ".";

type Edit = (list: Connection[]) => Connection[];
const drop =
  (...leads: string[]): Edit =>
  (l) =>
    l.filter((c) => !leads.includes(c.lead));
const move =
  (lead: string, port: string, place?: number[]): Edit =>
  (l) => [
    ...l.filter((c) => c.lead !== lead && (place !== undefined || c.port !== port)),
    { lead, port, state: "plugged" as const, ...(place ? { place } : {}) },
  ];
const findings = async (name: string, edit?: Edit) => checkAll(await pluggedDemo(name, edit));
const of = (rule: string, list: Awaited<ReturnType<typeof findings>>) => list.filter((f) => f.rule === rule);

describe("each rule is quiet on a sound machine and fires on its mistake", () => {
  it("a sound FS-1041 has no stop and no warning", async () => {
    expect((await findings("fs-1041")).filter((f) => f.severity !== "note")).toEqual([]);
  });
  const cases: [string, string, Edit, string, RegExp][] = [
    ["needs-power", "fs-1041", drop("supply/cpu/1:plug-1"), "stop", /CPU_PWR1 is empty\. Fans turn and nothing else happens/],
    ["needs-power", "fs-1041", drop("supply/board/1:plug-1"), "stop", /ATX_PWR is empty\. Nothing at all happens/],
    ["needs-power", "fs-1041", drop("supply/g16/1:plug-1"), "stop", /no picture or asks for power/],
    ["needs-power", "fs-1045", (l) => l.filter((c) => c.port !== "hub-fan:power"), "stop", /Everything on this hub stays dark or still/],
    ["drive-data", "fs-1041", (l) => l.filter((c) => !c.lead.startsWith("board/sata-lead/1:")), "warn", /is empty: the drive is not found\./],
    [
      "drive-data",
      "fs-1041",
      (l) => l.filter((c) => !(c.lead.startsWith("board/sata-lead/1:") && c.port.startsWith("board:"))),
      "warn",
      /ends nowhere: the drive is not found/,
    ],
    ["cpu-fan-signal", "fs-1044", (l) => l.filter((c) => c.lead !== "cooler:fan"), "warn", /start-up will halt and wait for a key/],
    ["free-leads", "fs-1041", drop("case:power-switch"), "stop", /FP-01 \(Power switch\) has no port/],
    ["free-leads", "fs-1046", (l) => l, "warn", /front USB-C/],
    ["panel-pins", "fs-1041", move("case:hdd-led", "board:PANEL1", [3, 1]), "warn", /wrong way round/],
    [
      "panel-pins",
      "fs-1041",
      (l) => move("case:power-switch", "board:PANEL1", [2, 4])(l.filter((c) => !c.lead.startsWith("case:power-led"))),
      "stop",
      /The button does nothing/,
    ],
    [
      "light-voltage",
      "fs-1045",
      move("strip-top:lead", "board:LED12V_1"),
      "stop",
      /is a 5 V strip; LED12V_1 gives 12 V\. Its LEDs die at power-on\./,
    ],
    ["light-voltage", "fs-1045", move("strip-rear:lead", "board:LED5V_2"), "warn", /5 V is too little/],
    ["mating", "fs-1041", move("supply/gfx/1:plug-1", "board:CPU_PWR2"), "stop", /12 V on opposite rows/],
    ["supply-system", "fs-1041", move("supply/sata/1:root-1", "supply:CPU_GFX_3"), "stop", /Pin-outs differ and parts are destroyed/],
    [
      "displaced",
      "fs-1041",
      (l) => [
        ...move("nvme-1:edge", "board:M2_3")(l).filter((c) => !c.port.startsWith("board:SATA")),
        { lead: "board/sata-lead/1:end-1", port: "board:SATA_4", state: "plugged" },
      ],
      "stop",
      /switches SATA_4 off/,
    ],
    ["dangling", "fs-1041", (l) => l.filter((c) => c.lead !== "rad-split:in"), "stop", /is plugged into nothing/],
    [
      "memory-slots",
      "fs-1041",
      (l) => move("mem-1:seat", "board:DIMM_A1")(l.filter((c) => c.lead !== "mem-1:seat")),
      "warn",
      /the board wants DIMM_A2 and DIMM_B2/,
    ],
    ["memory-slots", "fs-1042", (l) => move("mem-1:seat", "board:DIMM_A1")(l.filter((c) => c.lead !== "mem-1:seat")), "stop", /CPU graphics/],
  ];
  it.each(cases)("%s on %s", async (rule, name, edit, severity, words) => {
    const wrong = of(rule, await findings(name, edit));
    expect(wrong.map((f) => f.severity)).toContain(severity);
    expect(wrong.map((f) => f.message).join(" ")).toMatch(words);
    const sound = of(rule, await findings(name)).map((f) => f.id);
    if (rule !== "free-leads" || name !== "fs-1046") expect(wrong.some((f) => !sound.includes(f.id))).toBe(true);
  });

  it("root-current: steady, starting and LEDs", () => {
    const fans = (a: number, n: number, header = {}) =>
      given(
        [T.board("b", [T.header("H1", 10, header)]), T.splitter("s", 3), T.fan("f", a)],
        [{ id: "board", type: "b" }, { id: "s", type: "s" }, ...Array.from({ length: n }, (_, i) => ({ id: `f${i}`, type: "f" }))],
        {
          connections: [
            { lead: "s:in", port: "board:H1", state: "plugged" },
            ...Array.from({ length: n }, (_, i) => ({ lead: `f${i}:lead`, port: `s:out-${i + 1}`, state: "plugged" })),
          ],
        },
      ).graph;
    expect(of("root-current", check(fans(0.4, 3), "plugged"))[0]?.message).toContain("1.2 A of 1 A");
    expect(of("root-current", check(fans(0.3, 3), "plugged"))).toEqual([]);
    expect(of("root-current", check(fans(0.3, 3, { limit: { currentA: 1, startCurrentA: 1 } }), "plugged"))[0]).toMatchObject({
      severity: "warn",
      message: expect.stringContaining("1.32 A of 1 A while the fans start"),
    });
    const lights = given(
      [T.board("b", [T.port("L", "light-5v", "out", "light", { limit: { currentA: 9, leds: 50 } })]), T.strip("t", 30, 1, true)],
      [
        { id: "board", type: "b" },
        { id: "a", type: "t" },
        { id: "z", type: "t" },
      ],
      {
        connections: [
          { lead: "a:lead", port: "board:L", state: "plugged" },
          { lead: "z:lead", port: "a:out", state: "plugged" },
        ],
      },
    ).graph;
    expect(of("root-current", check(lights, "plugged"))[0]?.message).toContain("60 LEDs of 50");
  });
  it("cable-watts: the whole cable, and the plug", () => {
    const build = (w: number, limitW: number) =>
      given(
        [
          T.supply(
            "p",
            [
              {
                id: "s",
                label: "s",
                count: 1,
                captive: true,
                ends: [
                  { id: "e1", family: "sata-power", atMm: 900 },
                  { id: "e2", family: "sata-power", atMm: 990 },
                ],
                limit: { powerW: limitW },
              },
            ],
            [],
          ),
          T.drive("d", w),
        ],
        [
          { id: "supply", type: "p" },
          { id: "d1", type: "d" },
          { id: "d2", type: "d" },
        ],
        {
          connections: [
            { lead: "supply/s/1:e1", port: "d1:power", state: "plugged" },
            { lead: "supply/s/1:e2", port: "d2:power", state: "plugged" },
          ],
        },
      ).graph;
    expect(of("cable-watts", check(build(30, 50), "plugged"))[0]?.message).toContain("60 W of 50 W");
    expect(of("cable-watts", check(build(20, 50), "plugged"))).toEqual([]);
    // 54 W is what a SATA plug carries at 12 V (Serial ATA, from memory).
    expect(of("cable-watts", check(build(60, 500), "plugged"))[0]?.message).toContain("the plug may carry 54 W");
  });
  it("reach, signal-lost, to-order, picture-source, supply-size, memory-speed", async () => {
    const far = given(
      [
        T.case("c", [T.mount("m", "front", 440, 400)]),
        T.board("b", [T.header("H1", 5, { control: "pwm" })]),
        T.fan("f", 0.2, { lengthMm: 200, control: "voltage" }),
      ],
      [
        { id: "case", type: "c" },
        { id: "board", type: "b" },
        { id: "f", type: "f", mount: "m" },
        { id: "x", type: "f", from: "order" },
      ],
      { connections: [{ lead: "f:lead", port: "board:H1", state: "planned" }] },
    ).graph;
    const list = checkAll(far);
    // (440,400) to (25,50): 415 + 350 + 60 = 825 mm; the lead has 200.
    expect(of("reach", list)[0]?.message).toContain("625 mm too short");
    expect(of("signal-lost", list)[0]?.message).toContain("3 wires");
    expect(of("to-order", list)[0]?.message).toContain("Order it");
    expect(of("supply-size", list)[0]?.message).toContain("no power supply");
    const blind = await pluggedDemo("fs-1041");
    const noCard = { ...blind, parts: new Map([...blind.parts].filter(([id]) => id !== "card")) };
    expect(of("picture-source", check(noCard, "plan"))[0]?.severity).toBe("stop");
    expect(of("picture-source", check(blind, "plan"))).toEqual([]);
    expect(of("memory-speed", await findings("fs-1046"))[0]?.message).toContain("sold as 5200 MT/s; they will run at 4800 MT/s");
    expect(of("memory-speed", await findings("fs-1041"))).toEqual([]);
  });
  // The mistakes of the trade that are about a plug, a row each (common practice): each fires its rule, and the sound machine keeps it quiet.
  const outOf =
    (port: string): Edit =>
    (l) =>
      l.filter((c) => c.port !== port);
  const into =
    (lead: string, port: string, place?: number[]): Edit =>
    (l) => [...l.filter((c) => c.lead !== lead && c.port !== port), { lead, port, state: "plugged", ...(place ? { place } : {}) }];
  it.each<[string, string, string, Edit]>([
    [
      "CPU fan lead on a chassis header",
      "cpu-fan-signal",
      "fs-1047",
      (l) => l.map((c) => (c.port === "board:CPU_FAN" ? { ...c, port: "board:SYS_FAN4" } : c)),
    ],
    ["hub's own power forgotten", "needs-power", "fs-1045", outOf("hub-fan:power")],
    ["CPU power plug forgotten", "needs-power", "fs-1041", outOf("board:CPU_PWR1")],
    ["chain joint pulled apart", "dangling", "fs-1041", (l) => l.filter((c) => c.lead !== "rad-split:in")],
    ["5 V lights on a 12 V header", "light-voltage", "fs-1045", into("strip-top:lead", "board:LED12V_1")],
    ["12 V lights on a 5 V header", "light-voltage", "fs-1045", into("strip-rear:lead", "board:LED5V_2")],
    ["more fans than places: one left over", "free-leads", "fs-1041", (l) => l.filter((c) => c.lead !== "fan-rear:lead")],
    ["LED reversed on the panel block", "panel-pins", "fs-1041", into("case:hdd-led", "board:PANEL1", [3, 1])],
    ["front audio plug in a USB 2 header", "mating", "fs-1041", into("case:audio", "board:USB2_1")],
    ["graphics cable in the CPU socket", "mating", "fs-1041", into("supply/gfx/1:plug-1", "board:CPU_PWR2")],
    ["cable in another system's outlet", "supply-system", "fs-1041", into("supply/sata/1:root-1", "supply:CPU_GFX_3")],
    ["memory in the wrong slots", "memory-slots", "fs-1042", into("mem-1:seat", "board:DIMM_A1")],
  ])("%s: %s fires, and is quiet on the sound machine", async (_, rule, job, edit) => {
    const serious = async (e?: Edit) => of(rule, await findings(job, e)).filter((f) => f.severity !== "note");
    const sound = await serious();
    const wrong = await serious(edit);
    expect(sound).toEqual([]);
    expect(wrong.length).toBeGreaterThan(0);
    for (const f of wrong) expect(f.message).toMatch(/\w.*\.$/);
  });
  it("says nothing about what is missing while hands are still at work", () => {
    const { graph } = given(
      [T.board("b", [T.header("H1", 10, { role: "cpu-fan" })]), T.fan("f", 0.2)],
      [
        { id: "board", type: "b" },
        { id: "f", type: "f" },
      ],
    );
    expect(check(graph, "plugged")).toEqual([]);
    expect(check(graph, "plan").map((f) => f.rule)).toEqual(expect.arrayContaining(["cpu-fan-signal", "free-leads", "supply-size"]));
  });
  it("has one id a rule, and a title", () => {
    expect(new Set(RULES.map((r) => r.id)).size).toBe(RULES.length);
    for (const r of RULES) expect(r.title.length).toBeGreaterThan(5);
  });
});

it("a data cable from drive to drive finds neither of them", () => {
  const [any] = fc.sample(recipe, { numRuns: 1, seed: 1 });
  const { build: b, types } = build({ ...(any as Recipe), drives: 2 });
  const ends: [string, string][] = [
    ["board/data/1:a", "drive-2:data"],
    ["board/data/1:b", "drive-1:data"],
  ];
  const graph = buildGraph({ ...b, connections: ends.map(([lead, port]) => ({ lead, port, state: "plugged" as const })) }, types);
  const said = of("drive-data", checkAll(graph)).map((f) => f.message);
  expect(said.filter((m) => /ends in Drive .* data, which gives no data: the drive is not found/.test(m))).toHaveLength(2);
  const drives = powerOn(graph).lines.filter((l) => l.group === "Drives" && /^drive:drive-/.test(l.id));
  expect(drives.map((l) => l.works)).toEqual([false, false]);
});

describe("a speed that nobody reads is told with where its signal ends", () => {
  const header = (id: string, reportsSpeed: boolean) => T.header(id, 40, { reportsSpeed });
  const words = (fans: string[], connections: [string, string][]) => {
    const { graph } = given(
      [
        T.board("board", [header("SYS_1", true), header("SYS_2", false)]),
        T.fan("fan", 0.2),
        T.fan("mute", 0.2, { reportsSpeed: false }),
        T.splitter("split", 3),
      ],
      [{ id: "board", type: "board" }, { id: "split-1", type: "split" }, ...fans.map((type, i) => ({ id: `fan-${i + 1}`, type, zone: "front" }))],
      { connections: connections.map(([lead, port]) => ({ lead, port, state: "plugged" })) },
    );
    return of("speed-unread", checkAll(graph)).map((f) => f.message);
  };
  const split: [string, string] = ["split-1:in", "board:SYS_1"];
  it.each<[string, string[], [string, string][], RegExp | undefined]>([
    ["read", ["fan"], [["fan-1:lead", "board:SYS_1"]], undefined],
    ["one, deaf header", ["fan"], [["fan-1:lead", "board:SYS_2"]], /its speed signal ends at a header that reads none\./],
    ["one, no signal", ["mute"], [["fan-1:lead", "board:SYS_1"]], /it gives no speed signal\./],
    [
      "another outlet",
      ["fan"],
      [split, ["fan-1:lead", "split-1:out-2"]],
      /its speed signal ends at a splitter, hub or chain that passes on another one\./,
    ],
    ["splitter in nothing", ["fan"], [["fan-1:lead", "split-1:out-1"]], /its speed signal ends at a plug that is in no port/],
    [
      "some give one, in two ways",
      ["fan", "fan", "mute"],
      [split, ["fan-1:lead", "split-1:out-2"], ["fan-2:lead", "board:SYS_2"], ["fan-3:lead", "split-1:out-1"]],
      /such speed signals as they give end at a header that reads none or at a splitter, hub or chain that passes on another one\./,
    ],
  ])("%s", (_, fans, connections, wanted) => {
    const said = words(fans, connections);
    expect(said.length).toBe(wanted ? 1 : 0);
    if (wanted) expect(said[0]).toMatch(wanted);
  });
});

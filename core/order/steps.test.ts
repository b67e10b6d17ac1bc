import { describe, expect, it } from "vitest";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { given, T } from "../../tests/fixtures/small";
import { buildGraph, partsOfKind, withConnections } from "../assembly";
import { powerOn } from "../machine";
import { cardsOf } from "./cards";
import { compareSchools } from "./compare";
import { nowOf } from "./now";
import { orderOf, orderOfProblem } from "./order";
import { problemOf } from "./problem";
import { pull } from "./pull";
import { startedBy, startWords } from "./rig";
import { undoOf } from "./undo";

const graphFor = async (name: string) => buildGraph((await demoPlan(name)).build, demo(name).types);
const orderFor = async (name: string) => orderOf(await graphFor(name));
/** Where each step stands. */
const placesIn = (steps: readonly { id: string; port?: string }[]) => ({
  at: (id: string) => {
    const i = steps.findIndex((s) => s.id === id);
    expect([id, i >= 0]).toEqual([id, true]);
    return i;
  },
  port: (label: string) => steps.findIndex((s) => s.port === `board:${label}`),
});

describe("the steps of a build", () => {
  it.each(DEMO)("%s: every connection is a step, and nothing is in conflict", async (name) => {
    const { steps, conflicts } = await orderFor(name);
    const made = await demoPlan(name);
    expect(conflicts).toEqual([]);
    expect(steps.flatMap((s) => s.lead ?? []).sort()).toEqual(made.connections.map((c) => c.lead).sort());
  });
  it("a full tower goes from the opened case to the packed bag", async () => {
    const { steps } = await orderFor("fs-1041");
    const ids = steps.map((s) => s.id);
    for (const id of [
      "open",
      "covers-out",
      "hold-card",
      "standoffs",
      "bench-test",
      "board-in",
      "radiator:cooler",
      "head:cooler",
      "mount:cooler",
      "route:fans",
      "dress:power",
      "look",
      "first-start",
      "tie",
      "close",
      "pack",
    ])
      expect(ids).toContain(id);
    const { at } = placesIn(steps);
    expect(at("plug:cpu:seat")).toBeLessThan(at("bench-test"));
    expect(at("bench-test")).toBeLessThan(at("board-in"));
    expect(at("hold-card")).toBeLessThan(at("mount:fan-front-1"));
    expect(at("first-start")).toBeLessThan(at("tie"));
    expect(at("tie")).toBeLessThan(at("close"));
    expect(ids.at(-1)).toBe("pack");
  });
  it("what the card or the radiator covers is plugged before it; fans join their splitter before the radiator hides it", async () => {
    const { steps } = await orderFor("fs-1041");
    const { at, port } = placesIn(steps);
    for (const label of ["AUDIO1", "USB3_1", "SATA_3"]) expect(port(label)).toBeLessThan(at("plug:card:seat"));
    for (const label of ["CPU_FAN", "PUMP1"]) expect(port(label)).toBeLessThan(at("mount:cooler"));
    for (const n of [1, 2, 3]) expect(at(`plug:rad-fan-${n}:lead`)).toBeLessThan(at("mount:cooler"));
    expect(at("plug:card:seat")).toBeLessThan(at("plug:supply/g16/1:plug-1"));
    expect(steps[at("plug:card:seat")]?.coversWords).toContain("AUDIO1");
    expect(steps[at("gate:plug:card:seat")]?.detail).toMatch(/AUDIO1.*all in\?/);
  });
  it("a drive slides into its cage after both of its plugs; one behind the tray is screwed first", async () => {
    const { steps } = await orderFor("fs-1041");
    const { at } = placesIn(steps);
    const plugs = steps.flatMap((s, i) => (s.port?.startsWith("hdd-1:") ? [i] : []));
    expect(plugs).toHaveLength(2);
    for (const i of plugs) expect(i).toBeLessThan(at("mount:hdd-1"));
    const tray = steps.flatMap((s, i) => (s.port?.startsWith("ssd-1:") ? [i] : []));
    for (const i of tray) expect(i).toBeGreaterThan(at("mount:ssd-1"));
  });
  it("a fan says which way it blows and which tag its lead gets", async () => {
    const { steps } = await orderFor("fs-1041");
    const front = steps.find((s) => s.id === "mount:fan-front-1");
    expect(front?.detail).toMatch(/into the case.*go by the arrow.*Tag its lead FN-\d\d/);
    expect(steps.find((s) => s.id === "mount:fan-rear")?.detail).toMatch(/out of the case/);
  });
  it("screws and holes are those of practice: 9 for a full board, 4 for a mini board, 4 a fan, 12 short ones for three fans", async () => {
    const tower = (await orderFor("fs-1041")).steps;
    expect(tower.find((s) => s.id === "board-in")?.screws).toBe(9);
    expect((await orderFor("fs-1044")).steps.find((s) => s.id === "board-in")?.screws).toBe(4);
    expect(tower.find((s) => s.id === "mount:fan-rear")?.screws).toBe(4);
    expect(tower.find((s) => s.id === "mount:supply")?.screws).toBe(4);
    expect(tower.find((s) => s.id === "mount:cooler")?.screws).toBe(12);
    expect(tower.find((s) => s.id === "radiator:cooler")?.detail).toContain("12 screws of 30 mm");
  });
  it.each(DEMO)("%s: what its rig plugs starts on the table, and without the board's plug it does not", async (name) => {
    const graph = await graphFor(name);
    const { steps } = orderOf(graph);
    const test = steps.find((s) => s.id === "bench-test");
    if (!test?.rig) return expect(graph.build.policy.benchTest === "straight-in" || !steps.some((s) => s.id === "plug:cpu:seat")).toBe(true);
    expect(powerOn(graph).stopsAt).toBe("standby");
    // The card of the rig is on it, a liquid cooler has a small one in its stead, and nothing else is missed.
    expect(startWords(graph, test)).toBe("On the rig: it starts, all fans turn.");
    const bare = { ...test.rig, ports: test.rig.ports.filter((p) => !graph.ports.get(p)?.port.role.startsWith("board-power")) };
    expect(powerOn(startedBy(graph, { ...test, rig: bare })).stopsAt).toBe("standby");
    expect(test.rig.bridge?.pins).toHaveLength(2);
  });
  it.each(DEMO)("%s: a long card that lies level gets its support, after its plugs; no other does", async (name) => {
    const graph = await graphFor(name);
    const { steps } = orderOf(graph);
    const ids = steps.map((s) => s.id);
    for (const card of partsOfKind(graph, "card")) {
      const long = !card.part.vertical && ((card.type.body.widthMm ?? 0) >= 280 || (card.type.body.slots ?? 0) >= 3);
      expect([card.id, ids.includes(`support:${card.id}`)]).toEqual([card.id, long]);
      if (!long) continue;
      for (const s of steps)
        if (s.port?.startsWith(`${card.id}:`) || s.lead === `${card.id}:seat`)
          expect(ids.indexOf(s.id)).toBeLessThan(ids.indexOf(`support:${card.id}`));
    }
  });
  it.each(DEMO)("%s: a drive in its cage says what is plugged before, however much is planned", async (name) => {
    const graph = await graphFor(name);
    for (const drive of partsOfKind(graph, "drive").filter((d) => d.type.leads.length === 0)) {
      const into = graph.connections.filter((c) => graph.ports.get(c.port)?.part === drive);
      for (let n = 0; n <= into.length; n++) {
        const fewer = withConnections(
          graph,
          graph.connections.filter((c) => !into.slice(n).includes(c)),
        );
        const words = orderOf(fewer).steps.find((s) => s.id === `mount:${drive.id}`)?.detail ?? "";
        if (/^Sockets/.test(words)) continue;
        const wanted =
          n === 0
            ? /^Plug it first/
            : n < drive.type.ports.length
              ? /^One plug is in already, one socket has none planned/
              : /^Both plugs are in already/;
        expect([drive.id, n, words]).toEqual([drive.id, n, expect.stringMatching(wanted)]);
      }
    }
  });
  it("a bench test takes about twenty minutes, and says what is plugged and which pins are bridged", async () => {
    const test = (await orderFor("fs-1041")).steps.find((s) => s.id === "bench-test");
    expect((test?.minutes.handsOn ?? 0) + (test?.minutes.unattended ?? 0)).toBe(20);
    expect(test?.detail).toMatch(
      /ATX_PWR, CPU_PWR1, CPU_FAN and the plug of Graphics card, 2 modules and the card in; nothing else\..*table's edge.*spare cooler.*power-switch pins of PANEL1/,
    );
    expect(test?.caution).toMatch(/only the two power-switch pins/);
  });
  it("a loose I/O shield comes before the board; a fixed one is no step", async () => {
    const office = (await orderFor("fs-1046")).steps.map((s) => s.id);
    expect(office.indexOf("io-shield")).toBeLessThan(office.indexOf("board-in"));
    expect(office).toContain("io-shield");
    expect((await orderFor("fs-1041")).steps.map((s) => s.id)).not.toContain("io-shield");
  });
  it("says which standoffs to move where the case was set for another board", async () => {
    expect((await orderFor("fs-1047")).steps.find((s) => s.id === "standoffs")?.title).toBe("Standoffs: take out B, R, S, add A, G, K, M");
    expect((await orderFor("fs-1041")).steps.find((s) => s.id === "standoffs")?.title).toBe("Check the standoffs: 9 for this board");
  });
  it("shows the usual caution where hands meet power, static and narrow blocks", async () => {
    const { steps } = await orderFor("fs-1045");
    expect(steps.find((s) => s.port === "board:ATX_PWR")?.caution).toMatch(/mains lead out, press the button once/);
    for (const s of steps.filter((x) => x.lead?.includes(":root-"))) expect(s.caution).toMatch(/Only cables of this supply/);
    expect(steps.find((s) => s.lead === "cpu:seat")?.caution).toMatch(/earth point/);
    expect(steps.find((s) => s.port === "board:USB3_1")?.caution).toMatch(/never at an angle/);
    expect(steps.find((s) => s.lead?.startsWith("strip-top"))?.caution).toMatch(/not interchangeable/);
    expect(steps.find((s) => s.id.startsWith("dress:"))).toBeDefined();
    expect(steps.find((s) => s.id === "close")?.caution).toMatch(/glass/i);
  });
  it("after the machine was powered, every plug still to go in carries the mains caution, and the first start is done", async () => {
    const { steps } = orderOf(await graphFor("fs-1041"), { powered: true });
    for (const s of steps.filter((x) => x.lead)) expect(s.caution).toMatch(/mains lead out/);
    expect(steps.find((s) => s.id === "first-start")?.done).toBe(true);
  });
  it("the shop's own minutes count from five times on, and are said to be its own", async () => {
    const graph = await graphFor("fs-1042");
    const of = (times: number) => orderOf(graph, { history: new Map([["fan", { minutes: 7.2, times }]]) }).steps.find((s) => s.measure === "fan");
    expect(of(4)).toMatchObject({ minutes: { handsOn: 4 }, minutesFrom: "practice" });
    expect(of(5)).toMatchObject({ minutes: { handsOn: 7 }, minutesFrom: 5 });
  });
});

/** A board with a slot and a header that the card hides; the card's own power comes from a plug that it hides too. */
const ring = () =>
  given(
    [
      T.board("b", [
        T.port("SLOT", "pcie-slot", "out", "expansion"),
        T.port("H", "fan-4", "out", "case-fan", { coveredBy: ["card"] }),
        T.port("FREE", "fan-4", "out", "case-fan"),
      ]),
      {
        id: "card",
        kind: "card",
        maker: "",
        name: "card",
        ports: [T.port("P", "gfx-8", "in", "graphics-power", { coveredBy: ["card"] })],
        leads: [T.lead("seat", "pcie-slot", "seat", 0)],
      },
      T.supply("p", [{ id: "g", label: "g", count: 1, captive: true, ends: [{ id: "e", family: "gfx-6+2", atMm: 900 }] }], []),
    ],
    [
      { id: "board", type: "b" },
      { id: "card", type: "card" },
      { id: "supply", type: "p" },
    ],
    {
      connections: [
        { lead: "card:seat", port: "board:SLOT" },
        { lead: "supply/g/1:e", port: "card:P" },
      ],
    },
  );

describe("steps that each need the other", () => {
  it("are a finding with ways out that were tried, and the rest keeps its order", () => {
    const { graph } = ring();
    const { conflicts, steps } = orderOf(graph);
    expect(conflicts).toHaveLength(1);
    expect(conflicts[0]?.steps).toEqual(["plug:card:seat", "plug:supply/g/1:e"]);
    expect(conflicts[0]?.why).toMatch(/^Each of these two steps needs the other first\. .*the card is in its slot first.*/);
    expect(conflicts[0]?.ways.length).toBeGreaterThan(0);
    expect(conflicts[0]?.ways[0]?.words).toMatch(/two screws only/);
    expect(steps.map((s) => s.id)).toContain("plug:card:seat");
    expect(steps.at(0)?.id).not.toBe("plug:supply/g/1:e");
  });
  it("a cover that covers itself is a sentence", () => {
    const { graph } = given(
      [
        T.board("b", [
          T.port("SLOT", "pcie-slot", "out", "expansion", { coveredBy: ["memory"] }),
          T.port("D1", "memory-slot", "out", "memory", { key: "DDR5", coveredBy: ["memory"] }),
        ]),
        { id: "ram", kind: "memory", maker: "", name: "ram", leads: [T.lead("seat", "memory-slot", "seat", 0, { key: "DDR5" })] },
      ],
      [
        { id: "board", type: "b" },
        { id: "m1", type: "ram" },
      ],
      { connections: [{ lead: "m1:seat", port: "board:D1" }] },
    );
    const { conflicts, steps } = orderOf(graph);
    expect(conflicts).toHaveLength(1);
    expect(conflicts[0]?.why).toMatch(/would have to come before itself: D1 lies under the memory/);
    expect(conflicts[0]?.ways[0]?.words).toMatch(/Correct its entry/);
    expect(steps.some((s) => s.id === "plug:m1:seat")).toBe(true);
  });
});

describe("the price of undoing", () => {
  const done = async (name: string, without: string[]) => {
    const { build } = await demoPlan(name);
    const all = orderOf(buildGraph(build, demo(name).types)).steps.map((s) => s.id);
    return problemOf(
      buildGraph(
        {
          ...build,
          done: all.filter((id) => !without.includes(id)),
          connections: build.connections.map((c) => ({ ...c, state: "plugged" as const })),
        },
        demo(name).types,
      ),
    );
  };
  it("a shield forgotten until the end: the board comes out with every plug on it; CPU, memory and cooler stay", async () => {
    const undo = undoOf(await done("fs-1046", ["io-shield"]), "io-shield");
    const out = undo?.out.map((o) => o.step) ?? [];
    expect(out).toContain("board-in");
    expect(out).toContain("close");
    expect(out).not.toContain("plug:cpu:seat");
    expect(out).not.toContain("mount:cooler");
    expect(undo?.stays.map((s) => s.step)).toContain("mount:cooler");
    expect(undo?.anew.some((a) => a.startsWith("paste"))).toBe(false);
    // The panels first, the board last.
    expect(out.indexOf("close")).toBeLessThan(out.indexOf("board-in"));
    expect(out.at(-1)).toBe("board-in");
    const plugs = out.filter((o) => o.startsWith("plug:"));
    expect(undo?.leads).toBe(plugs.length);
    expect(plugs.length).toBeGreaterThan(8);
    expect(undo?.minutes.whole).toBeGreaterThan(20);
    expect(undo?.back[0]?.step).toBe("io-shield");
    expect(undo?.words).toMatch(/steps come out again: \d+ leads, \d+ screws; about \d+/);
  });
  it("with a liquid cooler the pump head comes off too, and paste is made anew", async () => {
    const undo = undoOf(await done("fs-1041", ["standoffs"]), "standoffs");
    expect(undo?.out.map((o) => o.step)).toEqual(expect.arrayContaining(["head:cooler", "mount:cooler", "plug:cooler:pump", "board-in"]));
    expect(undo?.anew).toContain("paste: clean the CPU and the plate, put new paste on");
  });
  it("one fan that died: its own leads and ties, nothing of the board", async () => {
    const undo = undoOf(await done("fs-1041", []), "mount:fan-rear");
    const out = undo?.out.map((o) => o.step) ?? [];
    expect(out).toEqual(expect.arrayContaining(["plug:fan-rear:lead", "mount:fan-rear", "close"]));
    expect(out).not.toContain("board-in");
    expect(out).not.toContain("plug:fan-front-1:lead");
  });
  it("a step that is not there has no price", async () => {
    expect(undoOf(await done("fs-1041", []), "mount:nobody")).toBeUndefined();
  });
});

describe("pulling a step", () => {
  it("is allowed, warned or refused, each with its reason", async () => {
    const problem = problemOf(await graphFor("fs-1041"));
    const order = orderOfProblem(problem);
    expect(pull(problem, order, ["plug:case:usb3"], ["plug:case:audio"])).toMatchObject({ verdict: "allowed" });
    const refused = pull(problem, order, ["plug:case:audio"], ["board-in"]);
    expect(refused).toMatchObject({ verdict: "refused" });
    expect(refused.words).toMatch(/comes first: the board is in the case first/);
    const warned = pull(problem, order, ["plug:card:seat"], ["plug:case:power-switch"]);
    expect(warned.verdict).toBe("warned");
    expect(warned.words).toMatch(/departs from the shop's way/);
    expect(pull(problem, order, ["nothing"], ["board-in"])).toMatchObject({ verdict: "refused" });
    const steps = warned.order?.steps.map((s) => s.id) ?? [];
    expect(steps.indexOf("plug:card:seat")).toBeLessThan(steps.indexOf("plug:case:power-switch"));
  });
  it.each(DEMO)("%s: what a card is called is what is on it, whatever the school of the supply's cables", async (name) => {
    const { build } = await demoPlan(name);
    const ways = ["derived", "before", "after"].map((supplyCables) => ({
      ...build,
      policy: { ...build.policy, supplyCables } as typeof build.policy,
    }));
    for (const way of [...ways, demo(name).build]) {
      const order = orderOf(buildGraph(way, demo(name).types));
      for (const { title, steps } of cardsOf(order.steps, order.blocks)) {
        const said = [title, steps.map((s) => s.id)];
        expect([...said, /\b0 |(?<!\d)1 (leads|plugs|cables|looms)\b/.test(title)]).toEqual([...said, false]);
        const plugs = /(\d+) plugs?\b/.exec(title)?.[1];
        const seats = /^Put .* into /.test(title) ? 1 : 0;
        if (plugs) expect([...said, steps.filter((s) => s.kind === "plug").length - seats]).toEqual([...said, Number(plugs)]);
        const slides = steps.findIndex((s) => s.measure === "supply");
        if (/into the supply and slide it in$/.test(title)) expect([...said, slides]).toEqual([...said, steps.length - 1]);
        if (/^Slide the supply in, then/.test(title)) expect([...said, slides]).toEqual([...said, 0]);
      }
    }
  });
  it.each(["fs-1041", "fs-1042", "fs-1043"])("%s: a card pulled before another is whole before the whole of it", async (name) => {
    const problem = problemOf(await graphFor(name));
    const order = orderOfProblem(problem);
    const cards = cardsOf(order.steps, order.blocks);
    let pulled = 0;
    for (let i = 1; i < cards.length; i++) {
      const [card, above] = [cards[i], cards[i - 1]];
      if (!card || !above) continue;
      const [steps, before] = [card.steps.map((s) => s.id), above.steps.map((s) => s.id)];
      const r = pull(problem, order, steps, before);
      if (!r.order) continue;
      pulled++;
      const at = new Map(r.order.steps.map((s, n) => [s.id, n]));
      expect([card.title, Math.max(...steps.map((s) => at.get(s) ?? -1)) < Math.min(...before.map((s) => at.get(s) ?? -1))]).toEqual([
        card.title,
        true,
      ]);
    }
    expect(pulled).toBeGreaterThan(2);
  });
  it("a pull that is kept in the build holds, and says who wanted it", async () => {
    const { build } = await demoPlan("fs-1041");
    const { steps } = orderOf(buildGraph({ ...build, pulled: [{ step: "plug:case:usb3", before: "plug:case:audio" }] }, demo("fs-1041").types));
    const ids = steps.map((s) => s.id);
    expect(ids.indexOf("plug:case:usb3")).toBeLessThan(ids.indexOf("plug:case:audio"));
    expect(steps.find((s) => s.id === "plug:case:audio")?.after.map((a) => a.why)).toContain("somebody pulled it forward by hand");
  });
});

describe("what can be done now", () => {
  it("without the card nothing waits but the card, its plug, its gate and what comes at the end", async () => {
    const problem = problemOf(await graphFor("fs-1041"));
    const order = orderOfProblem(problem);
    const now = nowOf(problem, order, { missing: ["card"] });
    const waits = now.waits.map((w) => w.step);
    expect(waits).toContain("plug:card:seat");
    expect(waits).toContain("look");
    expect(now.can).toContain("plug:case:audio");
    expect(now.can).toContain("mount:fan-rear");
    expect(now.waits.every((w) => w.for === "card")).toBe(true);
  });
  it("with twenty minutes left, stops at the end of a card that fits", async () => {
    const problem = problemOf(await graphFor("fs-1041"));
    const order = orderOfProblem(problem);
    const now = nowOf(problem, order, { minutes: 20 });
    expect(now.stop?.minutes).toBeLessThanOrEqual(20);
    expect(cardsOf(order.steps, order.blocks).map((c) => c.id)).toContain(now.stop?.after);
    expect(nowOf(problem, order, { minutes: 1 }).words).toMatch(/Nothing fits into 1 minutes/);
  });
});

describe("cards fit the hands", () => {
  it("the recording room: 48 presses and more become at most 20", async () => {
    const { steps, blocks } = await orderFor("fs-1042");
    const cards = cardsOf(steps, blocks);
    expect(steps.length).toBeGreaterThan(40);
    expect(cards.length).toBeLessThanOrEqual(20);
    expect(cards.flatMap((c) => c.steps.map((s) => s.id))).toEqual(steps.map((s) => s.id));
    expect(cards.filter((c) => c.kind === "edge").length).toBeGreaterThanOrEqual(3);
    expect(cards.filter((c) => c.kind === "gate").length).toBeGreaterThanOrEqual(1);
    expect(cards.filter((c) => c.turn)).toHaveLength(6);
  });
});

describe("schools side by side", () => {
  it("each answer has its turns and minutes; tying before the first start saves turns, no bench test saves its minutes", async () => {
    const list = compareSchools(await graphFor("fs-1042"));
    const of = (school: string, answer: string) => list.find((c) => c.school === school && c.answer === answer);
    expect(of("dressing", "before-start")?.turnsMore).toBeLessThan(0);
    expect(of("benchTest", "straight-in")?.minutesMore).toBe(-14);
    expect(of("benchTest", "first")).toMatchObject({ chosen: true, turnsMore: 0, minutesMore: 0 });
    expect(of("rehearsal", "table")?.minutesMore).toBeGreaterThan(30);
    for (const c of list) expect(c.risk.length).toBeGreaterThan(5);
  });
});

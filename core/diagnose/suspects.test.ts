import { describe, expect, it } from "vitest";
import { pluggedDemo } from "../../tests/fixtures/demo";
import { type Element, type Expectation, powerOn } from "../machine";
import { MAINS } from "../machine/paths";
import { diagnose, type Seen } from ".";
import { elsewhere } from "./elsewhere";

/** What a person would see on a machine with these things bad. */
async function sheet(name: string, bad: string[]) {
  const graph = await pluggedDemo(name);
  const lines = powerOn(graph).lines;
  const real = powerOn(graph, new Set(bad)).lines;
  const seen = lines.map((l): Seen => {
    const r = real.find((x) => x.id === l.id);
    return { line: l.id, asExpected: r?.expected === l.expected, value: r?.expected ?? "" };
  });
  return { graph, lines, seen };
}

describe("what the suspects share", () => {
  it("nothing wrong, nobody suspected", async () => {
    const { lines, seen } = await sheet("fs-1041", []);
    expect(diagnose(lines, seen)).toEqual({ suspects: [], cleared: [] });
  });
  it("three fans dark together: their splitter or its plug, not the fans", async () => {
    const splitter = (await pluggedDemo("fs-1041")).ofLead.get("fan-front-1:lead")?.port.split(":")[0] ?? "";
    const { graph, lines, seen } = await sheet("fs-1041", [splitter]);
    const d = diagnose(lines, seen);
    const names = d.suspects.slice(0, 3).map((s) => s.element.id);
    expect(names).toContain(splitter);
    expect(names[0]).toBe(`${splitter}:in@${graph.ofLead.get(`${splitter}:in`)?.port}`);
    expect(d.suspects[0]?.why).toMatch(/it alone explains all 3/);
    expect(d.next?.action).toMatch(/^Supply off, mains out, press the button once\. Reseat FN-\d+ in /);
  });
  it("a hub's SATA plug explains all that the hub feeds", async () => {
    const { graph, lines, seen } = await sheet("fs-1045", []);
    const plug = graph.connections.find((c) => c.port === "hub-fan:power");
    const joint = `${plug?.lead}@hub-fan:power`;
    const real = powerOn(graph, new Set([joint])).lines;
    const d = diagnose(
      lines,
      seen.map((s) => {
        const r = real.find((x) => x.id === s.line);
        const l = lines.find((x) => x.id === s.line);
        return { ...s, asExpected: r?.expected === l?.expected };
      }),
    );
    expect(d.suspects[0]?.element.id).toBe(joint);
  });
  it("what works clears what it leans on", async () => {
    const { lines, seen } = await sheet("fs-1041", ["fan-rear"]);
    const d = diagnose(lines, seen);
    expect(d.suspects[0]?.explains).toEqual(["turns:fan-rear:lead"]);
    expect(d.suspects.slice(0, 3).map((s) => s.element.id)).toContain("fan-rear");
    expect(d.cleared.map((c) => c.name)).toEqual(expect.arrayContaining(["Mains lead and switch", "Mossgate 850 M", "Heron T40"]));
  });
  it("does not propose again what was tried; one wrong entry never empties the list", async () => {
    const { lines, seen } = await sheet("fs-1041", ["rad-split"]);
    const first = diagnose(lines, seen).next?.element.id ?? "";
    const second = diagnose(lines, seen, new Set([first]));
    expect(second.next?.element.id).not.toBe(first);
    const misread = seen.map((s) => (s.line === "standby" ? { ...s, asExpected: false } : s));
    expect(diagnose(lines, misread).suspects.length).toBeGreaterThan(3);
  });
  it("shares are multiples of 5 and never pass 100 by more than rounding", async () => {
    const { lines, seen } = await sheet("fs-1041", ["board:CPU_FAN"]);
    const d = diagnose(lines, seen);
    for (const s of d.suspects) expect(s.sharePercent % 5).toBe(0);
    expect(d.suspects.reduce((n, s) => n + s.sharePercent, 0)).toBeLessThanOrEqual(110);
  });
});

describe("what is cleared, and what does not hang together", () => {
  const part = (id: string): Element => ({ id, kind: "part", name: id });
  const line = (id: string, leans: Element[]): Expectation => ({
    id,
    group: "Fans and pump",
    what: id,
    expected: "turns",
    wanted: "turns",
    otherwise: ["still"],
    works: true,
    because: "",
    leans,
  });
  const [hub, a, b, c, strip] = ["hub", "a", "b", "c", "strip"].map(part) as [Element, Element, Element, Element, Element];
  it("what a good line leans on is neither a suspect nor an action", () => {
    const lines = [line("fan a", [hub, a]), line("fan b", [hub, b])];
    const d = diagnose(lines, [
      { line: "fan a", asExpected: false, value: "still" },
      { line: "fan b", asExpected: true, value: "turns" },
    ]);
    expect(d.suspects.map((s) => s.element.id)).toEqual(["a"]);
    expect(d.cleared.map((x) => x.name)).toEqual(["hub"]);
    expect(d.next?.element.id).toBe("a");
  });
  it("two symptoms that share nothing are two causes: each explained by itself", () => {
    const lines = [line("fan a", [hub, a]), line("fan b", [hub, b]), line("light", [strip, c])];
    const wrong = lines.map((l) => ({ line: l.id, asExpected: false, value: "still" }));
    const d = diagnose(lines, wrong);
    expect(d.suspects.find((s) => s.element.id === "hub")?.why).toBe("fan a and fan b share hub: it alone explains these 2.");
    // The light's own elements are not pushed down because they do not explain the fans.
    const share = (id: string) => d.suspects.find((s) => s.element.id === id)?.sharePercent ?? 0;
    expect(share("strip")).toBeGreaterThan(10);
  });
  it("no board is swapped before its plugs and the supply", () => {
    const board: Element = { id: "board", kind: "board", name: "Board" };
    const joint: Element = { id: "atx", kind: "joint", name: "PW-01 in ATX_PWR" };
    const supply: Element = { id: "supply", kind: "part", name: "Supply" };
    const lines = [line("standby", [MAINS, supply, joint, board])];
    const tried = new Set<string>();
    const order: string[] = [];
    for (let n = 0; n < 4; n++) {
      const next = diagnose(lines, [{ line: "standby", asExpected: false, value: "dark" }], tried).next;
      if (!next) break;
      order.push(next.element.id);
      tried.add(next.element.id);
    }
    expect(order.at(-1)).toBe("board");
    expect(order).toHaveLength(4);
  });
});

describe("the next action", () => {
  const following = async (name: string, bad: string) => {
    const { graph, lines, seen } = await sheet(name, [bad]);
    const tried = new Set<string>();
    for (;;) {
      const { next } = diagnose(lines, seen, tried, graph);
      if (!next || next.element.id === bad) return next;
      tried.add(next.element.id);
    }
  };
  it("no picture though it starts: a look at the monitor, in the card or in the board, before anything is unplugged", async () => {
    for (const [name, where] of [
      ["fs-1041", "and in the card, not in the board."],
      ["fs-1044", "and in the board."],
    ] as const) {
      const next = await following(name, "monitor");
      expect([next?.action.startsWith("Look at the monitor: on, "), next?.action.endsWith(where), next?.minutes]).toEqual([true, true, 1]);
    }
  });
  it("a port in doubt: its lead goes where there is room, by name, and what each outcome means is said", async () => {
    const next = await following("fs-1041", "board:SYS_FAN2");
    expect(next?.action).toMatch(/^Supply off, mains out, press the button once\. Put FN-\d\d into SYS_FAN3, which is free, then start\.$/);
    expect(next?.ifGood).toMatch(
      /^Front fan top, Front fan middle and Front fan bottom as expected: SYS_FAN2 is dead\. Leave FN-\d\d there and say so at the bench\.$/,
    );
    expect(next?.ifBad).toMatch(/^No change: it follows the lead, so SYS_FAN2 is cleared\. Put FN-\d\d back\.$/);
    expect((await following("fs-1041", "board:DIMM_A2"))?.action).toContain("Put Memory 1 into DIMM_A1, which is free");
  });
  it("a data plug goes beside, where its cable reaches; where there is no other port, somebody looks into it", async () => {
    const { graph } = await sheet("fs-1041", []);
    expect(elsewhere(graph, "board:SATA_1", new Set())?.action).toMatch(/^Put .+ into SATA_\d, which is free$/);
    expect(elsewhere(graph, "board:CPU_FAN", new Set())).toBeUndefined();
    expect((await following("fs-1041", "board:CPU_FAN"))?.action).toContain("Look into CPU_FAN with a light, for bent pins and dirt");
  });
  it("with no port free, a lead changes places with one of its kind that was seen to work, and with no other", async () => {
    const { graph } = await sheet("fs-1045", []);
    const [mine, theirs] = ["hub-fan:FAN_6", "hub-fan:FAN_5"].map((p) => graph.atPort.get(p)?.[0]?.lead ?? "");
    // By hand: every port of its kind that is free is away.
    const kind = graph.ports.get("hub-fan:FAN_6")?.port.role;
    const ports = new Map([...graph.ports].filter(([a, p]) => p.port.role !== kind || graph.atPort.has(a)));
    const full = { ...graph, ports };
    expect(elsewhere(full, "hub-fan:FAN_6", new Set())).toBeUndefined();
    const other = elsewhere(full, "hub-fan:FAN_6", new Set([theirs ?? ""]));
    expect(other?.action).toMatch(/^Exchange FN-\d\d with FN-\d\d, which works in Fan hub FAN_5$/);
    expect(other?.moves).toEqual([
      { lead: mine, port: "hub-fan:FAN_5" },
      { lead: theirs, port: "hub-fan:FAN_6" },
    ]);
  });
  it("what sits in a slot takes as long as taking it out", async () => {
    expect((await following("fs-1041", "board:CPU"))?.minutes).toBe(40);
  });
});

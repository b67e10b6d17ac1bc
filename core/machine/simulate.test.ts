import { describe, expect, it } from "vitest";
import { DEMO, pluggedDemo } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import { MODES, modesOf, type Observable, simulate, warmedC } from ".";

const of = (list: readonly Observable[], id: string) => list.find((o) => o.id === id);
const off = (list: readonly Observable[]) =>
  list
    .filter((o) => !o.isWanted)
    .map((o) => o.id)
    .sort();

describe("nothing wrong", () => {
  it.each(DEMO)("%s: what will be seen is what is wanted, and what stays free is named in both", async (name) => {
    const graph = await pluggedDemo(name);
    const s = simulate(graph);
    const free = new Set([...graph.leads.values()].filter((l) => !graph.ofLead.has(l.address)).map((l) => l.address));
    // Only what no plug brings: a lead that the plan leaves free; and full load, where the cooler of the list carries less than the CPU gives.
    const weak = s.heat !== undefined && s.heat.holds !== "holds";
    const unwanted = s.observables.filter((o) => !o.isWanted && !(weak && o.id === "cpu-load") && !free.has(o.id.slice(o.id.indexOf(":") + 1)));
    expect(unwanted.map((o) => `${o.id}: ${o.because}`)).toEqual([]);
    expect(s.faults).toEqual([]);
    expect(s.sequence.length).toBeGreaterThan(4);
    expect([...s.sequence].sort((a, b) => a.fromS - b.fromS).map((m) => m.id)[0]).toBe("standby");
  });
  it("reads the speed that is printed, on the header that it comes to, and the memory's speed with its profile on", async () => {
    const graph = await pluggedDemo("fs-1041");
    const { observables } = simulate(graph);
    expect(off(observables)).toEqual([]);
    const reads = observables.filter((o) => o.id.startsWith("reads:"));
    expect(reads.length).toBeGreaterThan(2);
    for (const r of reads) expect(r.value === "some speed" || (typeof r.value === "number" && r.value > 300)).toBe(true);
    expect(of(observables, "memory-speed")).toMatchObject({ value: 4800, accepted: [2400] });
    expect(of(observables, "memory-speed-profile")).toMatchObject({ value: 6000, accepted: [3000] });
    expect(of(observables, "memory-channels")?.value).toBe(2);
  });
});

describe("one thing wrong", () => {
  it("fails what hangs on it, says so truly, and nothing else", async () => {
    const graph = await pluggedDemo("fs-1045");
    const already = new Set(off(simulate(graph).observables));
    const newly = (list: readonly Observable[]) => off(list).filter((id) => !already.has(id));
    const still = simulate(graph, { modes: { "fan-front-1": "still" } });
    expect(of(still.observables, "turns:fan-front-1:lead")).toMatchObject({
      value: "still",
      isWanted: false,
      because: expect.stringContaining("stands still"),
    });
    expect(newly(still.observables).filter((id) => !id.startsWith("reads:"))).toEqual(["turns:fan-front-1:lead"]);
    const strip = [...graph.parts.values()].find((p) => p.type.kind === "lighting");
    const dark = simulate(graph, { modes: { [strip?.id ?? ""]: "dark" } });
    const lit = dark.observables.filter((o) => o.id.startsWith("lit:") && !o.isWanted).map((o) => [o.id.split(":")[1], o.value, o.because]);
    expect(lit).toEqual([[strip?.id, "dark", expect.stringContaining("are dead")]]);
    // A lead that rubs is heard: the fan turns all the same.
    const rubs = simulate(graph, { modes: { "fan-front-2": "rubs" } });
    expect(newly(rubs.observables).sort()).toEqual(["noise", "turns:fan-front-2:lead"]);
    expect(of(rubs.observables, "turns:fan-front-2:lead")?.value).toBe("noise");
    expect(rubs.sequence.find((m) => m.id === "fans")?.isWanted).toBe(true);
    // A profile that is off shows only in the memory's speed; a cooler drawn down unevenly only in the heat.
    const bare = simulate(graph, { modes: { settings: "profile off" } });
    expect(newly(bare.observables)).toEqual(["memory-speed-profile"]);
    // Settings that the memory does not hold: the start ends there, and the CPU stage is passed.
    const tooFast = simulate(graph, { modes: { settings: "too fast" } });
    expect(tooFast.stopsAt).toBe("memory");
    expect(of(tooFast.observables, "cpu")?.value).toBe("passes");
    expect(of(tooFast.observables, "picture")).toMatchObject({ value: "none", because: expect.stringContaining("ask more of the memory") });
    const uneven = simulate(graph, { modes: { cooler: "uneven" } });
    expect(newly(uneven.observables).filter((id) => !id.startsWith("cpu-"))).toEqual([]);
    expect(newly(uneven.observables).length).toBeGreaterThan(0);
    expect(rubs.sequence.some((m) => m.id === "noise" && !m.isWanted)).toBe(true);
  });
  it("every mode of every element: an answer that says why, and only what leans on the element goes", async () => {
    const graph = await pluggedDemo("fs-1041");
    const good = simulate(graph);
    const elements = [...new Set([...good.lines.flatMap((l) => l.leans.map((e) => e.id)), ...graph.parts.keys(), "mains", "monitor", "settings"])];
    const tried = new Set<string>();
    for (const e of elements) {
      for (const m of modesOf(graph, e)) {
        tried.add(m.id);
        const s = simulate(graph, { modes: { [e]: m.id } });
        expect(s.faults).toEqual([]);
        for (const l of s.lines) {
          const before = good.lines.find((x) => x.id === l.id);
          if (l.works || !before?.works || ["not reached", "not seen"].includes(l.expected)) continue;
          // The line leaned on it, or on a function of it that start-up as a whole needs.
          const part = e.split("@")[0]?.split(":")[0] ?? "";
          const leant = before.leans.some(
            (x) => x.id === e || x.id.startsWith(`${part}:`) || x.id === part || (x.kind === "monitor" && e === "monitor"),
          );
          // A function that fails alone is no element of its own: then the line says just that.
          const says = l.because.toLowerCase().includes(m.words("").trim().toLowerCase());
          expect([e, m.id, l.id, l.because, leant || says]).toEqual([e, m.id, l.id, l.because, true]);
        }
      }
    }
    // Whatever is named as a mode was tried here but those of parts that this machine lacks.
    expect(MODES.map((m) => m.id).filter((id) => !tried.has(id))).toEqual(["no control"]);
  });
  it.each([
    ["cooler", "film on", "cpu-full"],
    ["cooler", "no paste", "cpu-full"],
    ["supply", "weak", "cpu-load"],
    ["board", "old firmware", "cpu"],
    ["board", "touches metal", "button"],
    ["monitor", "in the board", "picture"],
    ["supply", "off", "standby"],
  ])("%s %s is seen at %s, and the sequence tells it", async (element, mode, id) => {
    const graph = await pluggedDemo("fs-1041");
    const s = simulate(graph, { modes: { [element]: mode } });
    expect(of(s.observables, id)?.isWanted).toBe(false);
    expect(of(s.observables, id)?.because.length).toBeGreaterThan(10);
    if (!["cpu-full", "cpu-load"].includes(id)) expect(s.sequence.some((m) => !m.isWanted)).toBe(true);
  });
  it("a fan without a speed signal turns, its header reads nothing, and under CPU_FAN the board halts", async () => {
    const graph = await pluggedDemo("fs-1042");
    expect(simulate(graph).observables.find((o) => o.id === "reads:board:CPU_FAN")).toMatchObject({ value: "some speed", isWanted: true });
    const s = simulate(graph, { modes: { cooler: "no signal" } });
    expect(of(s.observables, "reads:board:CPU_FAN")).toMatchObject({ value: 0, isWanted: false });
    expect(s.observables.filter((o) => o.id.startsWith("turns:cooler")).every((o) => o.isWanted)).toBe(true);
    expect(s.stopsAt).toBe("fan-warning");
    expect(s.sequence.at(-1)).toMatchObject({ id: "prompt", isWanted: false });
  });
  it("what is nothing of the machine, or no mode of it, is said and left out", async () => {
    const graph = await pluggedDemo("fs-1042");
    const s = simulate(graph, { modes: { nobody: "dead", cooler: "unseated" } });
    expect(s.faults).toHaveLength(2);
    expect(s.faults.join(" ")).toMatch(/nobody is nothing of this machine.*cooler cannot be “unseated”.*film on/);
    expect(s.lines).toEqual(simulate(graph).lines);
  });
  it("modes of a build file count", async () => {
    const graph = await pluggedDemo("fs-1042");
    const ill = buildGraph(
      { ...graph.build, modes: { "mem-1": "unseated", "mem-2": "dead" } },
      (id) => graph.build.partTypes.find((t) => t.id === id) ?? [...graph.parts.values()].find((p) => p.type.id === id)?.type,
    );
    expect(simulate(ill).stopsAt).toBe("memory");
  });
});

describe("heat", () => {
  it("a lumped body has done 63.2 % of the way after one time constant (handbook), 95 % after three", () => {
    expect(warmedC(20, 80, 100, 0)).toBe(20);
    expect((warmedC(20, 80, 100, 100) - 20) / 60).toBeCloseTo(0.632, 3);
    expect((warmedC(20, 80, 100, 300) - 20) / 60).toBeCloseTo(0.95, 2);
  });
  it("by hand: heat times resistance over the air in the case; a warmer room, film or a still pump only makes it warmer", async () => {
    const graph = await pluggedDemo("fs-1041");
    const at = (modes: Record<string, string>, roomC = 22) => simulate(graph, { modes, roomC }).heat;
    const good = at({});
    if (!good) throw new Error("no heat is known");
    expect(good.holds).toBe("holds");
    expect(good.idleC).toBeGreaterThan(22);
    expect(good.loadC).toBeGreaterThan(good.idleC);
    expect(at({}, 32)?.loadC).toBeCloseTo(Math.min(95, good.loadC + 10), 5);
    const film = at({ cooler: "film on" });
    expect(film?.holds).not.toBe("holds");
    expect(film?.clockShare).toBeLessThan(1);
    expect(at({ cooler: "still" })?.holds).toBe("shuts down");
  });
});

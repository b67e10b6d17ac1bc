import { describe, expect, it } from "vitest";
import { DEMO, pluggedDemo } from "../../tests/fixtures/demo";
import { curvesOf, setupOf, stateOf } from ".";

const done = (item: { target: string }, after: string, state: "set" | "later" | "not" = "set") => ({
  target: item.target,
  before: "",
  after,
  state,
  why: "",
});

describe("what is set up after the first start", () => {
  it.each(DEMO)("%s: each thing once, with a target and how; the system after the settings", async (name) => {
    const items = setupOf(await pluggedDemo(name), { testPrograms: ["Burn-in"], promises: [{ about: "installed", words: "the mixing program" }] });
    expect(new Set(items.map((i) => i.id)).size).toBe(items.length);
    for (const i of items) expect([i.id, i.what.length > 3, i.target.length > 1, i.how.length > 5]).toEqual([i.id, true, true, true]);
    const groups = items.map((i) => i.group);
    expect(groups.lastIndexOf("Settings")).toBeLessThan(groups.indexOf("System"));
    // What is lent or only for the test is named as what must be out.
    expect(items.filter((i) => i.mustBeOut).map((i) => i.id)).toEqual(["lent", "off:Burn-in"]);
    expect(items.some((i) => i.what === "the mixing program")).toBe(true);
  });
  it("a profile that was bought is a setting with a speed; at its default it is otherwise, read as the clock it is as wanted", async () => {
    const items = setupOf(await pluggedDemo("fs-1041"));
    const profile = items.find((i) => i.id === "memory-profile");
    if (!profile) throw new Error("the workstation has no profile to set");
    expect(profile).toMatchObject({ value: 6000, unit: "MT/s" });
    expect(stateOf(profile, undefined)).toBe("open");
    expect(stateOf(profile, done(profile, "4800"))).toBe("otherwise");
    expect(stateOf(profile, done(profile, "6000 MT/s"))).toBe("as wanted");
    expect(stateOf(profile, done(profile, "3000 MHz"))).toBe("as wanted");
    expect(stateOf(profile, done(profile, "off"))).toBe("otherwise");
    // What was wanted otherwise then is to be looked at again.
    expect(stateOf(profile, { ...done(profile, "6000"), target: "on: 5600 MT/s" })).toBe("open");
    const firmware = (({ unit: _, ...rest }) => ({ ...rest, value: 14 }))(profile);
    expect([13, 14].map((v) => stateOf(firmware, done(firmware, `F${v}`)))).toEqual(["otherwise", "as wanted"]);
    expect(stateOf(profile, done(profile, "", "later"))).toBe("later");
    expect(stateOf(profile, done(profile, "", "not"))).toBe("not done");
    const less = setupOf(await pluggedDemo("fs-1041"), { promises: [{ about: "memory-speed", words: "5600", value: 5600 }] });
    expect(less.find((i) => i.id === "memory-profile")?.value).toBe(5600);
  });
  it("what was promised keeps its own name, whichever other promise comes or goes", async () => {
    const graph = await pluggedDemo("fs-1042");
    const ids = (...words: string[]) =>
      setupOf(graph, { promises: words.map((w) => ({ about: "installed", words: w })) }).filter((i) => i.id.startsWith("program:"));
    const [, two] = ids("the office set", "the mixer");
    expect(ids("the mixer").map((i) => [i.id, i.what])).toEqual([[two?.id, "the mixer"]]);
  });
  it("a machine that leaves without a system has settings only", async () => {
    expect(new Set(setupOf(await pluggedDemo("fs-1042"), { bare: true }).map((i) => i.group))).toEqual(new Set(["Settings"]));
  });
});

describe("fan curves", () => {
  it.each(DEMO)("%s: rise with the heat, never below where a fan may stop, full before the limit; pumps at full", async (name) => {
    const curves = curvesOf(await pluggedDemo(name));
    expect(curves.length).toBeGreaterThan(0);
    for (const c of curves) {
      expect(c.fans.length).toBeGreaterThan(0);
      if (c.mode === "full") continue;
      for (const [i, p] of c.points.entries()) {
        const before = c.points[i - 1];
        if (before) expect([c.name, p.atC >= before.atC, p.percent >= before.percent]).toEqual([c.name, true, true]);
        expect(p.percent).toBeGreaterThanOrEqual(c.mode === "pwm" ? 25 : 45);
      }
      expect(c.points.at(-1)).toMatchObject({ percent: 100 });
      expect(c.points.at(-1)?.atC).toBeLessThan(95);
    }
  });
  it("the next round is quieter where there is room, faster where there is none, and stays where it is right", async () => {
    const graph = await pluggedDemo("fs-1042");
    const [first] = curvesOf(graph).filter((c) => c.mode !== "full");
    if (!first) throw new Error("no curve");
    const middle = (maxC: number) => curvesOf(graph, { [first.header]: { maxC } }).find((c) => c.header === first.header)?.points[1]?.percent ?? 0;
    const was = first.points[1]?.percent ?? 0;
    expect(middle(60)).toBeLessThan(was);
    expect(middle(83)).toBe(was);
    expect(middle(94)).toBeGreaterThan(was);
  });
});

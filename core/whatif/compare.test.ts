import { describe, expect, it } from "vitest";
import { DEMO, demo, shelf } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import { alternatives, compare, judge, withType } from ".";

const judgedWith = (name: string, part: string, typeId: string) => {
  const { build, types } = demo(name);
  const type = shelf.find((t) => t.id === typeId);
  if (!type) throw new Error(typeId);
  const other = withType(build, types, part, type);
  return compare(judge(buildGraph({ ...build, connections: [] }, types)), judge(buildGraph(other.build, other.types)));
};

describe("what becomes better and worse", () => {
  it.each(DEMO)("%s beside itself: nothing", (name) => {
    const { build, types } = demo(name);
    const j = judge(buildGraph({ ...build, connections: [] }, types));
    expect(compare(j, j)).toEqual({ gone: [], come: [], turned: [], rows: [] });
  });
  it("a 575 W card in place of 340 W: 235 W more, load and headroom worse, by hand", () => {
    const c = judgedWith("fs-1041", "card", "halcyra-575");
    const row = (what: string) => c.rows.find((r) => r.what === what);
    const before = Number(row("Draw at peak")?.before.replace(" W", ""));
    const after = Number(row("Draw at peak")?.after.replace(" W", ""));
    expect(after - before).toBe(235);
    expect(row("Draw at peak")?.way).toBe("worse");
    expect(row("Headroom")?.way).toBe("worse");
    expect(c.come.map((f) => f.rule)).toContain("supply-size");
  });
  it("slower fans: quieter is better, less air is worse", () => {
    const c = judgedWith("fs-1041", "fan-rear", "whirrow-120-slow");
    expect(c.rows.find((r) => r.what.startsWith("Noise"))?.way).toBe("better");
  });
  it("there and back is no difference", () => {
    const there = judgedWith("fs-1041", "card", "halcyra-220");
    const { build, types } = demo("fs-1041");
    const other = withType(build, types, "card", shelf.find((t) => t.id === "halcyra-220") as never);
    const back = withType(other.build, other.types, "card", types("halcyra-340") as never);
    expect(compare(judge(buildGraph({ ...build, connections: [] }, types)), judge(buildGraph(back.build, back.types)))).toEqual({
      gone: [],
      come: [],
      turned: [],
      rows: [],
    });
    expect(there.rows.length).toBeGreaterThan(0);
  });
});

describe("another part from the shelf that fits", () => {
  it("those that help come first and bring no new stop; every one is of the same kind", () => {
    for (const [name, part] of [
      ["fs-1043", "supply"],
      ["fs-1044", "cooler"],
      ["fs-1041", "card"],
    ] as const) {
      const { build, types } = demo(name);
      const kind = types(build.parts.find((p) => p.id === part)?.type ?? "")?.kind;
      const list = alternatives(build, types, part, shelf);
      expect(list.length).toBe(shelf.filter((t) => t.kind === kind).length - 1);
      const firstNot = list.findIndex((a) => !a.helps);
      expect(list.slice(firstNot).every((a) => !a.helps)).toBe(true);
      for (const a of list) {
        expect(a.type.kind).toBe(kind);
        if (a.helps) expect(a.comparison.come.some((f) => f.severity === "stop")).toBe(false);
      }
    }
  });
  it("a supply that carries the large build is found for it", () => {
    const { build, types } = demo("fs-1043");
    expect(alternatives(build, types, "supply", shelf)[0]).toMatchObject({ helps: true, type: { id: "mossgate-1500m" } });
  });
  it("the order does not depend on the order of the shelf; an unknown part has none", () => {
    const { build, types } = demo("fs-1043");
    const ids = (l: typeof shelf) => alternatives(build, types, "cooler", l).map((a) => a.type.id);
    expect(ids([...shelf].reverse())).toEqual(ids(shelf));
    expect(alternatives(build, types, "ghost", shelf)).toEqual([]);
  });
});

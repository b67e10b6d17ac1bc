import { describe, expect, it } from "vitest";
import { demo, demoPlan, shelf } from "../../../tests/fixtures/demo";
import { typeLookup } from "../../assembly";
import { comparePlans, type Plan, plan } from "..";

const planned = async (build: Plan["build"]) => plan(build, typeLookup(build, shelf));

describe("two plans side by side", () => {
  it("a plan beside itself differs in nothing", async () => {
    const p = await demoPlan("fs-1041");
    expect(comparePlans(p, p, shelf)).toMatchObject({
      levels: [],
      better: "neither",
      moves: [],
      accessories: { come: [], gone: [] },
      inBag: { come: [], gone: [] },
    });
  });
  it("without the accessories of the shelf: the first level that differs decides, and what moves is named from and to", async () => {
    const { build } = demo("fs-1044");
    const [one, two] = [
      await planned({ ...build, connections: [] }),
      await planned({ ...build, connections: [], accessories: [], policy: { ...build.policy, mayOrder: false } }),
    ];
    const d = comparePlans(one, two, shelf);
    expect(d.better).toBe("before");
    const first = d.levels[0];
    expect(first && first.after > first.before).toBe(true);
    expect(d.accessories.come).toEqual([]);
    expect(d.accessories.gone.length).toBe(new Set(one.accessories.map((a) => a.type)).size);
    expect(d.moves.length).toBeGreaterThan(0);
    for (const m of d.moves) {
      expect(m.from).not.toBe(m.to);
      const [was, is] = [one, two].map((p) => p.connections.find((c) => c.lead === m.lead));
      expect([was === undefined, is === undefined]).toEqual([m.from === undefined, m.to === undefined]);
    }
    // And back again: the same rows the other way round.
    const back = comparePlans(two, one, shelf);
    expect(back.better).toBe("after");
    expect(back.moves.map((m) => [m.lead, m.to, m.from])).toEqual(d.moves.map((m) => [m.lead, m.from, m.to]));
  });
  it("school against school: fans on headers of their own want more headers", async () => {
    const { build } = demo("fs-1041");
    const own = await planned({ ...build, connections: [], policy: { ...build.policy, caseFans: "own-header" } });
    const group = await planned({ ...build, connections: [], policy: { ...build.policy, caseFans: "group-by-place" } });
    const headers = (p: Plan) => new Set(p.connections.filter((c) => /^board:.*FAN/i.test(c.port)).map((c) => c.port)).size;
    expect(headers(own)).toBeGreaterThanOrEqual(headers(group));
    const d = comparePlans(group, own, shelf);
    expect(d.moves.length > 0).toBe(JSON.stringify(own.connections) !== JSON.stringify(group.connections));
  });
});

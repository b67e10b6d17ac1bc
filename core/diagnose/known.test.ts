import { describe, expect, it } from "vitest";
import { pluggedDemo } from "../../tests/fixtures/demo";
import { backwardOf, causesOf, deedById, deedsOf, isMended, priorsFrom } from ".";

const graph = await pluggedDemo("fs-1044");

describe("a deed by its id", () => {
  it("is every one that the advice may give, with the results that may come of it", () => {
    const b = backwardOf(graph);
    const seen = new Map([
      ["button", "nothing"],
      ["turns:fan-rear:lead", "still"],
      ["turns:fan-floor:lead", "turns"],
    ]);
    const all = deedsOf(b, seen).filter((d) => d.kind !== "look" && d.kind !== "measure");
    expect(all.length).toBeGreaterThan(20);
    for (const d of all) {
      const known = deedById(graph, d.id);
      expect([d.id, known?.kind, known?.target]).toEqual([d.id, d.kind, d.target]);
      expect([d.id, known?.results.includes("impossible")]).toEqual([d.id, true]);
    }
    for (const id of ["swap:nobody", "beside:nobody", "exchange:nobody:x", "", "look:standby"])
      expect([id, deedById(graph, id)]).toEqual([id, undefined]);
  });
  it("names what it is done for first: a module that was swapped was dead, one that was seated anew was not seated", () => {
    const memory = [...graph.parts.values()].find((p) => p.type.kind === "memory")?.id;
    expect(deedById(graph, `swap:${memory}`)?.causes[0]?.mode).toBe("dead");
    expect(deedById(graph, `seat:${memory}`)?.causes[0]?.mode).toBe("unseated");
    const bridge = deedById(graph, "bridge");
    expect(bridge && isMended(bridge, "now it works")).toBe(false);
    const press = deedById(graph, "press:cooler:fan@board:CPU_FAN");
    expect(press && [isMended(press, "that was it"), isMended(press, "no change")]).toEqual([true, false]);
  });
});

describe("the shop's own record", () => {
  it("moves the usual slowly: nothing yet leaves it, many findings raise it, many machines without lower it", () => {
    const none = priorsFrom(graph, {}, 0);
    expect(new Set(Object.values(none))).toEqual(new Set([1]));
    const few = priorsFrom(graph, { "fan dead": 1 }, 10);
    const many = priorsFrom(graph, { "fan dead": 20 }, 200);
    expect(few["fan dead"]).toBeGreaterThan(1);
    expect(few["fan dead"]).toBeLessThan(many["fan dead"] ?? 0);
    expect(many["memory unseated"]).toBeLessThan(1);
    expect(causesOf(graph, many).find((c) => c.kind === "fan" && c.mode === "dead")?.perTenThousand).toBeGreaterThan(12);
  });
});

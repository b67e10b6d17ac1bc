import { describe, expect, it } from "vitest";
import { pluggedDemo } from "../../tests/fixtures/demo";
import { type Element, powerOn } from "../machine";
import { diagnose, type Seen } from ".";

const sheetOf = async (name: string, bad: string) => {
  const graph = await pluggedDemo(name);
  const lines = powerOn(graph).lines;
  const real = new Map(powerOn(graph, new Set([bad])).lines.map((l) => [l.id, l]));
  const seen = lines.map((l): Seen => ({ line: l.id, asExpected: real.get(l.id)?.expected === l.expected, value: real.get(l.id)?.expected ?? "" }));
  return { lines, seen };
};
const elementsOf = async (name: string): Promise<Element[]> => {
  const all = powerOn(await pluggedDemo(name)).lines.flatMap((l) => l.leans);
  return [...new Map(all.map((e) => [e.id, e])).values()];
};

describe.each(["fs-1041", "fs-1044", "fs-1045", "fs-1046"])("%s, every single fault", (name) => {
  it("is found by following the advice, trying nothing twice; the list is bounded and sure of nothing beyond 100", async () => {
    const tries: number[] = [];
    for (const bad of await elementsOf(name)) {
      const { lines, seen } = await sheetOf(name, bad.id);
      // What shows nothing cannot be found: one of two modules leaves a machine that starts, but reads half.
      if (seen.every((s) => s.asExpected)) continue;
      const tried = new Set<string>();
      for (;;) {
        const d = diagnose(lines, seen, tried);
        expect(d.suspects.length).toBeLessThanOrEqual(12);
        expect([bad.id, d.next !== undefined]).toEqual([bad.id, true]);
        const id = d.next?.element.id ?? "";
        expect([bad.id, id, tried.has(id)]).toEqual([bad.id, id, false]);
        tried.add(id);
        if (id === bad.id) break;
      }
      tries.push(tried.size);
    }
    expect(tries.length).toBeGreaterThan(20);
    // Faults that look alike are told apart by trying only; half are found with the first few actions.
    const sorted = [...tries].sort((a, b) => a - b);
    expect(sorted[Math.floor(sorted.length / 2)]).toBeLessThanOrEqual(8);
  });
  it("the guilty one is never said to be cleared by a line that works", async () => {
    for (const bad of await elementsOf(name)) {
      const { lines, seen } = await sheetOf(name, bad.id);
      if (seen.every((s) => s.asExpected)) continue;
      expect([bad.id, diagnose(lines, seen).cleared.map((c) => c.name)]).toEqual([bad.id, expect.not.arrayContaining([bad.name])]);
    }
  });
  it("every action but a look at the mains or the monitor begins with the supply off", async () => {
    for (const bad of await elementsOf(name)) {
      const { lines, seen } = await sheetOf(name, bad.id);
      const next = diagnose(lines, seen).next;
      if (next && next.element.kind !== "mains" && next.element.kind !== "monitor")
        expect(next.action).toMatch(/^Supply off, mains out, press the button once\. /);
    }
  });
});

describe("half-split (troubleshooting handbooks, from memory)", () => {
  it("what works clears everything it leans on: in a chain of N, one good reading in the middle halves the suspects", () => {
    const N = 16;
    const chain = (n: number): Element[] => Array.from({ length: n }, (_, i) => ({ id: `e${i}`, kind: "part", name: `element ${i}` }));
    const line = (id: string, n: number) => ({
      id,
      group: "Fans and pump" as const,
      what: id,
      expected: "turns",
      wanted: "turns",
      otherwise: ["still"],
      works: true,
      because: "",
      leans: chain(n),
    });
    const d = diagnose(
      [line("end", N), line("middle", N / 2)],
      [
        { line: "end", asExpected: false, value: "still" },
        { line: "middle", asExpected: true, value: "turns" },
      ],
    );
    const top = d.suspects.filter((s) => s.sharePercent >= 5).map((s) => s.element.id);
    expect(top).toHaveLength(N / 2);
    for (const id of top) expect(Number(id.slice(1))).toBeGreaterThanOrEqual(N / 2);
    expect(d.cleared).toHaveLength(N / 2);
  });
});

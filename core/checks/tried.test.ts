import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { DEMO, demo, shelf } from "../../tests/fixtures/demo";
import { type Build, buildGraph, type TypeLookup } from "../assembly";
import { checkParts, type Finding, withTriedWays } from ".";

const WEIGHT = { stop: 1000, warn: 10, note: 1 };
const weightOf = (list: readonly Finding[]) => list.reduce((s, f) => s + WEIGHT[f.severity], 0);

/** A demo build with some parts of other types, frames, tubes and mounts: what a customer may bring. */
const spoilt = fc
  .tuple(
    fc.constantFrom(...DEMO),
    fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 4 }),
    fc.array(fc.tuple(fc.nat(), fc.nat(3)), { maxLength: 4 }),
  )
  .map(([name, swaps, turns]): { build: Build; types: TypeLookup } => {
    const { build, types } = demo(name);
    const parts = [...build.parts];
    for (const [n, m] of swaps) {
      const i = n % parts.length;
      const part = parts[i];
      const same = shelf.filter((t) => t.kind === types(part?.type ?? "")?.kind);
      const type = same[m % Math.max(1, same.length)];
      if (part && type) parts[i] = { ...part, type: type.id };
    }
    for (const [n, how] of turns) {
      const i = n % parts.length;
      const part = parts[i];
      const kind = types(part?.type ?? "")?.kind;
      if (!part) continue;
      if (kind === "fan") parts[i] = { ...part, ...(how % 2 ? { blows: how > 1 ? "in" : "out" } : { frame: how > 1 ? "outside" : "inside" }) };
      if (kind === "cooler") parts[i] = { ...part, tubes: (["rear", "front", "top", "bottom"] as const)[how] ?? "rear" };
      if (kind === "card") parts[i] = { ...part, vertical: how > 1 };
      if (kind === "case") parts[i] = { ...part, cage: "out" };
    }
    return { build: { ...build, parts, connections: [] }, types: (id) => types(id) ?? shelf.find((t) => t.id === id) };
  });

describe("law 8: a way out, applied, does what it said", () => {
  it("the build with it, judged from nothing, has less of the finding, no rule that stops anew, and as many stops fewer as was said", () => {
    let offered = 0;
    fc.assert(
      fc.property(spoilt, ({ build, types }) => {
        const before = checkParts(buildGraph(build, types));
        const said = withTriedWays(buildGraph(build, types), before);
        for (const [i, f] of before.entries())
          for (const t of f.tries ?? []) {
            const way = said[i]?.ways?.find((w) => w.startsWith(t.what));
            const after = checkParts(buildGraph(t.change(build), types));
            const of = (list: readonly Finding[]) => weightOf(list.filter((x) => x.rule === f.rule));
            const stops = (list: readonly Finding[]) => list.filter((x) => x.severity === "stop");
            const helps =
              of(after) < of(before) && weightOf(after) < weightOf(before) && stops(after).every((x) => stops(before).some((y) => y.rule === x.rule));
            expect([t.what, way !== undefined]).toEqual([t.what, helps]);
            if (!way) continue;
            offered++;
            const removed = /removes (\d+) of (\d+) stops?/.exec(way);
            const fewer = stops(before).length - stops(after).length;
            expect([way, removed ? Number(removed[1]) : 0]).toEqual([way, Math.max(0, fewer)]);
            if (removed) expect(Number(removed[2])).toBe(stops(before).length);
          }
      }),
      cases(200, 8),
    );
    expect(offered).toBeGreaterThan(40);
  });
});

import { describe, expect, it } from "vitest";
import { DEMO, demo, shelf } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import type { Finding } from "../checks";
import { alternatives, judge, withType } from ".";

const WEIGHT = { stop: 1000, warn: 10, note: 1 };
const weight = (list: readonly Finding[]) => list.reduce((s, f) => s + WEIGHT[f.severity], 0);

describe.each(DEMO)("%s, every part in turn", (name) => {
  const { build, types } = demo(name);
  const bare = { ...build, connections: [] };
  const kinds = ["supply", "cooler", "card", "case"];
  const parts = bare.parts.filter((p) => kinds.includes(types(p.type)?.kind ?? ""));

  it("what is said to help leaves less trouble, and no new stop", () => {
    const now = judge(buildGraph(bare, types));
    for (const part of parts) {
      for (const a of alternatives(build, types, part.id, shelf)) {
        const other = withType(bare, types, part.id, a.type);
        const then = judge(buildGraph(other.build, other.types));
        expect([part.id, a.type.id, a.stops]).toEqual([part.id, a.type.id, then.findings.filter((f) => f.severity === "stop").length]);
        const { gone, come, turned } = a.comparison;
        const [as, then_] = [turned.map(([f]) => f), turned.map(([, f]) => f)];
        expect(weight(then.findings) - weight(now.findings)).toBe(weight([...come, ...then_]) - weight([...gone, ...as]));
        // Nothing is better and worse at once.
        expect(gone.filter((f) => come.some((x) => x.id === f.id))).toEqual([]);
        if (a.helps) expect([part.id, a.type.id, weight(then.findings) < weight(now.findings)]).toEqual([part.id, a.type.id, true]);
      }
    }
  });
  it("only the part that was named becomes another, and nothing of the build itself is changed", () => {
    const before = JSON.stringify(build);
    for (const part of parts) {
      const first = shelf.find((t) => t.kind === types(part.type)?.kind && t.id !== part.type);
      if (!first) continue;
      const other = withType(build, types, part.id, first);
      expect(other.build.parts.filter((p, i) => p !== build.parts[i]).map((p) => p.id)).toEqual([part.id]);
      expect(other.types(first.id)).toBe(first);
    }
    expect(JSON.stringify(build)).toBe(before);
  });
});

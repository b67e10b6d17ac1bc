import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { DEMO, demo, shelf } from "../../tests/fixtures/demo";
import { buildGraph, partsOfKind } from "../assembly";
import { withTriedWays } from "../checks";
import { judge, withType } from ".";

// Ways out as they read: they are worked out from the graph that they stand on.
const plain = (j: ReturnType<typeof judge>) => ({ ...j, findings: withTriedWays(j.graph, j.findings), graph: undefined });

describe("judged again after one part changed", () => {
  it("says the same as judged from nothing, whatever part becomes whatever type of its kind", () => {
    fc.assert(
      fc.property(fc.constantFrom(...DEMO), fc.nat(), fc.nat(), (name, n, m) => {
        const { build, types } = demo(name);
        const bare = { ...build, connections: [] };
        const part = bare.parts[n % bare.parts.length];
        const kind = types(part?.type ?? "")?.kind;
        const same = shelf.filter((t) => t.kind === kind);
        const type = same[m % same.length];
        if (!part || !type) return;
        const now = judge(buildGraph(bare, types));
        const other = withType(bare, types, part.id, type);
        const again = judge(buildGraph(other.build, other.types, now.graph));
        expect(plain(again)).toEqual(plain(judge(buildGraph(other.build, other.types))));
      }),
      cases(150, 89),
    );
  });
  it("the graph made from another is the graph made from nothing: tags, places, order and all", () => {
    fc.assert(
      fc.property(fc.constantFrom(...DEMO), fc.nat(), fc.nat(), (name, n, m) => {
        const { build, types } = demo(name);
        const part = build.parts[n % build.parts.length];
        const same = shelf.filter((t) => t.kind === types(part?.type ?? "")?.kind);
        const type = same[m % same.length];
        if (!part || !type) return;
        const other = withType(build, types, part.id, type);
        const a = buildGraph(other.build, other.types, buildGraph({ ...build, connections: [] }, types));
        const b = buildGraph(other.build, other.types);
        expect([...a.leads].map(([k, l]) => [k, l.tag, l.name, l.origin])).toEqual([...b.leads].map(([k, l]) => [k, l.tag, l.name, l.origin]));
        expect([...a.ports].map(([k, p]) => [k, p.name, p.at])).toEqual([...b.ports].map(([k, p]) => [k, p.name, p.at]));
        expect([...a.parts.keys()]).toEqual([...b.parts.keys()]);
      }),
      cases(100, 97),
    );
  });
  it("rules that look at other kinds keep what they said, the very same findings", () => {
    const { build, types } = demo("fs-1047");
    const bare = { ...build, connections: [] };
    const now = judge(buildGraph(bare, types));
    const other = withType(bare, types, "card", shelf.find((t) => t.id === "halcyra-160") as never);
    const again = judge(buildGraph(other.build, other.types, now.graph));
    const of = (j: typeof now, rule: string) => j.findings.filter((f) => f.rule === rule);
    expect(of(now, "standoffs")).toHaveLength(1);
    expect(of(again, "standoffs")[0]).toBe(of(now, "standoffs")[0]);
    expect(partsOfKind(again.graph, "fan")).toBe(partsOfKind(now.graph, "fan"));
    expect(partsOfKind(again.graph, "card")).not.toBe(partsOfKind(now.graph, "card"));
  });
});

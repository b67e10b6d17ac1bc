import { describe, expect, it } from "vitest";
import { demo } from "../../tests/fixtures/demo";
import { readBuild } from "../assembly";
import { clearances } from "../fit";
import { measurable, withMeasured } from "./measure";

const { build, types } = demo("fs-1041");
const all = build.parts.flatMap((p) => types(p.type) ?? []);

describe("lengths measured by hand", () => {
  it("every length that can be measured can be put in, and nothing else of the type changes", () => {
    const kinds = new Set<string>();
    for (const type of all)
      for (const m of measurable(type)) {
        kinds.add(m.what.split(":")[0] ?? "");
        const now = withMeasured(type, [{ what: m.what, mm: 77.5 }]);
        expect(measurable(now), m.what).toEqual(measurable(type).map((x) => (x.what === m.what ? { ...x, mm: 77.5 } : x)));
        const back = m.mm === undefined ? undefined : withMeasured(now, [{ what: m.what, mm: m.mm }]);
        if (back) expect(back).toEqual(type);
      }
    expect([...kinds].sort()).toEqual(expect.arrayContaining(["end", "heightMm", "lead", "maxCoolerMm", "widthMm"]));
  });
  it("the same measures make the same object; none leaves the type as it is; what it does not have is left alone", () => {
    const [type] = all.filter((t) => t.kind === "card");
    if (!type) throw new Error("no card");
    expect(withMeasured(type, undefined)).toBe(type);
    expect(withMeasured(type, [])).toBe(type);
    expect(withMeasured(type, [{ what: "widthMm", mm: 300 }])).toBe(withMeasured(type, [{ what: "widthMm", mm: 300 }]));
    expect(withMeasured(type, [{ what: "no-such", mm: 300 }])).toEqual(type);
  });
  it("count in the build, for this part alone, and a length that its type lacks is a fault of the file", () => {
    const measured = (part: string, what: string, mm: number) => ({
      ...build,
      partTypes: [],
      connections: [],
      parts: build.parts.map((p) => (p.id === part ? { ...p, measured: [{ what, mm }] } : p)),
    });
    const shelf = [...new Map(all.map((t) => [t.id, t])).values()];
    const cooler = build.parts.find((p) => types(p.type)?.kind === "cooler");
    const card = build.parts.find((p) => types(p.type)?.kind === "card");
    if (!cooler || !card) throw new Error("FS-1041 has both");
    const read = readBuild({ ...measured(card.id, "widthMm", 900), accessories: [] }, shelf);
    if (!read.ok) throw new Error(read.faults.join(" "));
    expect(clearances(read.graph, ["cards"]).find((c) => c.id === `card-length:${card.id}`)).toMatchObject({ need: 900, verdict: "not" });
    const bad = readBuild({ ...measured(cooler.id, "lead:no-such", 10), accessories: [] }, shelf);
    expect(bad.ok ? [] : bad.faults).toEqual([expect.stringMatching(/^parts\[\d+\]\.measured\[0\]\.what: a .* has no length "lead:no-such"\.$/)]);
  });
});

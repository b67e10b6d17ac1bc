import { describe, expect, it } from "vitest";
import { shelf } from "../../tests/fixtures/demo";
import { FAMILY_IDS, family, mate, type Outcome, usable } from ".";

const all = FAMILY_IDS.flatMap((plug) => FAMILY_IDS.map((port) => [plug, port, mate(plug, port, "k", "k")] as const));

describe("every plug against every port", () => {
  it("has an outcome, and says why unless it plainly fits", () => {
    const outcomes = new Set<Outcome>(["fits", "loss", "idle", "harm", "keyed"]);
    for (const [plug, port, m] of all) {
      expect([plug, port, outcomes.has(m.outcome)]).toEqual([plug, port, true]);
      if (m.outcome !== "fits") expect([plug, port, m.because.length > 8]).toEqual([plug, port, true]);
      expect(usable(m)).toBe(m.outcome === "fits" || m.outcome === "loss");
    }
  });
  it("never plans across looms: what is usable carries the same kind of thing", () => {
    for (const [plug, port, m] of all) if (usable(m)) expect([plug, port, family(plug).loom]).toEqual([plug, port, family(port).loom]);
  });
  it("what harms, harms power or lights; data, audio and panel plugs are only ever kept out", () => {
    for (const [plug, port, m] of all)
      if (m.outcome === "harm") expect([plug, port, ["power", "lighting"].includes(family(plug).loom)]).toEqual([plug, port, true]);
  });
  it("a key of its own must be the same; without one it does not matter", () => {
    for (const id of FAMILY_IDS) {
      if (id === "panel-loose") continue;
      const other = mate(id, id, "one", "two");
      if (family(id).ownKey) expect([id, usable(other)]).toEqual([id, false]);
      else expect([id, other.outcome]).toEqual([id, "fits"]);
    }
  });
});

describe("the shelf's supplies", () => {
  const supplies = shelf.filter((t) => t.kind === "supply");
  it("own cables go into own outlets; another system's are called harmful (modular cables belong to their own supply)", () => {
    const systems = new Set(supplies.flatMap((s) => s.ports.filter((p) => p.family === "supply-outlet").map((p) => p.key)));
    expect(systems.size).toBeGreaterThan(2);
    for (const s of supplies)
      for (const c of s.cables)
        for (const key of c.outlets) {
          expect([s.id, c.id, s.ports.some((p) => p.key === key)]).toEqual([s.id, c.id, true]);
          for (const other of systems) expect(mate("supply-outlet", "supply-outlet", key, other).outcome).toBe(other === key ? "fits" : "harm");
        }
  });
});

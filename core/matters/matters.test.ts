import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { shelf } from "../../tests/fixtures/demo";
import { type Build, buildGraph, type TypeLookup, typeLookup } from "../assembly";
import { assumed, figuresOf, rangeOf, withFigure } from "../catalogue";
import { checkParts } from "../checks";
import { clearances } from "../fit";
import { fromMail, readMail, shelfIndex } from "../intake";
import { plan } from "../plan";
import { couldStop, mattersOf, TriedBefore } from ".";
import { TURNS_ON } from "./matters";

const index = shelfIndex(shelf);
const made = (text: string): Build => fromMail(readMail(text, index, "2026-12-01"), (id) => shelf.find((t) => t.id === id)).build;
const build = made(
  "- Case Brindlecote Harbour\n- Motherboard: Stellan Gorge B7 ATX\n- CPU: Marrow 8-core 65W\n- Cooler: Nordlicht N12 tower\n- RAM: 2x16GB Tolliver DDR5\n- Graphics card Borealis X5 180W\n- Power supply 650W Quern P6\n- SSD Ferry Onyx 1TB NVMe\n- 2 x Whirrow 120",
);
const types = typeLookup(build, shelf);
const withValue = (b: Build, type: string, figure: string, value: number | string | boolean, is: "typical" | "confirmed" = "typical"): Build => ({
  ...b,
  partTypes: b.partTypes.map((t) => (t.id === type ? withFigure(t, figure, value, is) : t)),
});
/** What stops and what warns; a note decides nothing. */
const judged = (b: Build): string[] =>
  checkParts(buildGraph(b, typeLookup(b, shelf)))
    .filter((f) => f.severity !== "note")
    .map((f) => `${f.severity} ${f.id}`)
    .sort();
const turns = async (b: Build) => {
  const p = await plan({ ...b, connections: [] }, typeLookup(b, shelf), { deadlineS: 8 });
  return TURNS_ON.map((l) => p.cost[l]);
};

describe("what matters", () => {
  const found = mattersOf(build, types, { withinMs: 120_000 });
  it("asks nothing twice, the most consequential first, and says of each what follows and how it is found out", async () => {
    const m = await found;
    expect(m.matters.length).toBeGreaterThan(0);
    expect(m.untried).toEqual([]);
    const asked = m.matters.map((x) => `${x.type} ${x.figure}`);
    expect(new Set(asked).size).toBe(asked.length);
    // Processor and board share a socket: the board's is asked.
    expect(m.matters.filter((x) => x.figure === "socket").map((x) => build.partTypes.find((t) => t.id === x.type)?.kind)).toEqual(["board"]);
    const weights = m.matters.map((x) => x.weight);
    expect(weights).toEqual([...weights].sort((a, b) => b - a));
    for (const x of m.matters) {
      expect(x.question).toMatch(/\?$/);
      expect(x.range.every((r) => r.decides.length > 0)).toBe(true);
    }
  }, 120_000);
  it("what it says not to matter, otherwise within its range, changes neither what is found nor the plan down to what is ordered", async () => {
    const m = await found;
    const before = judged(build);
    const plain = await turns(build);
    const free = m.settled.flatMap((s) => {
      const t = types(s.type);
      const f = t && figuresOf(t.kind).find((x) => x.id === s.figure);
      return t && f ? rangeOf(t, f).map((value) => ({ ...s, value })) : [];
    });
    expect(free.length).toBeGreaterThan(3);
    for (const s of free) expect(judged(withValue(build, s.type, s.figure, s.value)), `${s.type} ${s.figure} ${s.value}`).toEqual(before);
    const some = fc.sample(fc.constantFrom(...free), { numRuns: 4, seed: 5 });
    for (const s of some) expect(await turns(withValue(build, s.type, s.figure, s.value)), `${s.type} ${s.figure} ${s.value}`).toEqual(plain);
  }, 240_000);
  it("what it says decides something does: what is found, or the plan, is another at that value", async () => {
    const m = await found;
    const before = judged(build);
    const plain = await turns(build);
    for (const x of m.matters.slice(0, 3)) {
      const [r] = x.range;
      if (!r) continue;
      const there = withValue(build, x.type, x.figure, r.value);
      const [now, cost] = [judged(there), await turns(there)];
      const lists = r.decides.some((d) => /order/i.test(d));
      expect(lists || now.join() !== before.join() || cost.join() !== plain.join(), x.question).toBe(true);
    }
  }, 240_000);
  it("whoever confirms one value as it was assumed is asked all the others again, in a fraction of the time, and nothing else", async () => {
    const memory = new TriedBefore();
    const before = await mattersOf(build, types, { withinMs: 120_000, memory });
    const [one] = before.matters;
    if (!one) throw new Error("nothing matters");
    const sure = withValue(build, one.type, one.figure, one.value, "confirmed");
    let plans = 0;
    const counting = { of: (v: string) => memory.of(v) } as TriedBefore;
    const after = await mattersOf(sure, typeLookup(sure, shelf), {
      withinMs: 120_000,
      memory: counting,
      now: () => {
        plans++;
        return performance.now();
      },
    });
    // The clock is looked at once more for each value that is tried anew: there is none.
    expect(plans).toBeLessThanOrEqual(2);
    const ids = (m: typeof before) => m.matters.map((x) => `${x.type} ${x.figure}`).sort();
    expect(ids(after)).toEqual(ids(before).filter((x) => x !== `${one.type} ${one.figure}`));
  }, 240_000);
  it("confirming what was assumed changes no plan", async () => {
    const sure = build.partTypes.reduce(
      (b, t) => assumed(t).reduce((n, f) => withValue(n, t.id, f.id, t.figures?.[f.id]?.value ?? 0, "confirmed"), b),
      build,
    );
    expect(sure.partTypes.flatMap((t) => assumed(t))).toEqual([]);
    const of = async (b: Build, lookup: TypeLookup) => (await plan({ ...b, connections: [] }, lookup, { deadlineS: 20 })).build.connections;
    expect(await of(sure, typeLookup(sure, shelf))).toEqual(await of(build, types));
  }, 120_000);
});

describe("what could stop", () => {
  const tight = made(
    "- Case Vantage Airbox micro tower\n- Heron T40\n- Graphics card Borealis X5 320W\n- CPU cooler Nordlicht N12 tower\n- Mossgate 650 M",
  );
  const lookup = (b: Build) => typeLookup(b, shelf);
  const graphOf = (b: Build) => buildGraph(b, lookup(b));
  it("names the length at which it no longer goes in: there it does, a millimetre beyond it does not, and only the part itself waits", () => {
    const said = couldStop(graphOf(tight));
    expect(said.length).toBeGreaterThan(0);
    for (const f of said) {
      const [, type = "", figure = ""] = f.id.split(":");
      const limit = Number(/(\d+) mm at (most|least)/.exec(f.message)?.[1]);
      const most = f.message.includes("at most");
      const blocked = (v: number) => clearances(graphOf(withValue(tight, type, figure, v))).filter((c) => c.verdict === "not").length;
      const now = clearances(graphOf(tight)).filter((c) => c.verdict === "not").length;
      expect(blocked(limit), f.message).toBe(now);
      expect(blocked(limit + (most ? 1 : -1)), f.message).toBeGreaterThan(now);
      expect(f.severity).toBe("warn");
      expect(f.holds?.length).toBeGreaterThan(0);
    }
  });
  it("says nothing where all is known, nor once it is measured", () => {
    const [first] = couldStop(graphOf(tight));
    const [, type = "", figure = ""] = first?.id.split(":") ?? [];
    const t = tight.partTypes.find((x) => x.id === type);
    const sure = withValue(tight, type, figure, t?.figures?.[figure]?.value ?? 0, "confirmed");
    expect(couldStop(graphOf(sure)).some((f) => f.id === first?.id)).toBe(false);
  });
});

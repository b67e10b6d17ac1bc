import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { pluggedDemo } from "../../tests/fixtures/demo";
import type { TypeLookup } from "../assembly";
import { PartType } from "../catalogue";
import { Agreed, sumsOf } from "../offer";
import { bagOf, isBetter, isSilent, missingOf, PHOTO_PLACES, packingOf, type Recorded, soldAgainstBuilt } from ".";

const type = (id: string, kind: string, ratings: object = {}) => PartType.parse({ id, kind, maker: "M", name: id, ratings });
const TYPES = [
  type("m32", "memory", { sizeGb: 32, profileMts: 6000 }),
  type("m64", "memory", { sizeGb: 64, profileMts: 6000 }),
  type("m64-slow", "memory", { sizeGb: 64, profileMts: 4800 }),
  type("fan-a", "fan"),
  type("fan-b", "fan"),
  type("d1", "drive", { sizeGb: 1000 }),
];
const types: TypeLookup = (id) => TYPES.find((t) => t.id === id);
const list = (parts: object[], more: object = {}) => Agreed.parse({ parts, ...more });
const line = (t: string, count = 1, each?: number) => ({ what: t, type: t, count, ...(each === undefined ? {} : { each }) });

describe("sold against built", () => {
  it("line by line: same, another of its kind, better, missing, not asked for", () => {
    const sold = list([line("m32", 1, 90), line("fan-a", 3, 10), line("d1", 1, 70)]);
    const built = list([line("m64", 1, 140), line("fan-a", 2, 10), line("fan-b", 1, 12)]);
    const rows = soldAgainstBuilt(sold, built, types);
    expect(rows.map((r) => [r.sold, r.built, r.state, r.cents])).toEqual([
      ["m32", "m64", "better", 5000],
      ["2 × fan-a", "2 × fan-a", "same", 0],
      ["fan-a", "fan-b", "other", 200],
      ["d1", "", "missing", -7000],
    ]);
    expect(rows.filter(isSilent).length).toBe(3);
    // The client's word on a line is its own: another line is silent still.
    const said = soldAgainstBuilt(sold, built, types, [], { "part d1 gone": { words: "comes later", who: "Ivo", on: "2026-12-01" } });
    expect(said.filter(isSilent).map((r) => r.sold)).toEqual(["m32", "fan-a"]);
    // Of two figures one that is worse makes it another, whatever the first says; other kinds do not compare.
    expect([isBetter(types("m64") as PartType, types("m32") as PartType), isBetter(types("m64-slow") as PartType, types("m32") as PartType)]).toEqual(
      [true, false],
    );
    expect(soldAgainstBuilt(list([line("d1")]), list([line("fan-a")]), types).map((r) => r.state)).toEqual(["missing", "not asked for"]);
  });
  it("a price that moved, the moment, hours, and what was promised are lines too", () => {
    const due = { on: "2026-12-04", hour: "15:00", promised: true };
    const promise = { about: "quiet", words: "at most 30 dB(A)" } as const;
    const sold = list([line("d1", 1, 70)], { hours: 4, rate: 50, due, promises: [promise, { about: "program", words: "the race" }] });
    const built = list([line("d1", 1, 80)], { hours: 5, rate: 50, due: { ...due, on: "2026-12-07" }, promises: [promise] });
    const rows = soldAgainstBuilt(sold, built, types, [{ ...promise, verdict: "kept", because: "Measured 28." }]);
    expect(rows.map((r) => [r.about, r.state, r.cents])).toEqual([
      ["part", "other", 1000],
      ["work", "other", 5000],
      ["moment", "other", 0],
      ["promise", "same", 0],
      ["promise", "other", 0],
    ]);
    expect(rows.at(-1)?.built).toBe("no longer promised");
  });
  it("sold minus built plus the differences is nothing, whatever both are", () => {
    const part = fc.record({
      t: fc.constantFrom(...TYPES.map((t) => t.id)),
      count: fc.integer({ min: 1, max: 9 }),
      each: fc.option(fc.integer({ min: 0, max: 99_999 })),
    });
    const side = fc
      .record({ parts: fc.array(part, { maxLength: 7 }), beside: fc.array(part, { maxLength: 3 }), hours: fc.integer({ min: 0, max: 40 }) })
      .map(({ parts, beside, hours }) => {
        const lines = (l: typeof parts) => l.map((p) => line(p.t, p.count, p.each === null ? undefined : p.each / 100));
        return list(lines(parts), { beside: lines(beside), hours: hours / 4, rate: 52 });
      });
    fc.assert(
      fc.property(side, side, (sold, built) => {
        const rows = soldAgainstBuilt(sold, built, types);
        const cents = rows.reduce((n, r) => n + r.cents, 0);
        expect(Math.round(sumsOf(sold).total * 100) + cents).toBe(Math.round(sumsOf(built).total * 100));
        // Nothing of either side is lost, and no line has another's name.
        const count = (words: string) => Number(/^(\d+) × /.exec(words)?.[1] ?? (words ? 1 : 0));
        const of = (a: typeof sold) => [...a.parts, ...a.beside].reduce((n, l) => n + l.count, 0);
        const listed = rows.filter((r) => r.about === "part" || r.about === "beside");
        expect([listed.reduce((n, r) => n + count(r.sold), 0), listed.reduce((n, r) => n + count(r.built), 0)]).toEqual([of(sold), of(built)]);
        expect(new Set(rows.map((r) => r.id)).size).toBe(rows.length);
      }),
      cases(150, 32),
    );
  });
  it("against itself nothing differs", () => {
    const a = list([line("m32", 2, 90), line("fan-a", 3)], { hours: 4, rate: 50 });
    expect(soldAgainstBuilt(a, a, types).filter((r) => r.state !== "same" || r.cents !== 0)).toEqual([]);
  });
});

const DONE: Recorded = {
  stops: [],
  steps: [],
  unseen: [],
  faults: [],
  setup: [],
  soaked: true,
  promises: [{ words: "quiet", verdict: "kept" }],
  loans: [],
  sold: [],
  photos: PHOTO_PLACES.map((p) => p.id),
  bag: [],
  way: "collected",
  packing: [],
  safety: "not asked for",
  noSerial: [],
};

describe("ready to go", () => {
  it("a machine with everything done goes; each thing that is not keeps it, with the way there", () => {
    expect(missingOf(DONE)).toEqual([]);
    const each: [Partial<Recorded>, string, RegExp][] = [
      [{ stops: [{ id: "x", message: "Too hot." }] }, "wiring", /^Too hot/],
      [{ steps: [{ id: "a", title: "Fit the fans" }] }, "bench", /^1 step is not done: Fit the fans/],
      [{ steps: [{ id: "a", title: "Fit the fans", skipped: "no screws" }] }, "bench", /^Left out: Fit the fans \(no screws\)/],
      [{ unseen: [{ id: "x", what: "Rear fan" }] }, "first-boot", /^1 line of first boot nobody has seen: Rear fan/],
      [{ faults: [{ number: 2, title: "dark", state: "open", known: false, simulated: false }] }, "faults", /^Fault 2 is open/],
      [{ faults: [{ number: 2, title: "dark", state: "closed", known: false, simulated: false }] }, "faults", /without a cause/],
      [{ setup: [{ id: "p", what: "Memory profile", mustBeOut: false }] }, "first-boot", /not as wanted: Memory profile/],
      [{ setup: [{ id: "b", what: "Burn-in", mustBeOut: true }] }, "first-boot", /comes off before it leaves/],
      [{ soaked: false }, "first-boot", /No soak/],
      [{ promises: [{ words: "quiet", verdict: "open" }] }, "first-boot", /not proved: quiet/],
      [{ loans: [{ what: "Start drive", owner: "the shop" }] }, "first-boot", /On loan in it/],
      [{ noSerial: ["Board"] }, "parts", /No serial was read of: Board/],
      [{ photos: ["front"] }, "handover", /^No photo yet: open/],
      [{ bag: [{ what: "SATA cable", count: 2, ticked: false }] }, "handover", /^Not seen in the bag: 2 × SATA cable/],
      [{ safety: "open" }, "handover", /safety test is not recorded/],
      [{ safety: "failed" }, "handover", /safety test failed/],
      [{ way: undefined }, "handover", /collected or travels/],
      [{ packing: [{ id: "foam", what: "Foam fills it", done: false }] }, "handover", /^Foam fills it/],
    ];
    for (const [what, where, words] of each) {
      const m = missingOf({ ...DONE, ...what });
      expect([m.length, m[0]?.where]).toEqual([1, where]);
      expect(m[0]?.what).toMatch(words);
    }
    const stays = missingOf({ ...DONE, loans: [{ what: "Start drive", owner: "the shop" }], safety: "failed", soaked: false }).map(
      (m) => m.stays ?? false,
    );
    expect(stays).toEqual([false, true, true]);
    // What was practised on a stand-in keeps nothing here.
    expect(missingOf({ ...DONE, faults: [{ number: 1, title: "dark", state: "open", known: false, simulated: true }] })).toEqual([]);
  });
});

describe("what goes along", () => {
  it("cables that no port wants are in the bag, each once, for their own supply; what is plugged is not", async () => {
    const graph = await pluggedDemo("fs-1041");
    const bag = bagOf(graph, [{ what: "two brackets", with: "the cooler" }]);
    const cables = [...graph.parts.values()].filter((p) => p.cable && !p.cable.captive);
    const ofSupply = (p: (typeof cables)[number]) => graph.parts.get(p.cable?.owner ?? "")?.type.kind === "supply";
    const idle = cables.filter((p) => p.type.leads.every((l) => !graph.ofLead.has(`${p.id}:${l.id}`)));
    expect(bag.reduce((n, b) => n + b.count, 0)).toBe(idle.length + 1);
    expect(bag.filter((b) => b.onlyFor).reduce((n, b) => n + b.count, 0)).toBe(idle.filter(ofSupply).length);
    expect(idle.length).toBeGreaterThan(0);
    expect(bag).toContainEqual({ what: "two brackets, of the cooler", count: 1 });
  });
  it("a parcel asks for more than a hand: foam, glass, and what pulls on its slot or its board", async () => {
    const graph = await pluggedDemo("fs-1041");
    expect(packingOf(graph, undefined)).toEqual([]);
    const [by, away] = [packingOf(graph, "collected"), packingOf(graph, "travels")];
    expect(away.map((p) => p.id)).toEqual(expect.arrayContaining(["foam", "glass", "box"]));
    expect(by.length).toBeLessThan(away.length);
    for (const p of away) expect(p.because.length).toBeGreaterThan(10);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { demo } from "../../tests/fixtures/demo";
import { given, T } from "../../tests/fixtures/small";
import { buildGraph } from "../assembly";
import { checkParts } from "../checks";
import { orderList } from "../intake";
import { sceneOf } from "../scene";
import { type Clearance, clearances, SLOT_PITCH_MM, said, standoffs, standoffsNow, triedWays, verdictOf, wayOutWords } from ".";

type Json = Record<string, unknown>;
const mount = (id: string, region: string, x: number, y: number, more: Json = {}) => ({ ...T.mount(id, region, x, y), ...more });

/** A case of round numbers: 400 mm for a card, front fans at 440, a top place with 40 mm over the board. */
const shell = (more: Json = {}) =>
  T.case(
    "c",
    [
      mount("front-1", "front", 440, 100, { sizeMm: 140, frame: "either", filter: true }),
      mount("front-2", "front", 440, 240, { sizeMm: 140, frame: "either" }),
      mount("top-1", "top", 120, 10, { sizeMm: 120 }),
      mount("top-2", "top", 240, 10, { sizeMm: 120 }),
      mount("cage", "bottom", 390, 420),
      mount("tray", "behind-tray", 300, 200),
    ],
    {
      maxCardMm: 400,
      maxCoolerMm: 160,
      slots: 7,
      maxSupplyMm: 220,
      maxSupplyWithCageMm: 170,
      vertical: { slots: 2, thicknessMm: 50 },
      radiatorPlaces: [
        {
          id: "top",
          label: "top",
          region: "top",
          mounts: ["top-1", "top-2"],
          fanMm: [120],
          maxLengthMm: 300,
          maxThicknessMm: 60,
          overBoardMm: 40,
          offsetMm: 36,
        },
        { id: "front", label: "front", region: "front", mounts: ["front-1", "front-2"], fanMm: [120, 140], maxLengthMm: 320, maxThicknessMm: 90 },
      ],
      ...more,
    },
  );
const board = T.board("b", [
  T.port("CPU", "cpu-socket", "out", "cpu", { at: { xMm: 100, yMm: 85 }, key: "Q5" }),
  T.port("DIMM_A1", "memory-slot", "out", "memory", { at: { xMm: 150, yMm: 85 }, key: "DDR5" }),
  T.port("DIMM_B1", "memory-slot", "out", "memory", { at: { xMm: 160, yMm: 85 }, key: "DDR5", rank: 1 }),
  T.port("SLOT_1", "pcie-slot", "out", "expansion", { at: { xMm: 75, yMm: 165 } }),
  T.port("SLOT_2", "pcie-slot", "out", "expansion", { at: { xMm: 75, yMm: 225.96 }, rank: 1 }),
]);
const thing = (id: string, kind: string, body: Json, more: Json = {}) => ({ id, kind, maker: "", name: id, body, ...more });
const card = (lengthMm: number, slots = 2) =>
  thing("card", "card", { widthMm: lengthMm, slots }, { leads: [T.lead("seat", "pcie-slot", "seat", 0)] });
const fan = (id: string, sizeMm: number, depthMm = 25) => ({ ...T.fan(id, 0.2), body: { widthMm: sizeMm, depthMm } });
const cooler = (body: Json) => thing("cooler", "cooler", body);
const ram = (heightMm: number) => thing("ram", "memory", { heightMm }, { leads: [{ ...T.lead("seat", "memory-slot", "seat", 0), key: "DDR5" }] });

function judged(types: Json[], parts: Json[], more: Json = {}): Map<string, Clearance> {
  const g = given([shell(more), board, ...types], [{ id: "case", type: "c" }, { id: "board", type: "b" }, ...parts]);
  return new Map(clearances(g.graph).map((c) => [c.id, c]));
}

describe("clearances worked out by hand", () => {
  it("a card of 396 mm in 400 mm: 4 mm to spare counts as a fit; 399 warns; 401 does not go", () => {
    const left = (mm: number) => judged([card(mm)], [{ id: "card-1", type: "card" }]).get("card-length:card-1");
    expect(left(396)).toMatchObject({ left: 4, verdict: "fits" });
    expect(left(398)).toMatchObject({ left: 2, verdict: "fits" });
    expect(left(399)).toMatchObject({ left: 1, verdict: "tight" });
    expect(left(401)).toMatchObject({ left: -1, verdict: "not" });
    expect(said(left(401) as Clearance)).toBe("card (401 mm) does not fit the case: 401 of 400 mm, 1 mm too much.");
  });
  it("front fans inside the frame take their thickness: 400 - 25 = 375; outside they take nothing, and that is the way out", () => {
    const parts = (frame?: string) => [
      { id: "card-1", type: "card" },
      { id: "fan-1", type: "f", mount: "front-1", ...(frame ? { frame } : {}) },
      { id: "fan-2", type: "f", mount: "front-2", ...(frame ? { frame } : {}) },
    ];
    const inside = judged([card(380), fan("f", 140)], parts()).get("card-length:card-1");
    expect(inside).toMatchObject({ need: 380, has: 375, left: -5, verdict: "not" });
    const g = given([shell({}), board, card(380), fan("f", 140)], [{ id: "case", type: "c" }, { id: "board", type: "b" }, ...parts()]).graph;
    // 400 mm without the fans: 20 mm left, and nothing else stops fitting.
    expect(inside && triedWays(g, inside).map(wayOutWords)).toEqual(["Front fans outside the frame: 20 mm left."]);
    expect(judged([card(380), fan("f", 140)], parts("outside")).get("card-length:card-1")).toMatchObject({ has: 400, left: 20 });
  });
  it("only what stands at the card's height counts: a fan above the slot takes nothing", () => {
    // SLOT_1 is at 40 + 165 = 205 mm; a 140 mm fan at 100 mm ends at 170 mm.
    const c = judged(
      [card(390), fan("f", 140)],
      [
        { id: "card-1", type: "card" },
        { id: "fan-1", type: "f", mount: "front-1" },
      ],
    ).get("card-length:card-1");
    expect(c).toMatchObject({ has: 400, left: 10 });
  });
  it("a front radiator takes its thickness and its fans: 400 - 27 - 25 = 348", () => {
    const c = judged(
      [card(340), fan("f", 120), cooler({ radiator: { fanMm: 120, fans: 2, lengthMm: 277, widthMm: 120, thicknessMm: 27 } })],
      [
        { id: "card-1", type: "card" },
        { id: "cooler", type: "cooler" },
        { id: "fan-1", type: "f", mount: "front-1", zone: "radiator" },
        { id: "fan-2", type: "f", mount: "front-2", zone: "radiator" },
      ],
    );
    expect(c.get("card-length:card-1")).toMatchObject({ has: 348, left: 8 });
    expect(c.get("radiator-thickness:cooler")).toMatchObject({ need: 52, has: 90, left: 38 });
    expect(c.get("radiator-length:cooler")).toMatchObject({ need: 277, has: 320, left: 43 });
  });
  it("push-pull: fans on both sides, 27 + 2 × 25 = 77 mm, and leaving a row out is the way out", () => {
    const types = [fan("f", 120), cooler({ radiator: { fanMm: 120, fans: 2, lengthMm: 277, widthMm: 120, thicknessMm: 27 } })];
    const parts = [{ id: "cooler", type: "cooler", mount: "top" }, ...[1, 2, 3, 4].map((n) => ({ id: `fan-${n}`, type: "f", zone: "radiator" }))];
    const c = judged(types, parts).get("radiator-thickness:cooler");
    expect(c).toMatchObject({ need: 77, has: 60, left: -17, verdict: "not" });
    const g = given([shell({}), board, ...types], [{ id: "case", type: "c" }, { id: "board", type: "b" }, ...parts]).graph;
    // 27 + 25 = 52 of 60 mm.
    expect(c && triedWays(g, c).map(wayOutWords)).toContain("The radiator's second row of fans left out: 8 mm left.");
  });
  it("below a top radiator: 52 mm of stack, 40 mm over the board, hangs 12 mm over it; modules begin at 85 - 133.35/2 = 18.3 mm", () => {
    const c = judged(
      [ram(44), fan("f", 120), cooler({ radiator: { fanMm: 120, fans: 2, lengthMm: 277, widthMm: 120, thicknessMm: 27 } })],
      [
        { id: "mem-1", type: "ram" },
        { id: "cooler", type: "cooler" },
        { id: "fan-1", type: "f", mount: "top-1", zone: "radiator" },
        { id: "fan-2", type: "f", mount: "top-2", zone: "radiator" },
      ],
    );
    expect(c.get("memory-under-radiator:cooler")).toMatchObject({ need: 12, has: 18.3, left: 6.3, verdict: "fits" });
    // Modules no higher than the radiator stands off the tray pass below it, whatever it hangs.
    const low = judged(
      [ram(36), cooler({ radiator: { fanMm: 120, fans: 2, lengthMm: 277, widthMm: 120, thicknessMm: 45 } })],
      [
        { id: "mem-1", type: "ram" },
        { id: "cooler", type: "cooler" },
      ],
    );
    expect(low.has("memory-under-radiator:cooler")).toBe(false);
  });
  it("tubes: from the CPU to the nearer end of the radiator, at right angles", () => {
    // CPU at (20 + 100, 40 + 85) = (120, 125). The radiator's middle is (180, 10), its ends 180 ± 138.5: nearer end 41.5.
    const c = judged(
      [cooler({ radiator: { fanMm: 120, fans: 2, lengthMm: 277, widthMm: 120, thicknessMm: 27, tubeMm: 300 } })],
      [{ id: "cooler", type: "cooler" }],
    );
    expect(c.get("tubes:cooler")).toMatchObject({ need: 120 - 41.5 + (125 - 10), has: 300, left: 300 - 193.5 });
  });
  it("cooler height and the memory under it", () => {
    const c = judged(
      [ram(42), cooler({ heightMm: 158, underMm: 46 })],
      [
        { id: "mem-1", type: "ram" },
        { id: "cooler", type: "cooler" },
      ],
    );
    expect(c.get("cooler-height:cooler")).toMatchObject({ left: 2, verdict: "fits" });
    expect(c.get("memory-under-cooler:cooler")).toMatchObject({ left: 4, verdict: "fits" });
  });
  it("a supply beside a drive cage has less room; mounting the drives elsewhere is the way out", () => {
    const types = [thing("psu", "supply", { depthMm: 180 }), T.drive("d")];
    const caged = judged(types, [
      { id: "supply", type: "psu" },
      { id: "drive-1", type: "d", mount: "cage" },
    ]).get("supply-length:supply");
    expect(caged).toMatchObject({ has: 170, left: -10, verdict: "not" });
    const parts = (mount: string, cage?: string) => [
      { id: "supply", type: "psu" },
      { id: "drive-1", type: "d", mount },
      ...(cage ? [{ id: "case", type: "c", cage }] : []),
    ];
    const g = given([shell({}), board, ...types], [{ id: "case", type: "c" }, { id: "board", type: "b" }, ...parts("cage")]).graph;
    expect(caged && triedWays(g, caged).map(wayOutWords)).toEqual([expect.stringMatching(/^The drive cage out, its drive at \S+: 40 mm left\.$/)]);
    // Without a drive in it the cage still stands there, until somebody takes it out.
    expect(judged(types, parts("tray")).get("supply-length:supply")).toMatchObject({ has: 170 });
    const out = given([shell({}), board, ...types], [{ id: "board", type: "b" }, ...parts("tray", "out")]).graph;
    expect(clearances(out).find((c) => c.id === "supply-length:supply")).toMatchObject({ has: 220, left: 40 });
    // Taken out while a drive hangs in it: a stop, and putting it back is the way out.
    const lost = given([shell({}), board, ...types], [{ id: "board", type: "b" }, ...parts("cage", "out")]).graph;
    expect(checkParts(lost).find((f) => f.rule === "cage-out")).toMatchObject({ severity: "stop", ends: ["case", "drive-1"] });
  });
  it("slots: a 3-slot card in the second slot of a 7-cover case has 7 - 3 = 4 covers", () => {
    const c = judged(
      [card(200, 3)],
      [
        { id: "card-1", type: "card" },
        { id: "card-2", type: "card" },
      ],
    );
    // (225.96 - 165) / 20.32 = 3 covers further down.
    expect(c.get("card-width:card-2")).toMatchObject({ unit: "slots", need: 3, has: 4, left: 1, verdict: "fits" });
    expect(60.96 / SLOT_PITCH_MM).toBeCloseTo(3, 6);
  });
  it("upright, a 2-slot card needs 2 × 20.32 = 40.6 of 50 mm; three slots do not go", () => {
    const stood = (slots: number) => judged([card(200, slots)], [{ id: "card-1", type: "card", vertical: true }]).get("card-vertical:card-1");
    expect(stood(2)).toMatchObject({ left: 9.4, verdict: "fits" });
    expect(stood(3)).toMatchObject({ left: -11, verdict: "not" });
  });
  it("no case, nothing to say; entries without measures say nothing either", () => {
    expect(clearances(given([board], [{ id: "board", type: "b" }]).graph)).toEqual([]);
    expect(judged([thing("card", "card", {})], [{ id: "card-1", type: "card" }]).size).toBe(0);
  });
});

describe("what holds of every clearance", () => {
  it("a longer card has exactly as much less to spare, and never a better verdict", () => {
    const rank = { fits: 0, tight: 1, not: 2 };
    fc.assert(
      fc.property(fc.integer({ min: 100, max: 500 }), fc.integer({ min: 0, max: 80 }), fc.boolean(), (mm, more, fans) => {
        const parts = [{ id: "card-1", type: "card" }, ...(fans ? [{ id: "fan-2", type: "f", mount: "front-2" }] : [])];
        const a = judged([card(mm), fan("f", 140)], parts).get("card-length:card-1");
        const b = judged([card(mm + more), fan("f", 140)], parts).get("card-length:card-1");
        if (!a || !b) throw new Error("no clearance");
        expect(b.left).toBeCloseTo(a.left - more, 6);
        expect(rank[b.verdict]).toBeGreaterThanOrEqual(rank[a.verdict]);
      }),
      cases(60, 61),
    );
  });
  it("verdicts stand at 0 and 2 mm; slots have no tight", () => {
    expect([-0.1, 0, 1.9, 2, 4].map((x) => verdictOf(x))).toEqual(["not", "tight", "tight", "fits", "fits"]);
    expect([-0.5, 0].map((x) => verdictOf(x, "slots"))).toEqual(["not", "fits"]);
  });
  it("come worst first, and every sentence holds its numbers", () => {
    const list = clearances(demo("fs-1043").graph);
    expect(list.length).toBeGreaterThan(6);
    // Slots are weighed by their pitch: 2.5 slots are more room than 40 mm.
    const left = list.map((c) => (c.unit === "slots" ? c.left * SLOT_PITCH_MM : c.left));
    expect(left).toEqual([...left].sort((a, b) => a - b));
    for (const c of list) {
      expect(said(c)).toContain(`${c.need} of ${c.has} ${c.unit}`);
      expect(c.left).toBeCloseTo(c.has - c.need, 1);
    }
  });
});

describe("standoffs", () => {
  /** Holes by letter: microATX and Mini-ITX interface specifications (published, from memory). */
  const HOLES: Record<string, string> = { ATX: "ACFGHJKLM", microATX: "BCFHJLMRS", FlexATX: "BCFHJS", "Mini-ITX": "CFHJ" };
  const at: Record<string, [number, number]> = {
    C: [10, 6],
    F: [165, 6],
    H: [10, 163],
    J: [165, 163],
    L: [237, 6],
    M: [237, 163],
    A: [10, 288],
    G: [165, 288],
    K: [237, 288],
    B: [10, 231],
    S: [165, 231],
    R: [237, 231],
  };
  const size: Record<string, [number, number]> = { ATX: [244, 305], microATX: [244, 244], FlexATX: [229, 191], "Mini-ITX": [170, 170] };
  const holes = (letters: string) => [...letters].map((id) => ({ id, at: { xMm: at[id]?.[0], yMm: at[id]?.[1] } }));
  const between = (fitted: string, form: string) => {
    const g = given(
      [
        T.case("c", [], { holes: holes(HOLES[fitted] ?? "") }),
        T.board("b", [], { body: { widthMm: size[form]?.[0], heightMm: size[form]?.[1], formFactor: form, holes: holes(HOLES[form] ?? "") } }),
      ],
      [
        { id: "case", type: "c" },
        { id: "board", type: "b" },
      ],
    );
    const s = standoffs(g.graph);
    const names = (l: { id: string }[] | undefined) =>
      (l ?? [])
        .map((h) => h.id)
        .sort()
        .join("");
    return { add: names(s?.add), remove: names(s?.remove), keep: names(s?.keep) };
  };
  it.each(Object.keys(HOLES))("a case set for %s and a board of the same: nothing to do", (form) => {
    expect(between(form, form)).toEqual({ add: "", remove: "", keep: [...(HOLES[form] ?? "")].sort().join("") });
  });
  it("set for ATX, a microATX board: add B, R, S; A, G, K stand outside the board and may stay", () => {
    expect(between("ATX", "microATX")).toMatchObject({ add: "BRS", remove: "", keep: "CFHJLM" });
  });
  it("set for microATX, an ATX board: B, R, S lie under it and must come out; add A, G, K", () => {
    expect(between("microATX", "ATX")).toMatchObject({ add: "AGK", remove: "BRS", keep: "CFHJLM" });
  });
  it("a mini board keeps its four anywhere", () => {
    for (const fitted of ["ATX", "microATX", "FlexATX"]) expect(between(fitted, "Mini-ITX")).toMatchObject({ add: "", remove: "", keep: "CFHJ" });
  });
  it("9 for a full-size board, 4 for a mini board (common practice)", () => {
    expect(HOLES.ATX).toHaveLength(9);
    expect(HOLES["Mini-ITX"]).toHaveLength(4);
  });
  it("FS-1047: rebuilt into a case that was set for a smaller board", () => {
    const s = standoffs(demo("fs-1047").graph);
    expect(s?.remove.map((h) => h.id).sort()).toEqual(["B", "R", "S"]);
    expect(s?.add.map((h) => h.id).sort()).toEqual(["A", "G", "K", "M"]);
  });
});

describe("standoffs that somebody has set", () => {
  it("stand right under each hole, in the drawing and on the order list too; what the case came with is as it was", () => {
    const { build, types } = demo("fs-1047");
    const now = (standoffsSet: boolean) =>
      buildGraph({ ...build, parts: build.parts.map((p) => (types(p.type)?.kind === "case" ? { ...p, standoffsSet } : p)) }, types);
    expect(standoffsNow(now(false))).toEqual(standoffs(now(false)));
    expect(standoffs(now(true))?.remove.length).toBe(3);
    expect(standoffsNow(now(true))).toMatchObject({ add: [], remove: [] });
    expect(standoffsNow(now(true))?.keep).toHaveLength(9);
    const drawn = (set: boolean) => [...new Set(sceneOf(now(set)).holes.map((h) => h.is))].sort();
    expect([drawn(false), drawn(true)]).toEqual([["add", "keep", "remove"], ["keep"]]);
    const ordered = (set: boolean) => orderList(now(set)).some((i) => i.id === "standoffs");
    expect([ordered(false), ordered(true)]).toEqual([true, false]);
  });
});

describe("standoffs: what is fitted is a fact, what is not known is another", () => {
  const hole = (id: string, xMm: number) => ({ id, at: { xMm, yMm: 10 } });
  const board = { id: "b", kind: "board", maker: "", name: "b", body: { widthMm: 244, heightMm: 244, holes: [hole("A", 10), hole("B", 120)] } };
  const shell = (body: object) => ({ id: "c", kind: "case", maker: "", name: "c", body });
  const of = (body: object) =>
    standoffs(
      given(
        [board, shell(body)],
        [
          { id: "board", type: "b" },
          { id: "case", type: "c" },
        ],
      ).graph,
    );
  it("none fitted: all are to add; nothing said: nothing is claimed", () => {
    expect(of({ noStandoffs: true })?.add.map((h) => h.id)).toEqual(["A", "B"]);
    expect(of({})).toBeUndefined();
  });
  it("a fixed post takes no screw and is never to be taken out", () => {
    const s = of({
      holes: [
        { ...hole("A", 10), post: true },
        { ...hole("Z", 200), post: true },
      ],
    });
    expect([s?.posts.map((h) => h.id), s?.remove, s?.add.map((h) => h.id)]).toEqual([["A"], [], ["B"]]);
  });
});

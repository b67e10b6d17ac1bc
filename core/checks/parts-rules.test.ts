import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases, processorMs } from "../../tests/cases";
import { DEMO, demo, shelf } from "../../tests/fixtures/demo";
import { given } from "../../tests/fixtures/small";
import { type Build, buildGraph } from "../assembly";
import type { PartType } from "../catalogue";
import { orderList } from "../intake";
import { checkParts, type Finding, RULES, withTriedWays } from ".";

/** A demo build with other parts: `swap` names another type of the shelf, `drop` leaves parts out, `add` adds some. */
function changed(
  name: string,
  change: { swap?: Record<string, string>; drop?: RegExp; add?: Build["parts"]; wishes?: Partial<Build["wishes"]>; edit?: (t: PartType) => PartType },
): Finding[] {
  const { build, types } = demo(name);
  const all = new Map(shelf.map((t) => [t.id, t]));
  const parts = build.parts
    .filter((p) => !change.drop?.test(p.id))
    .map((p) => ({ ...p, type: change.swap?.[p.id] ?? p.type }))
    .concat(change.add ?? []);
  const lookup = (id: string) => {
    const t = types(id) ?? all.get(id);
    return t && change.edit ? change.edit(t) : t;
  };
  return checkParts(buildGraph({ ...build, parts, connections: [], wishes: { ...build.wishes, ...change.wishes } }, lookup));
}
const of = (list: Finding[], rule: string) => list.filter((f) => f.rule === rule);
const part = (id: string, type: string, more: object = {}): Build["parts"][number] => ({ id, type, from: "client", ...more });

describe("how a cooler is fixed", () => {
  it("without a bracket for the socket it stops; an entry that says nothing of brackets says nothing", () => {
    const on = (mountings: PartType["body"]["mountings"]) =>
      of(changed("fs-1047", { edit: (t) => (t.kind === "cooler" ? { ...t, body: { ...t.body, mountings } } : t) }), "cooler-mounting");
    expect(on([{ socket: "Q7", bracket: "B", backplate: "own" }])).toMatchObject([
      { severity: "stop", message: expect.stringMatching(/has brackets for Q7, none for socket Q5/) },
    ]);
    expect(on([{ socket: "Q5", bracket: "A", backplate: "own" }])).toEqual([]);
    expect(on(undefined)).toEqual([]);
  });
});

describe("what the parts list alone says", () => {
  it("FS-1041 is ordinary and complete: nothing stops it", () => {
    expect(changed("fs-1041", {}).filter((f) => f.severity !== "note")).toEqual([]);
  });
  it.each(DEMO)("%s: every finding names its parts in a sentence with a full stop", (name) => {
    for (const f of changed(name, {})) {
      expect(f.message).toMatch(/[.]$/);
      expect(f.message).not.toMatch(/undefined|NaN|null/);
      expect(RULES.map((r) => r.id)).toContain(f.rule);
    }
  });

  it.each([
    [
      "a fan where another case had a place",
      "place-missing",
      { add: [part("fan-x", "whirrow-120", { mount: "roof-9" })] },
      "stop",
      /at “roof-9”, a place that Harbour mid tower has not/,
    ],
    [
      "a supply that reaches into a floor fan",
      "one-place",
      {
        add: [part("fan-x", "whirrow-120", { mount: "floor-x" })],
        edit: (t: PartType) =>
          t.kind === "case"
            ? {
                ...t,
                body: {
                  ...t.body,
                  mounts: [
                    ...t.body.mounts,
                    {
                      ...(t.body.mounts[0] as (typeof t.body.mounts)[number]),
                      id: "floor-x",
                      label: "floor",
                      region: "bottom",
                      at: { xMm: 180, yMm: 430 },
                      sizeMm: 120,
                    },
                  ],
                },
              }
            : t,
      },
      "stop",
      /would stand in one another: 43 mm along the case, \d+ mm up, \d+ mm off the tray/,
    ],
    [
      "nothing behind the tray",
      "no-room-behind",
      { edit: (t: PartType) => (t.kind === "case" ? { ...t, body: { ...t.body, behindTrayMm: 0 } } : t) },
      "note",
      /has 0 mm behind its tray: every lead runs in front/,
    ],
    ["another socket", "cpu-socket", { swap: { cpu: "quillane-w24" } }, "stop", /is for socket Q7; Heron T40 has socket Q5/],
    ["no CPU", "cpu-socket", { drop: /^cpu$/ }, "stop", /no CPU in the parts list/],
    [
      "firmware too old, a board that updates alone",
      "firmware",
      { swap: { cpu: "quillane-14" } },
      "warn",
      /needs firmware 1.3 on T40; Heron T40 is delivered with 1.2\. Update it before/,
    ],
    [
      "firmware too old, a board that does not",
      "firmware",
      { swap: { cpu: "quillane-10", board: "tarnbrook-heron-t30" } },
      "stop",
      /updates only with a CPU that it already knows/,
    ],
    [
      "a CPU that no firmware of the chipset knows",
      "firmware",
      { swap: { cpu: "quillane-16x", board: "tarnbrook-heron-t30" } },
      "stop",
      /No firmware for chipset T30 knows/,
    ],
    ["memory of another type", "memory-type", { swap: { board: "tarnbrook-heron-t30d" } }, "stop", /is DDR5; Heron T30 D takes DDR4/],
    ["no memory", "memory-type", { drop: /^mem-/ }, "stop", /no memory in the parts list/],
    ["more modules than slots", "memory-type", { add: [3, 4, 5].map((n) => part(`mem-${n}`, "lathewell-16-6000")) }, "stop", /5 modules, 4 slots/],
    ["modules that differ", "memory-pair", { swap: { "mem-2": "lathewell-32-5600" } }, "warn", /The modules differ/],
    ["one module with a card", "memory-pair", { drop: /^mem-2$/ }, "warn", /one channel stays empty/],
    ["a supply of no class", "supply-class", { swap: { supply: "mossgate-500p" } }, "warn", /has no efficiency class/],
    ["a supply without the card's plug", "supply-plugs", { swap: { supply: "mossgate-500p" } }, "stop", /16-pin graphics: 1 wanted, 0 on the cables/],
    ["a supply that does not carry the 12 V", "supply-rails", { swap: { supply: "mossgate-520f" } }, "stop", /12 V: [\d.]+ A at peak/],
    ["a supply format the bay does not take", "form-factors", { swap: { supply: "mossgate-850s" } }, "stop", /is SFX-L; the bay of .* takes ATX/],
    ["a board too large for the case", "form-factors", { swap: { board: "tarnbrook-kestrel-w80" } }, "stop", /is E-ATX/],
    ["no cooler", "cooler-heat", { drop: /^cooler$/ }, "stop", /has no cooler/],
    ["a cooler for half the heat", "cooler-heat", { swap: { cooler: "coldwharf-down-65" } }, "stop", /carries 120 W; .* gives 230 W/],
    ["far more cooler than needed", "cooler-heat", { swap: { cpu: "quillane-2" } }, "note", /more cooler than it needs/],
    [
      "a card longer than the case",
      "card-fit",
      { edit: (t: PartType) => (t.kind === "card" ? { ...t, body: { ...t.body, widthMm: 381 } } : t) },
      "stop",
      /does not fit/,
    ],
    [
      "a card with 1 mm left",
      "card-fit",
      { edit: (t: PartType) => (t.kind === "card" ? { ...t, body: { ...t.body, widthMm: 354 } } : t) },
      "warn",
      /only just fits/,
    ],
    [
      "a radiator that no place takes",
      "radiator-place",
      { swap: { cooler: "coldwharf-420" } },
      "stop",
      /takes 140 mm fans; the top of Harbour mid tower takes 120 mm/,
    ],
    [
      "fans of another size on the radiator",
      "radiator-place",
      { swap: { "rad-fan-1": "whirrow-92" } },
      "stop",
      /92 mm fans on a radiator for 120 mm/,
    ],
    ["fewer fans than the radiator takes", "radiator-place", { drop: /^rad-fan-3$/ }, "warn", /room for 3 fans and gets 2/],
    ["a fan too large for its mount", "fan-size", { swap: { "rad-fan-1": "whirrow-140" } }, "stop", /is 140 mm; the mount top rear takes 120 mm/],
    ["fans without a mount", "fan-size", { add: [part("fan-x", "whirrow-120")] }, "stop", /1 fan has no mount yet; 0 of/],
    [
      "more M.2 drives than slots",
      "drive-ports",
      { add: [2, 3, 4].map((n) => part(`nvme-${n}`, "pebblestone-swift-500")) },
      "stop",
      /4 M\.2 drives, 3 M\.2 slots/,
    ],
    [
      "more drives than places",
      "drive-ports",
      { add: [1, 2, 3].map((n) => part(`ssd-x${n}`, "pebblestone-slate-500")) },
      "stop",
      /5 drives, 3 drive places/,
    ],
    ["lights the client does not want", "light-wish", { add: [part("strip", "knotwick-strip-20")] }, "warn", /wants no lighting; 1 lit part/],
    ["no light although wanted", "light-wish", { wishes: { lighting: "wanted" } }, "warn", /wants lighting; no lit part/],
    [
      "more light than the headers carry",
      "light-capacity",
      { add: [1, 2, 3, 4].map((n) => part(`strip-${n}`, "knotwick-strip-30")) },
      "warn",
      /120 LEDs draw 7\.2 A; 2 headers of 5 V give 6 A/,
    ],
    ["louder than asked", "noise", { wishes: { noiseDb: 15 } }, "warn", /dB\(A\) at 60 % speed, 15 dB\(A\) asked for\. Loudest:/],
    [
      "an upgrade beyond the supply",
      "supply-usual",
      { wishes: { upgrade: "A second card", upgradeW: 300 } },
      "warn",
      /A second card would draw 300 W more/,
    ],
  ] as const)("%s: %s", (_what, rule, change, severity, words) => {
    const found = of(changed("fs-1041", change as Parameters<typeof changed>[1]), rule);
    expect(found.map((f) => [f.severity, f.message])).toContainEqual([severity, expect.stringMatching(words)]);
  });

  it("one module: a warning, with CPU graphics as without, for it starts; unlike modules stop where graphics borrow memory", () => {
    const with_ = of(changed("fs-1042", { drop: /^mem-2$/ }), "memory-pair")[0];
    expect(with_).toMatchObject({ severity: "warn", message: expect.stringContaining("borrow memory") });
    expect(of(changed("fs-1041", { drop: /^mem-2$/ }), "memory-pair")[0]?.severity).toBe("warn");
  });
  it("a CPU without graphics and no card: nothing gives a picture", () => {
    expect(of(changed("fs-1041", { drop: /^card$/ }), "picture-source")[0]).toMatchObject({ severity: "stop" });
    expect(of(changed("fs-1042", {}), "picture-source")).toEqual([]);
  });
  it("an M.2 drive goes into a slot that switches nothing off, where there is one", () => {
    const drives = [1, 2].map((n) => part(`hdd-x${n}`, "pebblestone-vault-4000"));
    // The first slot switches two SATA ports off instead of the third.
    const edit = (t: PartType): PartType =>
      t.kind === "board"
        ? { ...t, ports: t.ports.map((p) => (p.family === "m2" ? { ...p, displaces: p.id === "M2_1" ? ["SATA_1", "SATA_2"] : [] } : p)) }
        : t;
    const found = of(changed("fs-1041", { add: drives, edit }), "drive-ports").map((f) => f.message);
    expect(found.filter((m) => m.includes("SATA"))).toEqual([]);
  });
  it("M.2 drives find slots that speak with them: as many as trying every choice places, with no port more switched off", () => {
    type Speech = "nvme" | "sata";
    const slot = fc.record({
      protocols: fc.constantFrom<Speech[] | undefined>(undefined, ["nvme"], ["sata"], ["nvme", "sata"]),
      displaces: fc.subarray(["SATA_1", "SATA_2", "SATA_3"]),
      bySata: fc.subarray(["SATA_1", "SATA_2", "SATA_3"]),
    });
    type Slot = typeof slot extends fc.Arbitrary<infer T> ? T : never;
    const off = (s: Slot, d: Speech) => [...s.displaces, ...(d === "sata" ? s.bySata : [])];
    /** Every way to put the drives into slots: how many are in, how many SATA ports are left. */
    const every = (slots: Slot[], drives: Speech[], taken: ReadonlySet<number>, gone: ReadonlySet<string>): [number, number][] => {
      const [d, ...rest] = drives;
      if (!d) return [[taken.size, 3 - gone.size]];
      return [
        ...every(slots, rest, taken, gone),
        ...slots.flatMap((s, i) =>
          !taken.has(i) && (s.protocols === undefined || s.protocols.includes(d))
            ? every(slots, rest, new Set([...taken, i]), new Set([...gone, ...off(s, d)]))
            : [],
        ),
      ];
    };
    const board = shelf.find((t) => t.kind === "board" && t.ports.some((p) => p.family === "m2"));
    const [m2, port] = ["m2", "sata-data"].map((f) => board?.ports.find((p) => p.family === f));
    if (!m2 || !port) throw new Error("a board with slots and ports");
    fc.assert(
      fc.property(fc.array(slot, { maxLength: 4 }), fc.array(fc.constantFrom<Speech>("nvme", "sata"), { maxLength: 4 }), (slots, drives) => {
        const edit = (t: PartType): PartType => {
          if (t.kind !== "board") return t;
          const own = t.ports.filter((p) => p.family !== "m2" && p.family !== "sata-data");
          const made = slots.map((s, i) => ({
            ...m2,
            id: `M_${i}`,
            protocols: s.protocols,
            displaces: s.displaces,
            displacesWhen: s.bySata.length > 0 ? [{ protocol: "sata" as const, ports: s.bySata }] : undefined,
          }));
          return { ...t, ports: [...own, ...made, ...[1, 2, 3].map((n) => ({ ...port, id: `SATA_${n}`, displaces: [] }))] };
        };
        const types: Record<Speech, string> = { nvme: "pebblestone-swift-500", sata: "pebblestone-stone-500" };
        const m2s = drives.map((d, i) => part(`m2-${i}`, types[d]));
        const hdds = [1, 2, 3].map((n) => part(`hdd-x${n}`, "pebblestone-vault-4000"));
        const found = of(changed("fs-1041", { drop: /^(nvme|ssd|hdd)/, add: [...m2s, ...hdds], edit }), "drive-ports").map((f) => f.message);
        const ends = every(slots, drives, new Set(), new Set());
        const most = Math.max(...ends.map(([n]) => n));
        const left = Math.max(...ends.filter(([n]) => n === most).map(([, n]) => n));
        expect(found.some((m) => /M\.2 drives?( for (NVMe|SATA))?, /.test(m))).toBe(most < drives.length);
        expect(found.some((m) => /SATA drives, /.test(m))).toBe(left < 3);
        if (left < 3)
          expect(found.join()).toContain(
            `3 SATA drives, ${left} of 3 SATA ports: M.2 drives switch ${3 - left === 1 ? "one" : 3 - left} off wherever they go.`,
          );
      }),
      cases(150, 20261128),
    );
  });
  it("forty slots that each switch a port off are judged at once", () => {
    const drives = Array.from({ length: 20 }, (_, n) => part(`nvme-x${n}`, "pebblestone-swift-500"));
    const edit = (t: PartType): PartType => {
      const slot = t.kind === "board" ? t.ports.find((p) => p.family === "m2") : undefined;
      const sata = t.kind === "board" ? t.ports.find((p) => p.family === "sata-data") : undefined;
      if (!slot || !sata) return t;
      const many = Array.from({ length: 40 }, (_, n) => [
        { ...slot, id: `M2_x${n}`, displaces: [`SATA_x${n}`] },
        { ...sata, id: `SATA_x${n}`, displaces: [] },
      ]).flat();
      return { ...t, ports: [...t.ports.filter((p) => p.family !== "m2" && p.family !== "sata-data"), ...many] };
    };
    const began = processorMs();
    const found = of(changed("fs-1041", { add: drives, edit }), "drive-ports").map((f) => f.message);
    expect(processorMs() - began).toBeLessThan(3000);
    expect(found.filter((m) => /M\.2|SATA/.test(m))).toEqual([]);
  });
  it("unlike modules are told by their speed, those of another generation by what does not go in", () => {
    const unlike = (type: string) => changed("fs-1041", { swap: { "mem-2": type } });
    const own = demo("fs-1041").graph.parts.get("mem-2")?.type;
    const modules = shelf.filter((t) => t.kind === "memory" && t.id !== own?.id);
    const other = modules.find((t) => t.leads[0]?.key === own?.leads[0]?.key);
    const old = modules.find((t) => t.leads[0]?.key !== own?.leads[0]?.key);
    expect(of(unlike(other?.id ?? ""), "memory-pair")).toHaveLength(1);
    expect(of(unlike(old?.id ?? ""), "memory-pair")).toEqual([]);
    expect(of(unlike(old?.id ?? ""), "memory-type")).toMatchObject([{ severity: "stop" }]);
  });
  it("three modules do not fill the channels evenly, and none of them is said to stay empty", () => {
    const three = of(changed("fs-1041", { add: [part("mem-3", demo("fs-1041").graph.parts.get("mem-2")?.type.id ?? "")] }), "memory-pair");
    expect(three.map((f) => f.message)).toEqual([expect.stringMatching(/^3 modules do not fill the channels evenly\./)]);
  });
  it("an upgrade is not said to have watts left of a supply that is too small already", () => {
    const small = of(changed("fs-1041", { swap: { supply: "mossgate-500p" }, wishes: { upgrade: "A card", upgradeW: 300 } }), "supply-usual");
    expect(small.map((f) => f.message)).toEqual([expect.stringMatching(/the machine draws \d+ W more than the supply's 500 W already\.$/)]);
  });
  it("M.2 drives that switch SATA ports off leave fewer for the drives", () => {
    const list = of(
      changed("fs-1041", {
        add: [
          ...[2, 3].map((n) => part(`nvme-${n}`, "pebblestone-swift-500")),
          part("hdd-2", "pebblestone-vault-4000"),
          part("hdd-3", "pebblestone-vault-4000"),
        ],
      }),
      "drive-ports",
    );
    const sata = list.find((f) => /SATA drives/.test(f.message));
    expect(sata?.message).toMatch(/M\.2 drives switch .* off/);
  });
  it("a fan turned against its neighbours is named, and turning it round is the way out", () => {
    const { build, types } = demo("fs-1041");
    const parts = build.parts.map((p) => (p.id === "fan-front-2" ? { ...p, blows: "out" as const } : p));
    const graph = buildGraph({ ...build, parts, connections: [] }, types);
    const f = of(withTriedWays(graph, checkParts(graph)), "air-way");
    expect(f).toHaveLength(1);
    expect(f[0]).toMatchObject({
      ends: ["fan-front-2"],
      ways: [expect.stringMatching(/^Turned round, by the arrow on its frame: \d+ m³\/h in, \d+ m³\/h out\.$/)],
    });
  });
  it("what stops says what happens when ignored, or what is wrong is plain; a swap names a part of the build", () => {
    for (const f of changed("fs-1041", { swap: { cpu: "quillane-w24", supply: "mossgate-500p", cooler: "coldwharf-420" } })) {
      if (f.remedy?.kind === "swap") expect(demo("fs-1041").build.parts.map((p) => p.id)).toContain(f.remedy.part);
    }
  });
});

describe("the budget", () => {
  const priced = (prices: Record<string, number>, budget: number | undefined, reused: string[] = []) => {
    const { build, types } = demo("fs-1041");
    const parts = build.parts.map((p) => ({
      ...p,
      ...(prices[p.id] === undefined ? {} : { price: prices[p.id] as number }),
      ...(reused.includes(p.id) ? { reused: true } : {}),
    }));
    const wishes = { ...build.wishes };
    if (budget === undefined) delete wishes.budget;
    else wishes.budget = budget;
    return checkParts(buildGraph({ ...build, wishes, parts, connections: [] }, types)).filter((f) => f.rule === "budget");
  };
  it("a cent over warns with the dearest parts; the budget itself does not", () => {
    const prices = { board: 199.99, cpu: 300.02, cooler: 100 };
    expect(priced(prices, 600)[0]?.message).toBe(
      "The 3 parts with a price cost 600.01, the budget is 600.00. Dearest: Quillane 12-core 300.02, Heron T40 199.99, Liquid cooler 100.00.",
    );
    expect(priced(prices, 600.01)).toEqual([]);
    expect(priced(prices, undefined)).toEqual([]);
  });
  it("what the client brought costs nothing", () => {
    expect(priced({ board: 200, cpu: 500 }, 600, ["cpu"])).toEqual([]);
  });
});

describe("the client's monitors and wireless", () => {
  const make = (monitors: object[], more: object = {}) =>
    given(
      [
        {
          id: "card",
          kind: "card",
          maker: "",
          name: "card",
          ratings: {
            hasGraphics: true,
            outputs: [
              { socket: "HDMI", count: 1, widthPx: 3840, heightPx: 2160, hz: 60 },
              { socket: "DisplayPort", count: 2, widthPx: 3840, heightPx: 2160, hz: 144 },
            ],
            ...more,
          },
        },
        { id: "b", kind: "board", maker: "", name: "b" },
      ],
      [
        { id: "board", type: "b" },
        { id: "card", type: "card" },
      ],
      { wishes: { monitors, wireless: true } },
    ).graph;
  const screen = (count: number, socket: string, hz = 60) => ({ count, widthPx: 3840, heightPx: 2160, hz, socket });
  const said = (g: ReturnType<typeof make>, rule: string) => checkParts(g).filter((f) => f.rule === rule);
  it("each its own socket where there is one, an adapter else; more monitors than outputs stop", () => {
    expect(said(make([screen(1, "HDMI"), screen(2, "DisplayPort", 120)]), "monitors")).toEqual([]);
    const two = make([screen(2, "HDMI")]);
    expect(said(two, "monitors")).toEqual([]);
    expect(orderList(two).find((i) => i.id.startsWith("display:"))).toMatchObject({ count: 1, what: expect.stringContaining("DisplayPort to HDMI") });
    expect(said(make([screen(4, "DisplayPort")]), "monitors")[0]).toMatchObject({ severity: "stop", message: expect.stringContaining("no output") });
  });
  it("an output that is too slow warns with both figures", () => {
    const f = said(make([screen(1, "HDMI", 120), screen(2, "DisplayPort", 144)]), "monitors");
    expect(f.map((x) => [x.severity, x.message])).toEqual([
      ["warn", expect.stringMatching(/at 120 Hz \(HDMI\); the HDMI output of card gives 3840 × 2160 at 60 Hz/)],
    ]);
  });
  it("wireless wanted and nowhere: a warning; on a card it is there", () => {
    expect(said(make([]), "wireless")[0]?.severity).toBe("warn");
    expect(said(make([], { wireless: true }), "wireless")).toEqual([]);
  });
});

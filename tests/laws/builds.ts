import fc from "fast-check";
import { type Given, given, T } from "../fixtures/small";

type Json = Record<string, unknown>;

/** What a generated build is made of: all that makes wiring hard, in small amounts. Shrinks towards nothing. */
export interface Recipe {
  headers: { limitA: number; control: "both" | "pwm" | "voltage" }[];
  cpuOpt: boolean;
  pumpHeader: boolean;
  cooler: "tower" | "twin" | "liquid" | "self";
  fans: { at: number; kind: number }[];
  radiatorFans: number;
  hubs: { kind: "fan" | "knob" | "light" | "light-button" | "cascade" }[];
  /** Hubs whose supply and whose ports give little. */
  weakHubs: boolean;
  lights: number[];
  lightHeaders: number;
  ownSplitters: number;
  accessories: { split2: number; split3: number; extension: number; hub: number; lightHub: number; adapter: number; powerExt: number };
  cpu: { watts: number; sockets: 0 | 1 | 2; plugs: number };
  card: { kind: "none" | "one-8" | "two-8" | "sixteen"; watts: number };
  secondCard: boolean;
  pigtails: number;
  singles: number;
  captive: boolean;
  drives: number;
  m2: { protocol: "nvme" | "sata" }[];
  displaces: "never" | "always" | "by-protocol";
  sharedLanes: boolean;
  usb: number;
  /** Length of the leads of the front panel. */
  frontMm: number;
  place: {
    /** Where the supply hangs: on the floor, over the board's lower half, beside the board behind the tray. */
    supply: "floor" | "over-board" | "behind";
    /** Room behind the tray, mm; undefined: nobody has measured. */
    behindMm: 0 | 25 | undefined;
    /** Radiators beyond the CPU's, each at a place of its own with fans of its own. */
    radiators: number;
    network: boolean;
    /** The card on the case's own stand before the slots. */
    vertical: boolean;
  };
  policy: { cooling: string; caseFans: string; graphicsCables: string; secondCpuPlug: string; mayOrder: boolean };
}

export const recipe: fc.Arbitrary<Recipe> = fc.record({
  headers: fc.array(
    fc.record({ limitA: fc.constantFrom(1, 1, 2), control: fc.constantFrom("both" as const, "both" as const, "pwm" as const, "voltage" as const) }),
    { minLength: 1, maxLength: 6 },
  ),
  cpuOpt: fc.boolean(),
  pumpHeader: fc.boolean(),
  cooler: fc.constantFrom("tower" as const, "twin" as const, "liquid" as const, "liquid" as const, "self" as const),
  fans: fc.array(fc.record({ at: fc.nat(4), kind: fc.nat(5) }), { maxLength: 6 }),
  radiatorFans: fc.nat(3),
  hubs: fc.array(
    fc.record({ kind: fc.constantFrom("fan" as const, "knob" as const, "light" as const, "light-button" as const, "cascade" as const) }),
    { maxLength: 2 },
  ),
  weakHubs: fc.constantFrom(false, false, true),
  lights: fc.array(fc.nat(4), { maxLength: 3 }),
  lightHeaders: fc.nat(2),
  ownSplitters: fc.constantFrom(0, 0, 1),
  accessories: fc.record({
    split2: fc.nat(2),
    split3: fc.nat(1),
    extension: fc.nat(1),
    hub: fc.nat(1),
    lightHub: fc.nat(1),
    adapter: fc.nat(1),
    powerExt: fc.nat(1),
  }),
  cpu: fc.record({
    watts: fc.constantFrom(65, 150, 280, 420),
    sockets: fc.constantFrom(0 as const, 1 as const, 2 as const),
    plugs: fc.constantFrom(1, 2),
  }),
  card: fc.record({
    kind: fc.constantFrom("none" as const, "one-8" as const, "two-8" as const, "sixteen" as const),
    watts: fc.constantFrom(120, 210, 280, 340),
  }),
  secondCard: fc.constantFrom(false, false, true),
  pigtails: fc.nat(2),
  singles: fc.nat(1),
  captive: fc.boolean(),
  drives: fc.nat(3),
  m2: fc.array(fc.record({ protocol: fc.constantFrom("nvme" as const, "sata" as const) }), { maxLength: 2 }),
  displaces: fc.constantFrom("never" as const, "always" as const, "by-protocol" as const),
  sharedLanes: fc.boolean(),
  usb: fc.nat(3),
  frontMm: fc.constantFrom(700, 700, 700, 380, 250),
  place: fc.record({
    supply: fc.constantFrom("floor" as const, "floor" as const, "over-board" as const, "behind" as const),
    behindMm: fc.constantFrom(25 as const, undefined, 0 as const),
    radiators: fc.constantFrom(0, 0, 1, 2),
    network: fc.constantFrom(false, false, true),
    vertical: fc.constantFrom(false, false, true),
  }),
  policy: fc.record({
    cooling: fc.constantFrom("fans-follow-cpu", "pump-first", "self-controlled"),
    caseFans: fc.constantFrom("group-by-place", "group-by-place", "own-header", "hub"),
    graphicsCables: fc.constantFrom("by-draw", "one-each"),
    secondCpuPlug: fc.constantFrom("by-draw", "always"),
    mayOrder: fc.boolean(),
  }),
});

const REGIONS = ["front", "top", "rear", "bottom", "side"] as const;
const at = (xMm: number, yMm: number) => ({ xMm, yMm });
const times = <X>(n: number, make: (i: number) => X): X[] => Array.from({ length: n }, (_, i) => make(i));

const fanTypes: Json[] = [
  T.fan("fan-pwm", 0.2, { control: "both" }),
  T.fan("fan-strong", 0.55),
  T.fan("fan-3w", 0.15, { family: "fan-3", control: "voltage" }),
  T.fan("fan-short", 0.2, { lengthMm: 330 }),
  chainFan("fan-chain", false),
  chainFan("fan-own", true),
];

function chainFan(id: string, own: boolean): Json {
  const fan = T.fan(id, 0.15);
  return { ...fan, ports: [T.port("out", "fan-4", "out", "case-fan", { fedBy: "lead", control: "both", ...(own ? { ownKindOnly: true } : {}) })] };
}

function board(r: Recipe): Json {
  const header = (id: string, role: string, x: number, y: number, limitA: number, control: string) =>
    T.header(id, 0, { role, at: at(x, y), control, limit: { currentA: limitA } });
  return T.board(
    "board",
    [
      header("CPU_FAN", "cpu-fan", 150, 6, 1, "both"),
      ...(r.cpuOpt ? [header("CPU_OPT", "cpu-optional-fan", 170, 6, 1, "both")] : []),
      ...(r.pumpHeader ? [header("PUMP", "pump", 200, 6, 2, "both")] : []),
      ...r.headers.map((h, i) => header(`SYS_FAN${i + 1}`, "case-fan", i % 2 ? 10 : 236, 30 + 35 * i, h.limitA, h.control)),
      ...times(r.lightHeaders, (i) =>
        T.port(`LED${i + 1}`, "light-5v", "out", "light", { at: at(20 + 160 * i, 238), limit: { currentA: 3, leds: 90 } }),
      ),
      T.port("LED12", "light-12v", "out", "light", { at: at(60, 238), limit: { currentA: 3 } }),
      ...times(2, (i) => T.port(`USB2_${i + 1}`, "usb2", "out", "usb", { at: at(120 + 40 * i, 238) })),
      T.port("PANEL", "panel-block", "out", "panel", { at: at(215, 238) }),
      T.port("AUDIO", "hd-audio", "out", "audio", { at: at(8, 238) }),
      T.port("ATX", "atx-24", "in", "board-power", { at: at(238, 90), need: "mandatory", load: { powerW: 60 } }),
      T.port("CPU1", "cpu-8", "in", "cpu-power", { at: at(16, 6), need: "mandatory", rank: 0 }),
      ...(r.cpu.sockets > 0
        ? [T.port("CPU2", r.cpu.sockets === 1 ? "cpu-4" : "cpu-8", "in", "cpu-power", { at: at(38, 6), need: "optional", rank: 1 })]
        : []),
      T.port("CPU", "cpu-socket", "out", "cpu", { key: "S1", at: at(120, 60) }),
      ...times(4, (i) => T.port(`DIMM${i + 1}`, "memory-slot", "out", "memory", { key: "D5", at: at(170 + 8 * i, 60), rank: [1, 3, 0, 2][i] ?? 0 })),
      T.port("X16", "pcie-slot", "out", "expansion", {
        at: at(60, 150),
        link: { generation: 4, lanes: 16 },
        ...(r.sharedLanes ? { sharesLanes: [{ with: "X8", lanes: 8 }] } : {}),
      }),
      T.port("X8", "pcie-slot", "out", "expansion", { at: at(60, 190), rank: 1, link: { generation: 3, lanes: 8 } }),
      ...times(2, (i) =>
        T.port(`M2_${i + 1}`, "m2", "out", "drive-data", {
          key: "m",
          at: at(100, 130 + 80 * i),
          rank: i,
          link: { generation: 4 - i, lanes: 4 },
          ...(r.displaces === "always" && i === 1 ? { displaces: ["SATA1", "SATA2"] } : {}),
          ...(r.displaces === "by-protocol" && i === 1
            ? {
                displacesWhen: [
                  { protocol: "sata", ports: ["SATA1"] },
                  { protocol: "nvme", ports: ["SATA3"] },
                ],
              }
            : {}),
        }),
      ),
      ...times(3, (i) => T.port(`SATA${i + 1}`, "sata-data", "out", "drive-data", { at: at(236, 150 + 10 * i) })),
    ],
    {
      cables: [
        {
          id: "data",
          label: "SATA data",
          count: 3,
          ends: [
            { id: "a", family: "sata-data", atMm: 0 },
            { id: "b", family: "sata-data", atMm: 900 },
          ],
        },
      ],
    },
  );
}

const cooler = (r: Recipe): Json => {
  const base = { id: "cooler", kind: "cooler", maker: "", name: "cooler" };
  const fan = (id: string, need: string) =>
    T.lead(id, "fan-4", "cpu-fan", 400, { load: { currentA: 0.2 }, need, control: "pwm", reportsSpeed: true });
  if (r.cooler === "tower") return { ...base, leads: [fan("fan", "mandatory")] };
  if (r.cooler === "twin") return { ...base, leads: [fan("fan-1", "mandatory"), fan("fan-2", "wanted")] };
  if (r.cooler === "liquid")
    return { ...base, leads: [T.lead("pump", "fan-4", "pump", 600, { load: { currentA: 0.3 }, control: "both", reportsSpeed: true })] };
  return {
    ...base,
    ports: [
      T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 8 }, limit: { currentA: 2 } }),
      ...times(3, (i) =>
        T.port(`f-${i + 1}`, "fan-4", "out", "case-fan", { fedBy: "power", control: "pwm", ...(i === 0 ? { speedTo: "speed" } : {}) }),
      ),
    ],
    leads: [
      T.lead("speed", "fan-4", "cooler-speed", 600, { need: "mandatory", reportsSpeed: true, control: "none" }),
      T.lead("usb", "usb2", "usb", 700, { usbPorts: 1 }),
    ],
  };
};

const lightHub = (id: string, button: boolean, weak: boolean): Json => ({
  id,
  kind: "hub",
  maker: "",
  name: id,
  ports: [
    T.port("power", "sata-power", "in", "device-power", { need: "mandatory", load: { powerW: 1 }, limit: { currentA: weak ? 1.5 : 4.5 } }),
    ...times(4, (i) =>
      T.port(`l-${i + 1}`, "light-5v", "out", "light", { fedBy: "power", controlledBy: "in", ...(weak ? { limit: { currentA: 0.9 } } : {}) }),
    ),
  ],
  leads: [T.lead("in", "light-5v", "light-control", 700, { load: { currentA: 0.02 }, ...(button ? { ownControl: "button" } : {}) })],
});

const knobHub = (id: string): Json => {
  const hub = T.hub(id, 3, 3) as { leads: Json[] };
  return { ...hub, leads: hub.leads.map((l) => ({ ...l, ownControl: "knob" })) };
};

/** A hub that takes its current from the board's header: everything on it counts there. */
const cascade: Json = {
  id: "cascade",
  kind: "hub",
  maker: "",
  name: "cascade",
  ports: times(3, (i) =>
    T.port(`c-${i + 1}`, "fan-4", "out", "case-fan", { fedBy: "in", controlledBy: "in", control: "both", ...(i === 0 ? { speedTo: "in" } : {}) }),
  ),
  leads: [T.lead("in", "fan-4", "splitter-in", 500, { need: "optional", control: "both" })],
};

const lightTypes: Json[] = [
  T.strip("strip-20", 20, 1.2, true),
  T.strip("strip-45", 45, 2.7, false),
  // Its data names LEDs and no current.
  T.strip("ring-12", 12, 0, true),
  { ...T.strip("strip-own", 10, 0.6, true), ports: [T.port("out", "light-5v", "out", "light", { fedBy: "lead", ownKindOnly: true })] },
  T.strip("strip-12v", 18, 0.6, false, "light-12v"),
];

function card(id: string, kind: Recipe["card"]["kind"], watts: number): Json {
  const sockets =
    kind === "one-8"
      ? [T.port("g-1", "gfx-8", "in", "graphics-power", { need: "mandatory" })]
      : kind === "two-8"
        ? [
            T.port("g-1", "gfx-8", "in", "graphics-power", { need: "mandatory" }),
            T.port("g-2", "gfx-8", "in", "graphics-power", { need: "mandatory" }),
          ]
        : [T.port("g-1", "gfx-16", "in", "graphics-power", { need: "mandatory" })];
  return {
    id,
    kind: "card",
    maker: "",
    name: id,
    ports: sockets,
    leads: [T.lead("seat", "pcie-slot", "seat", 0, { link: { generation: 4, lanes: 16, leastLanes: 4 } })],
    ratings: { powerW: watts, hasGraphics: true },
  };
}

function supply(r: Recipe): Json {
  const gfx = { family: "gfx-6+2" };
  const out = (n: number, key: string) => times(n, () => key);
  const cables: Json[] = [
    {
      id: "atx",
      label: "24-pin",
      count: 1,
      ...(r.captive ? { captive: true } : { outlets: ["atx"] }),
      ends: [{ id: "p", family: "atx-24", atMm: 900 }, ...(r.captive ? [{ id: "tail", family: "cpu-4", atMm: 900 }] : [])],
    },
    { id: "eps", label: "CPU", count: r.cpu.plugs, outlets: ["cpu"], ends: [{ id: "p", family: "cpu-4+4", atMm: 900 }] },
    {
      id: "sata",
      label: "SATA",
      count: 3,
      outlets: ["peri"],
      ends: times(3, (i) => ({ id: `s${i + 1}`, family: "sata-power", atMm: 700 + 150 * i })),
    },
    ...(r.pigtails > 0
      ? [
          {
            id: "pig",
            label: "graphics, two plugs",
            count: r.pigtails,
            outlets: ["cpu"],
            ends: [
              { id: "g1", ...gfx, atMm: 800 },
              { id: "g2", ...gfx, atMm: 950 },
            ],
          },
        ]
      : []),
    ...(r.singles > 0 ? [{ id: "one", label: "graphics", count: r.singles, outlets: ["cpu"], ends: [{ id: "g1", ...gfx, atMm: 800 }] }] : []),
    ...(r.card.kind === "sixteen" && r.singles > 0
      ? [{ id: "g16", label: "16-pin", count: 1, outlets: ["g16"], ends: [{ id: "g1", family: "gfx-16", atMm: 800, limit: { sense: "gnd open" } }] }]
      : []),
  ];
  return {
    ...T.supply("supply", cables, [...out(1, "atx"), ...out(2 + r.pigtails + r.singles, "cpu"), ...out(3, "peri"), "g16"]),
    ratings: { powerW: 1600 },
  };
}

/** A radiator of a loop: three fans of 120, no head on the CPU. */
const radiator: Json = {
  id: "radiator",
  kind: "cooler",
  maker: "",
  name: "radiator",
  leads: [T.lead("pump", "fan-4", "pump", 500, { load: { currentA: 0.3 }, need: "mandatory", control: "both", reportsSpeed: true })],
  body: { heightMm: 50, radiator: { fanMm: 120, fans: 3, lengthMm: 394, widthMm: 120, thicknessMm: 27 } },
};
/** Where more radiators hang: beside everything else that the case takes. */
const LOOPS = ["wall", "shelf"] as const;

const powerExtension = (id: string, socket: string, plug: string, role: string): Json => ({
  id,
  kind: "extension",
  maker: "",
  name: id,
  ports: [T.port("in", socket, "in", role, { need: "optional", tailMm: 300 })],
  leads: [T.lead("out", plug, "power-out", 300, { flow: "out", need: "optional" })],
});

/** The build of a recipe: sound by construction, whatever the recipe. */
export function build(r: Recipe): Given {
  const mounts = [
    ...REGIONS.flatMap((region, i) =>
      times(4, (k) =>
        T.mount(
          `${region}-${k}`,
          region,
          [430, 60 + 90 * k, 10, 60 + 90 * k, 400][i] ?? 0,
          [60 + 90 * k, 10, 90 + 60 * k, 430, 120 + 60 * k][i] ?? 0,
        ),
      ),
    ),
    T.mount("hub", "behind-tray", 280, 200),
    r.place.supply === "over-board"
      ? { ...T.mount("bay", "top", 150, 120), offMm: 110 }
      : T.mount("bay", r.place.supply === "behind" ? "behind-tray" : "bottom", 60, 400),
    ...LOOPS.flatMap((l, i) =>
      times(3, (k) => ({ ...T.mount(`${l}-${k}`, i ? "bottom" : "front", i ? 100 + 122 * k : 620, i ? 640 : 70 + 122 * k), sizeMm: 120 })),
    ),
  ];
  const shell = {
    ...T.case("case", mounts, {
      cutouts: [
        { id: "c1", label: "edge", at: at(290, 160) },
        { id: "c2", label: "bottom", at: at(150, 300) },
      ],
      ...(r.place.behindMm === undefined ? {} : { behindTrayMm: r.place.behindMm }),
      ...(r.place.vertical ? { vertical: { at: at(150, 330), slots: 3, thicknessMm: 70 } } : {}),
      radiatorPlaces: LOOPS.map((l, i) => ({
        id: l,
        label: l,
        region: i ? "bottom" : "front",
        mounts: times(3, (k) => `${l}-${k}`),
        fanMm: [120],
        maxLengthMm: 420,
        maxThicknessMm: 80,
      })),
    }),
    leads: [
      T.lead("power-switch", "panel-loose", "panel", r.frontMm, { positions: ["power switch", "power switch ground"], need: "mandatory" }),
      T.lead("power-led", "panel-loose", "panel", r.frontMm, { positions: ["power LED +", "power LED -"] }),
      T.lead("reset", "panel-loose", "panel", r.frontMm, { positions: ["reset", "reset ground"], need: "optional" }),
      T.lead("audio", "hd-audio", "audio", r.frontMm),
      ...times(r.usb, (i) => T.lead(`usb-${i}`, "usb2", "usb", r.frontMm, { usbPorts: (i % 2) + 1 })),
    ],
  };
  const types: Json[] = [
    shell,
    board(r),
    supply(r),
    cooler(r),
    {
      id: "cpu",
      kind: "cpu",
      maker: "",
      name: "cpu",
      leads: [T.lead("seat", "cpu-socket", "seat", 0, { key: "S1", need: "mandatory" })],
      ratings: { powerW: r.cpu.watts, hasGraphics: true },
    },
    {
      id: "mem",
      kind: "memory",
      maker: "",
      name: "mem",
      leads: [T.lead("seat", "memory-slot", "seat", 0, { key: "D5", need: "mandatory" })],
      ratings: { sizeGb: 16, defaultMts: 4800, profileMts: 4800 },
    },
    ...fanTypes,
    T.fan("rad-fan", 0.25, { control: "pwm" }),
    T.hub("fan-hub", 3, r.weakHubs ? 1 : 3),
    knobHub("knob-hub"),
    lightHub("light-hub", false, r.weakHubs),
    lightHub("light-hub-button", true, r.weakHubs),
    cascade,
    ...lightTypes,
    T.splitter("split-2", 2),
    T.splitter("split-3", 3),
    { ...T.splitter("ext", 1), kind: "extension", leads: [T.lead("in", "fan-4", "splitter-in", 400, { need: "optional", control: "both" })] },
    card("card", r.card.kind, r.card.watts),
    card("card-2", "one-8", 120),
    {
      id: "adapter",
      kind: "adapter",
      maker: "",
      name: "adapter",
      ports: times(2, (i) => T.port(`in-${i + 1}`, "gfx-8", "in", "graphics-power", { need: "optional" })),
      leads: [T.lead("out", "gfx-16", "power-out", 150, { flow: "out", need: "optional" })],
    },
    radiator,
    powerExtension("ext-24", "atx-24", "atx-24", "board-power"),
    powerExtension("ext-cpu", "cpu-8", "cpu-4+4", "cpu-power"),
    powerExtension("ext-gfx", "gfx-8", "gfx-6+2", "graphics-power"),
    {
      id: "network",
      kind: "card",
      maker: "",
      name: "network",
      leads: [T.lead("seat", "pcie-slot", "seat", 0, { link: { generation: 3, lanes: 8, leastLanes: 1 } })],
      body: { widthMm: 150, slots: 1, heightMm: 112 },
      ratings: { powerW: 15 },
    },
    T.drive("drive", 10),
    ...(["nvme", "sata"] as const).map((protocol) => ({
      id: `m2-${protocol}`,
      kind: "drive",
      maker: "",
      name: `m2 ${protocol}`,
      leads: [T.lead("edge", "m2", "seat", 0, { key: "m", protocol })],
      ratings: { readMBs: protocol === "nvme" ? 5000 : 550 },
    })),
  ];
  const seats = new Map<number, number>();
  const seat = (region: number) => {
    const n = seats.get(region) ?? 0;
    seats.set(region, n + 1);
    return `${REGIONS[region]}-${n % 4}`;
  };
  const HUB = { fan: "fan-hub", knob: "knob-hub", light: "light-hub", "light-button": "light-hub-button", cascade: "cascade" };
  const FANS = ["fan-pwm", "fan-strong", "fan-3w", "fan-short", "fan-chain", "fan-own"];
  const LIGHTS = ["strip-20", "strip-45", "ring-12", "strip-own", "strip-12v"];
  const parts: Json[] = [
    { id: "case", type: "case" },
    { id: "board", type: "board" },
    { id: "supply", type: "supply", mount: "bay" },
    { id: "cpu", type: "cpu" },
    { id: "mem-1", type: "mem" },
    { id: "mem-2", type: "mem" },
    { id: "cooler", type: "cooler" },
    ...times(r.cooler === "liquid" || r.cooler === "self" ? r.radiatorFans : 0, (i) => ({
      id: `rad-fan-${i + 1}`,
      type: "rad-fan",
      mount: seat(1),
      zone: "radiator",
    })),
    ...r.fans.map((f, i) => ({ id: `fan-${i + 1}`, type: FANS[f.kind] ?? "fan-pwm", mount: seat(f.at) })),
    ...r.hubs.map((h, i) => ({ id: `hub-${i + 1}`, type: HUB[h.kind], mount: "hub" })),
    ...r.lights.map((l, i) => ({ id: `light-${i + 1}`, type: LIGHTS[l] ?? "strip-20", mount: seat(l % 5) })),
    ...times(r.ownSplitters, (i) => ({ id: `own-split-${i + 1}`, type: "split-2" })),
    ...(r.card.kind === "none" ? [] : [{ id: "card", type: "card", ...(r.place.vertical ? { vertical: true } : {}) }]),
    ...(r.secondCard && r.card.kind !== "none" ? [{ id: "a-card", type: "card-2" }] : []),
    ...(r.place.network ? [{ id: "network", type: "network" }] : []),
    ...LOOPS.slice(0, r.place.radiators).flatMap((l) => [
      { id: `rad-${l}`, type: "radiator", mount: l, cools: "loop" },
      ...times(3, (k) => ({ id: `${l}-fan-${k + 1}`, type: "rad-fan", mount: `${l}-${k}` })),
    ]),
    ...times(r.drives, (i) => ({ id: `drive-${i + 1}`, type: "drive", mount: seat(3) })),
    ...r.m2.map((m, i) => ({ id: `ssd-${i + 1}`, type: `m2-${m.protocol}` })),
  ];
  const { accessories: a } = r;
  return given(types, parts, {
    policy: r.policy,
    settings: { memoryProfile: true },
    accessories: [
      { type: "split-2", count: a.split2 },
      { type: "split-3", count: a.split3 },
      { type: "ext", count: a.extension },
      { type: "fan-hub", count: a.hub },
      { type: "light-hub-button", count: a.lightHub },
      { type: "adapter", count: a.adapter },
      ...["ext-24", "ext-cpu", "ext-gfx"].map((type) => ({ type, count: a.powerExt })),
    ],
  });
}

import { between, is, n, others, s, type TypicalKind, times } from "./kind";

/** Cases by the largest board that they take (common practice: the middle of what is sold). Lengths in mm. */
interface Shape {
  w: number;
  h: number;
  boardAt: [number, number];
  front: number;
  top: number;
  cardMm: number;
  coolerMm: number;
  supplyMm: number;
  slots: number;
  forms: ("ATX" | "microATX" | "FlexATX" | "Mini-ITX" | "E-ATX")[];
  holes: readonly (readonly [string, number, number])[];
  boardW: number;
  boardH: number;
}
const HOLES: readonly (readonly [string, number, number])[] = [
  ["A", 10, 288],
  ["C", 10, 6],
  ["F", 165, 6],
  ["G", 165, 288],
  ["H", 10, 163],
  ["J", 165, 163],
  ["K", 237, 288],
  ["L", 237, 6],
  ["M", 237, 163],
];
const MICRO: readonly (readonly [string, number, number])[] = [
  ["B", 10, 231],
  ["C", 10, 6],
  ["F", 165, 6],
  ["H", 10, 163],
  ["J", 165, 163],
  ["L", 237, 6],
  ["M", 237, 163],
  ["R", 237, 231],
  ["S", 165, 231],
];
const ITX: readonly (readonly [string, number, number])[] = [
  ["C", 10, 6],
  ["F", 165, 6],
  ["H", 10, 163],
  ["J", 165, 163],
];
const SHAPE: Readonly<Record<string, Shape>> = {
  ATX: {
    w: 460,
    h: 460,
    boardAt: [25, 45],
    front: 3,
    top: 2,
    cardMm: 360,
    coolerMm: 165,
    supplyMm: 200,
    slots: 7,
    forms: ["ATX", "microATX", "FlexATX", "Mini-ITX"],
    holes: HOLES,
    boardW: 244,
    boardH: 305,
  },
  "E-ATX": {
    w: 530,
    h: 520,
    boardAt: [28, 60],
    front: 3,
    top: 3,
    cardMm: 400,
    coolerMm: 180,
    supplyMm: 220,
    slots: 8,
    forms: ["E-ATX", "ATX", "microATX", "FlexATX", "Mini-ITX"],
    holes: HOLES,
    boardW: 277,
    boardH: 305,
  },
  microATX: {
    w: 400,
    h: 390,
    boardAt: [22, 42],
    front: 2,
    top: 2,
    cardMm: 320,
    coolerMm: 160,
    supplyMm: 170,
    slots: 4,
    forms: ["microATX", "FlexATX", "Mini-ITX"],
    holes: MICRO,
    boardW: 244,
    boardH: 244,
  },
  "Mini-ITX": {
    w: 340,
    h: 300,
    boardAt: [18, 32],
    front: 1,
    top: 1,
    cardMm: 310,
    coolerMm: 130,
    supplyMm: 130,
    slots: 2,
    forms: ["Mini-ITX"],
    holes: ITX,
    boardW: 170,
    boardH: 170,
  },
};
const shapeOf = (form: string): Shape => (SHAPE[form] ?? SHAPE.ATX) as Shape;

export const CASE: TypicalKind = {
  along: ["screws by bag", "spare standoffs", "cable ties", "spare drive brackets", "an adapter for the audio plug"],
  groups: {
    Rooms: ["cardMm", "coolerMm", "supplyMm", "behindMm"],
    Front: ["front", "frontMm", "frontC", "front3"],
    Top: ["top", "topMm", "topThickMm"],
    Inside: ["overMm", "shroud", "disks", "trays", "ownFans"],
  },
  figures: [
    { id: "form", word: "largest board", options: Object.keys(SHAPE), by: "label", range: () => [], ask: (x) => `Which boards does ${x} take?` },
    {
      id: "cardMm",
      word: "room for a card",
      unit: "mm",
      by: "manual",
      range: (v) => between(v, "cardMm", n(v, "cardMm") - 50, n(v, "cardMm") + 40),
      ask: (x) => `How long may a card be in ${x}?`,
    },
    {
      id: "coolerMm",
      word: "room for a cooler",
      unit: "mm",
      by: "manual",
      range: (v) => between(v, "coolerMm", n(v, "coolerMm") - 15, n(v, "coolerMm") + 15),
      ask: (x) => `How tall may a cooler be in ${x}?`,
    },
    {
      id: "supplyMm",
      word: "room for a supply",
      unit: "mm",
      by: "manual",
      range: (v) => between(v, "supplyMm", n(v, "supplyMm") - 30, n(v, "supplyMm") + 20),
      ask: (x) => `How long may the supply be in ${x}?`,
    },
    {
      id: "behindMm",
      word: "room behind the tray",
      unit: "mm",
      by: "measured",
      range: (v) => between(v, "behindMm", 15, 30),
      ask: (x) => `How much room is behind the tray of ${x}?`,
    },
    {
      id: "front",
      word: "fans at the front",
      by: "seen",
      range: (v) => between(v, "front", Math.max(1, n(v, "front") - 1), n(v, "front")),
      ask: (x) => `How many fans go to the front of ${x}?`,
    },
    {
      id: "top",
      word: "fans at the top",
      by: "seen",
      range: (v) => between(v, "top", 0, n(v, "top") + 1),
      ask: (x) => `How many fans go to the top of ${x}?`,
    },
    {
      id: "frontMm",
      word: "size of the front fans",
      unit: "mm",
      by: "seen",
      range: (v) => others(v, "frontMm", 120, 140),
      ask: (x) => `Of which size are the fans at the front of ${x}: 120, 140 mm?`,
    },
    {
      id: "topMm",
      word: "size of the top fans",
      unit: "mm",
      by: "seen",
      range: (v) => (n(v, "top") > 0 ? others(v, "topMm", 120, 140) : []),
      ask: (x) => `Of which size are the fans at the top of ${x}: 120, 140 mm?`,
    },
    {
      id: "trays",
      word: "plates for 2.5 inch drives behind",
      by: "seen",
      range: (v) => between(v, "trays", 0, 3),
      ask: (x) => `How many plates for 2.5 inch drives are behind the tray of ${x}?`,
    },
    {
      id: "topThickMm",
      word: "room for a radiator at the top",
      unit: "mm",
      by: "manual",
      range: (v) => between(v, "topThickMm", 0, 60),
      ask: (x) => `How thick may radiator and fans be at the top of ${x}?`,
    },
    {
      id: "frontC",
      word: "USB-C at the front",
      by: "seen",
      range: (v) => others(v, "frontC", true, false),
      ask: (x) => `Has the front of ${x} USB-C?`,
    },
    {
      id: "front3",
      word: "USB 3 plugs of the front",
      by: "seen",
      range: (v) => others(v, "front3", 1, 2),
      ask: (x) => `How many USB 3 plugs (20 pins) has the front of ${x}?`,
    },
    {
      id: "overMm",
      word: "from the top to the board",
      unit: "mm",
      by: "measured",
      range: () => [],
      ask: (x) => `How far is it from the top of ${x} to the upper edge of the board?`,
    },
    {
      id: "shroud",
      word: "cover over the supply",
      by: "seen",
      range: () => [],
      ask: (x) => `Has ${x} a cover over the supply?`,
    },
    {
      id: "disks",
      word: "places for 3.5 inch drives",
      by: "seen",
      range: (v) => between(v, "disks", 1, 4),
      ask: (x) => `How many 3.5 inch drives go into ${x}?`,
    },
    {
      id: "ownFans",
      word: "fans that come with it",
      by: "seen",
      range: (v) => between(v, "ownFans", 0, 3),
      ask: (x) => `How many fans come with ${x}?`,
    },
  ],
  typical: (said, b) => {
    const form = s(said, "form") || b.form || "ATX";
    const f = shapeOf(form);
    const usual = `usual in cases for ${form} boards`;
    return {
      form: { value: SHAPE[form] ? form : "ATX", rule: b.form ? "the board of the list goes in" : "most cases do" },
      cardMm: { value: f.cardMm, rule: usual },
      coolerMm: { value: f.coolerMm, rule: usual },
      supplyMm: { value: f.supplyMm, rule: usual },
      behindMm: { value: 20, rule: usual },
      front: { value: f.front, rule: usual },
      top: { value: f.top, rule: usual },
      frontMm: { value: 120, rule: usual },
      topMm: { value: 120, rule: usual },
      trays: { value: 2, rule: usual },
      overMm: { value: f.boardAt[1], rule: usual },
      shroud: { value: false, rule: "where nobody says so" },
      topThickMm: { value: f.top > 1 ? 55 : 0, rule: usual },
      frontC: { value: true, rule: "cases of these years" },
      front3: { value: 1, rule: usual },
      disks: { value: form === "Mini-ITX" ? 1 : 2, rule: usual },
      ownFans: { value: form === "Mini-ITX" ? 0 : 2, rule: usual },
    };
  },
  make: (v) => {
    const shape = shapeOf(s(v, "form"));
    const [fs, ts] = [n(v, "frontMm") || 120, n(v, "topMm") || 120];
    // A case that holds more fans than its like is so much taller or deeper.
    const f = {
      ...shape,
      h: Math.max(shape.h + Math.max(0, (n(v, "overMm") || shape.boardAt[1]) - shape.boardAt[1]), Math.ceil(30 + (fs + 4) * n(v, "front") + 6)),
      w: Math.max(shape.w, Math.ceil(30 + (ts + 2) * n(v, "top") + 20)),
    };
    const [bx] = f.boardAt;
    const by = n(v, "overMm") || f.boardAt[1];
    const lead = (id: string, label: string, family: string, role: string, lengthMm: number, more: object = {}) => ({
      id,
      label,
      family,
      role,
      lengthMm,
      ...more,
    });
    const long = f.h > 440 ? 700 : f.h > 350 ? 600 : 450;
    const mount = (id: string, label: string, region: string, takes: string[], xMm: number, yMm: number, more: object = {}) => ({
      id,
      label,
      region,
      takes,
      at: { xMm, yMm },
      ...more,
    });
    const edge = bx + f.boardW + 22;
    const below = by + f.boardH + 14;
    return {
      ports: [],
      cables: [],
      leads: [
        lead("power-switch", "Power switch", "panel-loose", "panel", long, { need: "mandatory", positions: ["power switch", "power switch ground"] }),
        lead("reset", "Reset switch", "panel-loose", "panel", long, { need: "optional", positions: ["reset", "reset ground"] }),
        lead("power-led-plus", "Power LED +", "panel-loose", "panel", long, { need: "wanted", positions: ["power LED +"] }),
        lead("power-led-minus", "Power LED -", "panel-loose", "panel", long, { need: "wanted", positions: ["power LED -"] }),
        lead("audio", "Front audio", "hd-audio", "audio", long + 120),
        ...times(n(v, "front3"), (i) =>
          lead(i === 0 ? "usb3" : `usb3-${i + 1}`, i === 0 ? "Front USB 3" : `Front USB 3, ${i + 1}`, "usb3-20", "usb", long),
        ),
        ...(is(v, "frontC") ? [lead("usbc", "Front USB-C", "usbc-20", "usb", long)] : []),
      ] as never,
      body: {
        widthMm: f.w,
        heightMm: f.h,
        boardAt: { xMm: bx, yMm: by },
        frontIoAt: { xMm: f.w - 35, yMm: 14 },
        mounts: [
          ...times(n(v, "front"), (i) =>
            mount(
              `front-${i + 1}`,
              `front ${["upper", "middle", "lower"][n(v, "front") === 2 && i === 1 ? 2 : i] ?? i + 1}`,
              "front",
              ["fan", "radiator"],
              f.w - 16,
              30 + fs / 2 + (fs + 4) * i,
              { sizeMm: fs, filter: true, frame: "inside" },
            ),
          ),
          ...times(n(v, "top"), (i) =>
            mount(`top-${i + 1}`, `top ${["rear", "middle", "front"][i] ?? i + 1}`, "top", ["fan", "radiator"], 30 + ts / 2 + (ts + 2) * i, 13, {
              sizeMm: ts,
            }),
          ),
          mount("rear-1", "rear", "rear", ["fan"], 10, by + 60, { sizeMm: f.h > 350 ? 120 : 92 }),
          mount("supply", "supply bay", "bottom", ["supply"], 78, f.h - 46),
          ...times(n(v, "disks"), (i) =>
            mount(`cage-${i + 1}`, `drive cage ${i + 1}`, "bottom", ["drive"], f.w - 85, f.h - 60 + 28 * (i % 2) - 60 * Math.floor(i / 2)),
          ),
          ...times(n(v, "trays"), (i) =>
            mount(
              `tray-${i + 1}`,
              ["drive plate", "second drive plate"][i] ?? `drive plate ${i + 1}`,
              "behind-tray",
              ["drive"],
              Math.min(f.w - 60, edge + 20),
              // Beyond the lower edge they stand beside one another.
              Math.min(by + 140 + 85 * i, f.h - 30 - 40 * Math.max(0, i - 1)),
            ),
          ),
          mount("hub", "hub plate", "behind-tray", ["hub"], Math.min(f.w - 70, edge + 15), by + 60),
          mount("strip-top", "top edge", "top", ["lighting"], f.w / 2, 34),
          mount("strip-front", "front edge", "front", ["lighting"], f.w - 40, f.h / 2),
        ],
        cutouts: [
          { id: "top-left", label: "top left", at: { xMm: bx + 22, yMm: by - 12 }, widthMm: 48, heightMm: 20, grommet: "fixed" },
          { id: "right-1", label: "right, upper", at: { xMm: edge, yMm: by + 75 }, widthMm: 20, heightMm: 50, grommet: "fixed" },
          {
            id: "right-2",
            label: "right, lower",
            at: { xMm: edge, yMm: by + Math.min(200, f.boardH - 30) },
            widthMm: 20,
            heightMm: 50,
            grommet: "fixed",
          },
          { id: "bottom-1", label: "bottom", at: { xMm: bx + 130, yMm: below }, widthMm: 48, heightMm: 20, grommet: "fixed" },
        ],
        ...(is(v, "shroud")
          ? {
              bodies: [
                {
                  id: "shroud",
                  label: "cover over the supply",
                  kind: "cover",
                  at: { xMm: 0, yMm: below + 12 },
                  widthMm: f.w - 40,
                  heightMm: Math.max(20, f.h - below - 16),
                  side: "front",
                },
              ],
            }
          : {}),
        behindTrayMm: n(v, "behindMm"),
        maxCardMm: n(v, "cardMm"),
        maxCoolerMm: n(v, "coolerMm"),
        holes: f.holes.map(([id, xMm, yMm]) => ({ id, at: { xMm, yMm } })),
        forms: f.forms,
        supplyForms: s(v, "form") === "Mini-ITX" ? ["SFX", "SFX-L"] : ["ATX"],
        slots: f.slots,
        maxSupplyMm: n(v, "supplyMm"),
        radiatorPlaces: [
          ...(n(v, "topThickMm") > 0 && n(v, "top") >= 2
            ? [
                {
                  id: "top",
                  label: "top",
                  region: "top",
                  mounts: times(n(v, "top"), (i) => `top-${i + 1}`),
                  fanMm: ts >= 140 ? [120, 140] : [120],
                  maxLengthMm: (ts + 2) * n(v, "top") + 42,
                  maxThicknessMm: n(v, "topThickMm"),
                  overBoardMm: by - 12,
                  offsetMm: 40,
                },
              ]
            : []),
          ...(n(v, "front") >= 2
            ? [
                {
                  id: "front",
                  label: "front",
                  region: "front",
                  mounts: times(n(v, "front"), (i) => `front-${i + 1}`),
                  fanMm: fs >= 140 ? [120, 140] : [120],
                  maxLengthMm: (fs + 5) * n(v, "front") + 40,
                  maxThicknessMm: 85,
                },
              ]
            : []),
        ] as never,
      } as never,
      ratings: {},
    };
  },
};

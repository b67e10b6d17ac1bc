import type { Loom } from "./looms";

/** What one position of a connector carries. Colours are those of the standard, where it names them. */
export interface Pin {
  pin: number;
  signal: string;
  wire?: string;
}

/**
 * A connector family: the shape, the pin-out and what it is rated for.
 * Pins are numbered as the source numbers them; `order` lists them row by row as seen
 * when looking at the pins (or sockets) of the board.
 */
export interface ConnectorFamily {
  id: string;
  name: string;
  loom: Loom;
  /**
   * How the planner gives its plugs a place: `net` shares current, command or bandwidth on a root; `supply` is fed by cables out
   * of the bag; `direct` goes into one port of its own; `cable` is joined by a loose cable with a plug at each end.
   */
  planned: "net" | "supply" | "direct" | "cable";
  /** Rows of pin numbers as drawn; a missing position is `null`. */
  order: (number | null)[][];
  pins: Pin[];
  /** Position without a pin, which keys the plug. */
  blank?: number;
  /** How the plug is kept from going in the wrong way round. */
  keyedBy: string;
  /** How many plugs one port takes when they are the smallest that mate with it. */
  places: number;
  /** Needs an equal `key` on plug and port: supply outlets, sockets, makers' own plugs. */
  ownKey?: true;
  /** What one plug may carry, where the family itself sets a limit. */
  rating?: { powerW: number; standing: "published" | "practice" | "formula" };
  source: string;
}

const row = (from: number, to: number, step = 1) => Array.from({ length: Math.floor((to - from) / step) + 1 }, (_, i) => from + i * step);
const twoRows = (n: number) => [row(1, n - 1, 2), row(2, n, 2)];
const halves = (n: number) => [row(1, n / 2), row(n / 2 + 1, n)];
const pins = (list: [string, string?][]): Pin[] => list.map(([signal, wire], i) => ({ pin: i + 1, signal, ...(wire ? { wire } : {}) }));
const many = (n: number, signal: string, wire?: string): [string, string?][] => Array.from({ length: n }, () => [signal, wire]);

const GND: [string, string] = ["ground", "black"];
const V12: [string, string] = ["+12 V", "yellow"];
const V5: [string, string] = ["+5 V", "red"];
const V33: [string, string] = ["+3.3 V", "orange"];

const ATX = "ATX power supply design guide, Intel (from memory)";
const FPIO = "Front Panel I/O Connectivity Design Guide, Intel (from memory)";
const FAN = "4-Wire PWM Controlled Fans Specification rev. 1.3, Intel (from memory)";
const CEM = "PCI Express Card Electromechanical Specification, PCI-SIG (from memory)";
const PRACTICE = "common practice";

/** Every connector family Imbra knows. Adding one is adding an entry here and its rows to the mating table. */
export const FAMILIES: readonly ConnectorFamily[] = [
  {
    id: "atx-24",
    name: "24-pin board power",
    loom: "power",
    planned: "supply",
    order: halves(24),
    places: 1,
    pins: pins([
      V33,
      V33,
      GND,
      V5,
      GND,
      V5,
      GND,
      ["power good", "grey"],
      ["+5 V standby", "purple"],
      V12,
      V12,
      V33,
      V33,
      ["-12 V", "blue"],
      GND,
      ["PS-ON", "green"],
      GND,
      GND,
      GND,
      ["not used"],
      V5,
      V5,
      V5,
      GND,
    ]),
    keyedBy: "latch and shaped positions",
    source: ATX,
  },
  {
    id: "cpu-8",
    name: "CPU power, 8 positions (4+4)",
    loom: "power",
    planned: "supply",
    order: halves(8),
    places: 1,
    pins: pins([...many(4, ...GND), ...many(4, ...V12)]),
    keyedBy: "latch and shaped positions",
    rating: { powerW: 336, standing: "practice" },
    source: ATX,
  },
  {
    id: "cpu-4",
    name: "CPU power, 4 positions",
    loom: "power",
    planned: "supply",
    order: halves(4),
    places: 1,
    pins: pins([GND, GND, V12, V12]),
    keyedBy: "latch and shaped positions",
    rating: { powerW: 168, standing: "formula" },
    source: ATX,
  },
  {
    id: "cpu-4+4",
    name: "CPU power plug, 4+4",
    loom: "power",
    planned: "supply",
    order: halves(8),
    places: 1,
    pins: pins([...many(4, ...GND), ...many(4, ...V12)]),
    keyedBy: "latch; the halves slide together",
    rating: { powerW: 336, standing: "practice" },
    source: ATX,
  },
  {
    id: "gfx-6",
    name: "graphics power, 6 positions",
    loom: "power",
    planned: "supply",
    order: halves(6),
    places: 1,
    pins: pins([V12, V12, V12, GND, ["sense", "black"], GND]),
    keyedBy: "latch and shaped positions",
    rating: { powerW: 75, standing: "published" },
    source: CEM,
  },
  {
    id: "gfx-8",
    name: "graphics power, 8 positions",
    loom: "power",
    planned: "supply",
    order: halves(8),
    places: 1,
    pins: pins([V12, V12, V12, ["sense 1", "black"], GND, ["sense 0", "black"], GND, GND]),
    keyedBy: "latch and shaped positions",
    rating: { powerW: 150, standing: "published" },
    source: CEM,
  },
  {
    id: "gfx-6+2",
    name: "graphics power plug, 6+2",
    loom: "power",
    planned: "supply",
    order: halves(8),
    places: 1,
    pins: pins([V12, V12, V12, ["sense 1", "black"], GND, ["sense 0", "black"], GND, GND]),
    keyedBy: "latch; hook the two onto the six",
    rating: { powerW: 150, standing: "published" },
    source: CEM,
  },
  {
    id: "gfx-16",
    name: "graphics power, 16-pin",
    loom: "power",
    planned: "supply",
    order: [...halves(12), [13, 14, 15, 16]],
    places: 1,
    pins: pins([...many(6, ...V12), ...many(6, ...GND), ["sense"], ["sense"], ["sense 0"], ["sense 1"]]),
    keyedBy: "latch; push until it clicks and no gap shows",
    rating: { powerW: 600, standing: "published" },
    source: CEM,
  },
  {
    id: "sata-power",
    name: "SATA power",
    loom: "power",
    planned: "supply",
    order: [row(1, 15)],
    places: 1,
    pins: pins([...many(3, ...V33), ...many(3, ...GND), ...many(3, ...V5), ...many(3, ...GND), ...many(3, ...V12)]),
    keyedBy: "L-shaped tongue",
    rating: { powerW: 54, standing: "published" },
    source: "Serial ATA, SATA-IO (from memory)",
  },
  {
    id: "peripheral-4",
    name: "4-pin peripheral power",
    loom: "power",
    planned: "supply",
    order: [row(1, 4)],
    places: 1,
    pins: pins([V12, GND, GND, V5]),
    keyedBy: "two bevelled corners",
    rating: { powerW: 132, standing: "published" },
    source: "terminal maker's data (from memory)",
  },
  {
    id: "supply-outlet",
    name: "power supply outlet",
    loom: "power",
    planned: "supply",
    order: halves(8),
    places: 1,
    pins: [],
    ownKey: true,
    keyedBy: "fits its own supply's cables only",
    source: PRACTICE,
  },
  {
    id: "panel-block",
    name: "front-panel block, 2×5",
    loom: "front-panel",
    planned: "direct",
    order: twoRows(10),
    places: 10,
    blank: 10,
    pins: pins([
      ["HDD LED +"],
      ["power LED +"],
      ["HDD LED -"],
      ["power LED -"],
      ["reset ground"],
      ["power switch"],
      ["reset"],
      ["power switch ground"],
      ["+5 V, not connected"],
      ["blank"],
    ]),
    keyedBy: "position 10 blank",
    source: FPIO,
  },
  {
    id: "panel-loose",
    name: "loose front-panel plug",
    loom: "front-panel",
    planned: "direct",
    order: [],
    places: 1,
    pins: [],
    keyedBy: "nothing: triangle on the positive wire, text faces outward",
    source: PRACTICE,
  },
  {
    id: "hd-audio",
    name: "front audio, 2×5",
    loom: "front-panel",
    planned: "direct",
    order: twoRows(10),
    places: 1,
    blank: 8,
    pins: pins([
      ["port 1 left"],
      ["ground"],
      ["port 1 right"],
      ["presence"],
      ["port 2 right"],
      ["sense 1 return"],
      ["sense send"],
      ["blank"],
      ["port 2 left"],
      ["sense 2 return"],
    ]),
    keyedBy: "position 8 blank",
    source: FPIO,
  },
  {
    id: "usb2",
    name: "USB 2.0, 2×5",
    loom: "front-panel",
    planned: "net",
    order: twoRows(10),
    places: 2,
    blank: 9,
    pins: pins([
      ["VBUS", "red"],
      ["VBUS", "red"],
      ["D- port 1", "white"],
      ["D- port 2", "white"],
      ["D+ port 1", "green"],
      ["D+ port 2", "green"],
      ["ground", "black"],
      ["ground", "black"],
      ["blank"],
      ["not connected"],
    ]),
    keyedBy: "position 9 blank",
    rating: { powerW: 5, standing: "published" },
    source: FPIO,
  },
  {
    id: "usb3-20",
    name: "USB 3, 2×10",
    loom: "front-panel",
    planned: "direct",
    order: [row(1, 10), row(20, 11, -1)],
    places: 1,
    blank: 20,
    pins: [],
    keyedBy: "notch and position 20 blank",
    rating: { powerW: 9, standing: "published" },
    source: "USB 3.0 internal connector, Intel (from memory)",
  },
  {
    id: "usbc-20",
    name: "front USB-C, 20 contacts",
    loom: "front-panel",
    planned: "direct",
    order: halves(20),
    places: 1,
    pins: [],
    keyedBy: "shielded and keyed: goes in one way",
    source: "USB front panel internal connector (from memory)",
  },
  {
    id: "fan-4",
    name: "fan, 4 wires",
    loom: "fans",
    planned: "net",
    order: [row(1, 4)],
    places: 1,
    pins: pins([
      ["ground", "black"],
      ["+12 V", "yellow"],
      ["speed signal", "green"],
      ["control (PWM)", "blue"],
    ]),
    keyedBy: "two ribs beside pins 1 to 3",
    source: FAN,
  },
  {
    id: "fan-3",
    name: "fan, 3 wires",
    loom: "fans",
    planned: "net",
    order: [row(1, 3)],
    places: 1,
    pins: pins([
      ["ground", "black"],
      ["+12 V", "red"],
      ["speed signal", "yellow"],
    ]),
    keyedBy: "two ribs",
    source: FAN,
  },
  {
    id: "light-5v",
    name: "addressable lighting, 5 V",
    loom: "lighting",
    planned: "net",
    order: [[1, 2, null, 4]],
    places: 1,
    blank: 3,
    pins: [
      { pin: 1, signal: "+5 V" },
      { pin: 2, signal: "data" },
      { pin: 3, signal: "blank" },
      { pin: 4, signal: "ground" },
    ],
    keyedBy: "position 3 blank",
    source: PRACTICE,
  },
  {
    id: "light-12v",
    name: "plain lighting, 12 V",
    loom: "lighting",
    planned: "net",
    order: [row(1, 4)],
    places: 1,
    pins: pins([["+12 V"], ["green"], ["red"], ["blue"]]),
    keyedBy: "nothing: arrow marks 12 V",
    source: PRACTICE,
  },
  {
    id: "light-maker",
    name: "maker's own lighting plug",
    loom: "lighting",
    planned: "net",
    order: [row(1, 3)],
    places: 1,
    pins: [],
    ownKey: true,
    keyedBy: "fits that maker's hub only",
    source: PRACTICE,
  },
  {
    id: "sata-data",
    name: "SATA data",
    loom: "data",
    planned: "cable",
    order: [row(1, 7)],
    places: 1,
    pins: pins([["ground"], ["A+"], ["A-"], ["ground"], ["B-"], ["B+"], ["ground"]]),
    keyedBy: "L-shaped tongue",
    source: "Serial ATA, SATA-IO (from memory)",
  },
  {
    id: "m2",
    name: "M.2 slot",
    loom: "data",
    planned: "direct",
    order: [],
    places: 1,
    pins: [],
    ownKey: true,
    keyedBy: "notch M",
    source: "PCI Express M.2, PCI-SIG (from memory)",
  },
  {
    id: "cpu-socket",
    name: "CPU socket",
    loom: "seat",
    planned: "direct",
    order: [],
    places: 1,
    pins: [],
    ownKey: true,
    keyedBy: "triangle to triangle",
    source: PRACTICE,
  },
  {
    id: "memory-slot",
    name: "memory slot",
    loom: "seat",
    planned: "direct",
    order: [],
    places: 1,
    pins: [],
    ownKey: true,
    keyedBy: "notch",
    source: "JEDEC (from memory)",
  },
  {
    id: "pcie-slot",
    name: "expansion slot",
    loom: "seat",
    planned: "direct",
    order: [],
    places: 1,
    pins: [],
    keyedBy: "notch",
    rating: { powerW: 75, standing: "published" },
    source: CEM,
  },
];

const BY_ID = new Map(FAMILIES.map((f) => [f.id, f]));

export const FAMILY_IDS = FAMILIES.map((f) => f.id) as [string, ...string[]];

/** The family of that id. Ids are checked when a file is read, so a miss is a programming error. */
export function family(id: string): ConnectorFamily {
  const found = BY_ID.get(id);
  if (!found) throw new Error(`No connector family "${id}"`);
  return found;
}

export function isFamily(id: string): boolean {
  return BY_ID.has(id);
}

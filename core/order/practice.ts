import type { Minutes, Work } from "./model";

// Minutes, screws and tools: common practice (an experienced hand; a whole build takes 2 to 5 hours, an hour of it dressing, a bench test 20 minutes).

const hands = (handsOn: number, unattended = 0): Minutes => ({ handsOn, unattended });

/** Minutes by measure. What is not named here is a plug. */
const MINUTES: Readonly<Record<string, Minutes>> = {
  open: hands(4),
  "cage-out": hands(3),
  "covers-out": hands(2),
  "hold-card": hands(2),
  standoffs: hands(4),
  "io-shield": hands(2),
  "seat-cpu": hands(3),
  "seat-memory": hands(1),
  "seat-m2": hands(4),
  "seat-card": hands(5),
  riser: hands(6),
  support: hands(2),
  backplate: hands(4),
  cooler: hands(8),
  "bench-test": hands(14, 6),
  firmware: hands(6, 8),
  "fill-loop": hands(20, 240),
  "fan-test": hands(6),
  rehearsal: hands(40, 5),
  fan: hands(4),
  light: hands(3),
  hub: hands(3),
  drive: hands(3),
  supply: hands(6),
  radiator: hands(12),
  hang: hands(8),
  head: hands(6),
  gate: hands(1),
  "board-in": hands(9),
  root: hands(1),
  route: hands(2),
  dress: hands(3),
  tie: hands(4),
  look: hands(4),
  "first-start": hands(4, 4),
  close: hands(4),
  pack: hands(5),
};
const PLUG = hands(1);

/** What a shop may say of itself how long it takes, by measure, with words. */
export const MEASURE_WORDS = {
  open: "opening the case",
  standoffs: "setting standoffs",
  "seat-cpu": "seating the CPU",
  "seat-m2": "fitting an M.2 drive",
  "seat-card": "fitting a card",
  backplate: "fitting a backplate",
  cooler: "fitting a cooler, with paste",
  "bench-test": "the test on the table",
  firmware: "a firmware update",
  fan: "fitting a fan",
  hub: "fitting a hub",
  drive: "fitting a drive",
  supply: "fitting the supply",
  radiator: "fans on a radiator",
  hang: "hanging a radiator",
  head: "fitting a pump head",
  "fill-loop": "filling a loop",
  "board-in": "the board into the case",
  dress: "dressing an edge",
  tie: "tying what is left",
  look: "the last look",
  "first-start": "the first start",
  close: "closing the case",
  pack: "packing the bag",
} as const;
export const MEASURES_SET = Object.keys(MEASURE_WORDS) as (keyof typeof MEASURE_WORDS)[];
/** Leading a lead behind the tray, and folding and tying it, minutes each. */
export const PER_LEAD = { route: 0.7, dress: 1.3, tie: 0.3 } as const;

export const minutesOf = (measure: string): Minutes => MINUTES[measure] ?? PLUG;

/** Tools by measure, with the bit (sizes of ISO 8764-1; which size for which screw is common practice). */
const TOOLS: Readonly<Record<string, readonly string[]>> = {
  open: ["hand, or PH2 driver"],
  "cage-out": ["PH2 driver"],
  "covers-out": ["PH2 driver"],
  standoffs: ["standoff driver, 5 mm"],
  "seat-m2": ["PH0 driver, magnetic tip"],
  "seat-card": ["PH2 driver"],
  riser: ["PH2 driver"],
  backplate: ["PH2 driver"],
  cooler: ["PH2 driver, long"],
  fan: ["PH2 driver"],
  hub: ["PH2 driver"],
  drive: ["PH2 driver"],
  supply: ["PH2 driver"],
  radiator: ["PH2 driver"],
  hang: ["PH2 driver"],
  head: ["PH2 driver"],
  "board-in": ["PH2 driver, magnetic tip"],
  dress: ["cable ties"],
  tie: ["cable ties", "side cutters, flush"],
};
/** An electric driver only where a slip does no harm and torque is held by the case's steel. */
const ELECTRIC = new Set(["fan", "supply", "radiator", "hang", "hub", "drive", "open"]);

export const toolsOf = (measure: string, driver: "hand" | "electric"): readonly string[] =>
  (TOOLS[measure] ?? []).map((t) => (driver === "electric" && ELECTRIC.has(measure) ? `${t}, electric at its lowest torque` : t));
/** Share of the time that an electric driver leaves of a step made of screws. */
export const ELECTRIC_SHARE = 0.75;
export const isElectric = (measure: string): boolean => ELECTRIC.has(measure);

/** Screws (common practice). */
export const SCREWS = { fan: 4, supply: 4, drive: 4, hub: 2, cooler: 4, perRadiatorFan: 4, m2: 1, panel: 4, riser: 4 } as const;

/** Longer than the fan is deep, to hold in the radiator: a 25 mm fan takes 30 mm screws (common practice). */
export const SCREW_IN_MM = 5;

/** Taking out takes this share of putting in. Common practice, no source. */
export const OUT_SHARE = 0.5;
/** Cleaning a CPU and its cooler and putting new paste on, minutes (common practice). */
export const PASTE_MIN = 6;

/** Loose lead that hands need to plug what is held beside its place, mm (common practice). */
export const HAND_MM = 60;
/** Less room than this beside a supply, and no hand gets to its outlets, mm (common practice). */
export const HAND_ROOM_MM = 40;

/** An air cooler up to so high lets hands reach the board's edges past it, mm (common practice). */
export const LOW_COOLER_MM = 80;
/** From so many fans on each is tested before it is fitted (common practice). */
export const TEST_FANS_FROM = 10;

export const CAUTION = {
  live: "Supply switch off, mains lead out, press the button once. Then plug.",
  static: "Wrist strap on, clipped to a proper earth point.",
  modular: "Only cables of this supply. If a plug resists, stop and look.",
  light: "5 V and 12 V lighting plugs are not interchangeable.",
  usb3: "Straight on, never at an angle: bent pins cannot be mended.",
  edge: "Case edges and slot covers cut.",
  glass: "Tempered glass goes flat on something soft, never on a tile floor.",
  board: "All screws started before any is tight; crosswise, hand-tight. Stop when the board bows.",
  sata: "SATA data plugs break easily: leave them loose.",
  cooler: "Film off the cold plate. Screws crosswise, a few turns each.",
  lift: "Card by its edges; the slot latch must click.",
  bridge: "Bridge only the two power-switch pins, with nothing that conducts near the board. Mains lead out before anything is changed.",
  fins: "A screw too long pierces the radiator: count the depth of the fan.",
  cut: "Cut ties flush and away from leads.",
  firmware: "Power never goes while it writes: a board that was cut off there may not start again.",
  loop: "Nothing of the machine has power but the pump while it is looked at for leaks; water and mains stay apart.",
  mains: "Mains lead last. Nothing wet, nothing loose on the board.",
} as const;

/** A step with what is usual for its measure. */
export const usual = (measure: string, driver: "hand" | "electric"): Pick<Work, "minutes" | "minutesFrom" | "measure" | "tools"> => {
  const m = minutesOf(measure);
  const handsOn = driver === "electric" && isElectric(measure) ? Math.round(m.handsOn * ELECTRIC_SHARE * 10) / 10 : m.handsOn;
  return { minutes: { ...m, handsOn }, minutesFrom: "practice", measure, tools: toolsOf(measure, driver) };
};

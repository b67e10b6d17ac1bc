import { between, is, n, others, s, type TypicalKind, times } from "./kind";

const gfx8 = (count: number) =>
  times(count, (i) => ({ id: `PWR_${i + 1}`, label: `PWR_${i + 1}`, family: "gfx-8", flow: "in", role: "graphics-power", need: "mandatory" }));

/** Plugs of a graphics card by its draw: the slot gives 75 W, an 8-pin plug 150 W (PCI Express CEM); above 300 W one 16-pin plug is usual. */
const plugsFor = (w: number): string => (w <= 75 ? "none" : w <= 225 ? "one 8-pin" : w <= 300 ? "two 8-pin" : "one 16-pin");

export const CARD: TypicalKind = {
  along: ["an adapter for its power", "a support bracket", "a low bracket"],
  figures: [
    {
      id: "lengthMm",
      word: "length",
      unit: "mm",
      by: "measured",
      range: (v) => (is(v, "graphics") ? between(v, "lengthMm", 240, 350) : []),
      ask: (x) => `How long is ${x}?`,
    },
    {
      id: "slots",
      word: "slots",
      by: "seen",
      range: (v) => (is(v, "graphics") ? between(v, "slots", 2, 3.5) : []),
      ask: (x) => `How many slots does ${x} take?`,
    },
    {
      id: "watts",
      word: "draw at full load",
      unit: "W",
      by: "label",
      range: (v) => (is(v, "graphics") ? between(v, "watts", 130, Math.max(350, n(v, "watts"))) : []),
      ask: (x) => `How many watts does ${x} draw?`,
    },
    {
      id: "plugs",
      word: "power plugs",
      options: ["none", "one 8-pin", "two 8-pin", "one 16-pin"],
      by: "seen",
      range: (v) => (is(v, "graphics") ? others(v, "plugs", "one 8-pin", "two 8-pin", "one 16-pin") : []),
      ask: (x) => `Which power sockets has ${x}?`,
    },
    { id: "graphics", word: "a graphics card", by: "label", range: () => [], ask: (x) => `Is ${x} a graphics card?` },
  ],
  typical: (said) => {
    const graphics = said.graphics !== false;
    const w = n(said, "watts") || (graphics ? 220 : 12);
    const long = w <= 75 ? 170 : w <= 160 ? 240 : w <= 250 ? 280 : w <= 320 ? 310 : 335;
    return {
      lengthMm: { value: graphics ? long : 150, rule: `usual at ${w} W` },
      slots: { value: graphics ? (w <= 75 ? 1 : w <= 160 ? 2 : w <= 320 ? 2.5 : 3) : 1, rule: `usual at ${w} W` },
      watts: { value: w, rule: "the middle class" },
      plugs: { value: graphics ? plugsFor(w) : "none", rule: `by ${w} W (PCI Express CEM: 75 W by the slot, 150 W by a plug of 8 pins)` },
      graphics: { value: graphics, rule: "most cards are" },
    };
  },
  make: (v) => ({
    ports: (s(v, "plugs") === "one 8-pin"
      ? gfx8(1)
      : s(v, "plugs") === "two 8-pin"
        ? gfx8(2)
        : s(v, "plugs") === "one 16-pin"
          ? [{ id: "PWR_1", label: "PWR_1", family: "gfx-16", flow: "in", role: "graphics-power", need: "mandatory" }]
          : []) as never,
    leads: [{ id: "seat", label: "edge", family: "pcie-slot", role: "seat", lengthMm: 0, need: is(v, "graphics") ? "mandatory" : "wanted" }] as never,
    cables: [],
    body: { widthMm: n(v, "lengthMm"), heightMm: Math.round(n(v, "slots") * 20), slots: n(v, "slots"), depthMm: is(v, "graphics") ? 135 : 110 },
    ratings: {
      powerW: n(v, "watts"),
      peakW: n(v, "watts"),
      idleW: is(v, "graphics") ? 15 : 4,
      hasGraphics: is(v, "graphics"),
      ...(is(v, "graphics")
        ? {
            outputs: [
              { socket: "DisplayPort" as const, count: 3, widthPx: 7680, heightPx: 4320, hz: 60 },
              { socket: "HDMI" as const, count: 1, widthPx: 7680, heightPx: 4320, hz: 60 },
            ],
          }
        : {}),
    },
  }),
};

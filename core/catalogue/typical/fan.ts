import { between, is, n, others, type TypicalKind } from "./kind";

/** Fans: what they draw and move by their side, at full speed (common practice: middle of what is sold). */
const FAN: Readonly<Record<number, { currentA: number; rpm: number; flow: number; noise: number }>> = {
  80: { currentA: 0.12, rpm: 2000, flow: 48, noise: 22 },
  92: { currentA: 0.14, rpm: 1900, flow: 62, noise: 22 },
  120: { currentA: 0.2, rpm: 1600, flow: 92, noise: 25 },
  140: { currentA: 0.22, rpm: 1400, flow: 115, noise: 25 },
  200: { currentA: 0.3, rpm: 900, flow: 180, noise: 26 },
};

export const FAN_KIND: TypicalKind = {
  along: ["screws", "rubber pins", "a low-noise lead", "an adapter to a drive plug"],
  figures: [
    {
      id: "sizeMm",
      word: "size",
      unit: "mm",
      by: "label",
      range: (v) => others(v, "sizeMm", 120, 140),
      ask: (x) => `How large is ${x}: 120 or 140 mm?`,
    },
    { id: "pins", word: "pins of its plug", by: "seen", range: (v) => others(v, "pins", 3, 4), ask: (x) => `Has the plug of ${x} 3 or 4 pins?` },
    {
      id: "currentA",
      word: "current",
      unit: "A",
      by: "label",
      range: (v) => between(v, "currentA", 0.1, 0.35),
      ask: (x) => `What current does the label of ${x} say?`,
    },
    {
      id: "leadMm",
      word: "lead",
      unit: "mm",
      by: "measured",
      range: (v) => between(v, "leadMm", 300, 600),
      ask: (x) => `How long is the lead of ${x}?`,
    },
    { id: "lit", word: "lights", by: "seen", range: (v) => others(v, "lit", true, false), ask: (x) => `Has ${x} lights of its own?` },
  ],
  typical: (said) => {
    const size = n(said, "sizeMm") || 120;
    return {
      sizeMm: { value: size, rule: "most case fans are" },
      pins: { value: 4, rule: "fans of these years" },
      currentA: { value: FAN[size]?.currentA ?? 0.2, rule: `usual at ${size} mm` },
      leadMm: { value: 450, rule: "usual leads" },
      lit: { value: false, rule: "where nobody says so" },
    };
  },
  make: (v) => {
    const size = n(v, "sizeMm");
    const f = FAN[size] ?? { currentA: 0.2, rpm: 1500, flow: 90, noise: 25 };
    const four = n(v, "pins") === 4;
    return {
      ports: [],
      cables: [],
      leads: [
        {
          id: "lead",
          label: "fan",
          family: four ? "fan-4" : "fan-3",
          role: "case-fan",
          lengthMm: n(v, "leadMm"),
          load: { currentA: n(v, "currentA") },
          control: four ? "both" : "voltage",
          reportsSpeed: true,
        },
        ...(is(v, "lit")
          ? [{ id: "light", label: "lights", family: "light-5v", role: "light", lengthMm: n(v, "leadMm"), load: { currentA: 0.4, leds: 8 } }]
          : []),
      ] as never,
      body: { widthMm: size, heightMm: size, depthMm: 25 },
      ratings: {
        powerW: Math.round(n(v, "currentA") * 120) / 10,
        peakW: Math.round(n(v, "currentA") * 120) / 10,
        rpm: f.rpm,
        flowM3h: f.flow,
        noiseDb: f.noise,
      },
    };
  },
};

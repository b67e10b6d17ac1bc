import { between, is, n, others, type TypicalKind } from "./kind";

export const LIGHTING: TypicalKind = {
  along: ["clips or adhesive pads", "an adapter to the other plug"],
  figures: [
    { id: "leds", word: "LEDs", by: "seen", range: (v) => between(v, "leds", 10, 60), ask: (x) => `How many LEDs has ${x}?` },
    { id: "volts", word: "volts", by: "seen", range: (v) => others(v, "volts", 5, 12), ask: (x) => `Is ${x} for 5 V (3 pins) or 12 V (4 pins)?` },
    {
      id: "through",
      word: "plug to go on",
      by: "seen",
      range: (v) => others(v, "through", true, false),
      ask: (x) => `Can another strip be plugged onto ${x}?`,
    },
  ],
  typical: () => ({
    leds: { value: 20, rule: "usual strips of 300 mm" },
    volts: { value: 5, rule: "strips of these years" },
    through: { value: false, rule: "the safe side" },
  }),
  make: (v) => {
    const family = n(v, "volts") === 12 ? "light-12v" : "light-5v";
    const a = Math.round(n(v, "leds") * 6) / 100;
    return {
      ports: is(v, "through")
        ? ([{ id: "out", label: "through plug", family, flow: "out", role: "light", fedBy: "lead", controlledBy: "lead" }] as never)
        : [],
      cables: [],
      leads: [{ id: "lead", label: "lights", family, role: "light", lengthMm: 500, load: { currentA: a, leds: n(v, "leds") } }] as never,
      body: {},
      ratings: { powerW: Math.round(a * n(v, "volts") * 10) / 10, peakW: Math.round(a * n(v, "volts") * 10) / 10 },
    };
  },
};

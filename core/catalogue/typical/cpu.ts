import { between, is, n, others, s, type TypicalKind } from "./kind";

export const CPU: TypicalKind = {
  along: ["its box and sticker"],
  figures: [
    { id: "socket", word: "socket", by: "label", range: (v) => others(v, "socket", "another"), ask: (x) => `Does ${x} go into the board's socket?` },
    {
      id: "watts",
      word: "draw at full load",
      unit: "W",
      by: "label",
      range: (v) => between(v, "watts", 65, Math.max(180, Math.round(n(v, "watts") * 1.4))),
      ask: (x) => `How many watts does ${x} draw at full load?`,
    },
    {
      id: "graphics",
      word: "graphics of its own",
      by: "label",
      range: (v) => others(v, "graphics", true, false),
      ask: (x) => `Has ${x} graphics of its own?`,
    },
  ],
  typical: (said, b) => {
    const cores = n(said, "cores");
    return {
      socket: { value: b.socket ?? "assumed", rule: "taken to fit the board of the list" },
      watts: {
        value: cores === 0 ? 120 : cores <= 4 ? 65 : cores <= 6 ? 90 : cores <= 8 ? 120 : cores <= 12 ? 170 : 230,
        rule: cores === 0 ? "the middle class" : `usual with ${cores} cores`,
      },
      graphics: { value: true, rule: "most processors of these years" },
    };
  },
  make: (v) => ({
    ports: [],
    cables: [],
    leads: [{ id: "seat", label: "processor", family: "cpu-socket", role: "seat", lengthMm: 0, key: s(v, "socket"), need: "mandatory" }] as never,
    body: {},
    ratings: { powerW: n(v, "watts"), peakW: n(v, "watts"), heatW: n(v, "watts"), idleW: 18, hasGraphics: is(v, "graphics") },
  }),
};

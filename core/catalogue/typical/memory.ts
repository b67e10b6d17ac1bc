import { between, n, others, s, type TypicalKind } from "./kind";

export const MEMORY: TypicalKind = {
  figures: [
    { id: "sizeGb", word: "size of a module", unit: "GB", by: "label", range: () => [], ask: (x) => `How large is one module of ${x}?` },
    {
      id: "memory",
      word: "memory type",
      options: ["DDR4", "DDR5"],
      by: "label",
      range: (v) => others(v, "memory", "DDR4", "DDR5"),
      ask: (x) => `Is ${x} DDR4 or DDR5?`,
    },
    { id: "mts", word: "speed as sold", unit: "MT/s", by: "label", range: () => [], ask: (x) => `At what speed is ${x} sold?` },
    {
      id: "heightMm",
      word: "height",
      unit: "mm",
      by: "measured",
      range: (v) => between(v, "heightMm", 31, 45),
      ask: (x) => `How tall is a module of ${x}?`,
    },
  ],
  typical: (said, b) => {
    const type = s(said, "memory") || b.memory || (n(said, "mts") > 0 && n(said, "mts") < 4000 ? "DDR4" : "DDR5");
    return {
      sizeGb: { value: 16, rule: "usual modules" },
      memory: { value: type, rule: b.memory ? "taken to fit the board of the list" : "by its speed, or modules of these years" },
      mts: { value: type === "DDR4" ? 3200 : 5600, rule: `usual ${type}` },
      heightMm: { value: 35, rule: "modules with a plain spreader" },
    };
  },
  make: (v) => ({
    ports: [],
    cables: [],
    leads: [{ id: "seat", label: "module", family: "memory-slot", key: s(v, "memory"), role: "seat", lengthMm: 0, need: "mandatory" }] as never,
    body: { heightMm: n(v, "heightMm") },
    ratings: {
      sizeGb: n(v, "sizeGb"),
      profileMts: n(v, "mts"),
      defaultMts: Math.min(n(v, "mts"), s(v, "memory") === "DDR4" ? 2666 : 4800),
      powerW: 5,
      peakW: 5,
      idleW: 1.5,
    },
  }),
};

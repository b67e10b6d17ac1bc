import { between, is, n, others, s, type TypicalKind, times, type Values } from "./kind";

/** What supplies of a size have in the bag (common practice: the middle of what is sold). */
function bag(w: number): { cpu: number; gfx: number; g16: number; sata: number } {
  return { cpu: w >= 650 ? 2 : 1, gfx: w >= 850 ? 3 : w >= 600 ? 2 : 1, g16: w >= 750 ? 1 : 0, sata: w >= 650 ? 2 : 1 };
}
const cableFits = (v: Values) => (s(v, "form") === "ATX" ? 0 : -150);

export const SUPPLY: TypicalKind = {
  along: ["screws", "cable ties", "a bag for the cables"],
  groups: { "In the bag": ["modular", "cpu", "gfx", "g16", "sata", "cpuMm"], Size: ["lengthMm"] },
  figures: [
    { id: "watts", word: "what it gives", unit: "W", by: "label", range: () => [], ask: (x) => `How many watts does ${x} give?` },
    {
      id: "form",
      word: "format",
      options: ["ATX", "SFX", "SFX-L", "TFX"],
      by: "label",
      range: () => [],
      ask: (x) => `Which format is ${x}: ATX, SFX?`,
    },
    {
      id: "efficiency",
      word: "efficiency class",
      options: ["none", "bronze", "gold", "platinum", "titanium"],
      by: "label",
      range: () => [],
      ask: (x) => `Which efficiency class has ${x}?`,
    },
    {
      id: "modular",
      word: "cables that come off",
      by: "seen",
      range: (v) => others(v, "modular", true, false),
      ask: (x) => `Do the cables of ${x} come off?`,
    },
    { id: "cpu", word: "CPU cables", by: "seen", range: (v) => others(v, "cpu", 1, 2), ask: (x) => `How many CPU cables has ${x}?` },
    {
      id: "gfx",
      word: "graphics cables with two plugs",
      by: "seen",
      range: (v) => between(v, "gfx", Math.max(1, n(v, "gfx") - 1), n(v, "gfx") + 1),
      ask: (x) => `How many graphics cables has ${x}?`,
    },
    { id: "g16", word: "16-pin graphics cables", by: "seen", range: (v) => others(v, "g16", 0, 1), ask: (x) => `Has ${x} a 16-pin graphics cable?` },
    {
      id: "sata",
      word: "strings for drives",
      by: "seen",
      range: (v) => between(v, "sata", 1, 3),
      ask: (x) => `How many strings with SATA plugs has ${x}?`,
    },
    {
      id: "lengthMm",
      word: "length",
      unit: "mm",
      by: "measured",
      range: (v) => (s(v, "form").startsWith("SFX") ? between(v, "lengthMm", 100, 130) : between(v, "lengthMm", 140, 180)),
      ask: (x) => `How long is ${x}?`,
    },
    {
      id: "cpuMm",
      word: "length of the CPU cable",
      unit: "mm",
      by: "measured",
      range: (v) => between(v, "cpuMm", n(v, "cpuMm") - 100, n(v, "cpuMm") + 100),
      ask: (x) => `How long is the CPU cable of ${x}?`,
    },
  ],
  typical: (said, b) => {
    const form = s(said, "form") || (b.small ? "SFX" : "ATX");
    const sold = [450, 550, 650, 750, 850, 1000, 1200];
    const wanted = (b.drawW ?? 400) * 1.5;
    const w = n(said, "watts") || (sold.find((x) => x >= wanted) ?? 1200);
    const has = bag(w);
    const usual = `usual at ${w} W`;
    return {
      watts: { value: w, rule: "half as much again as the machine draws" },
      form: { value: ["ATX", "SFX", "SFX-L", "TFX"].includes(form) ? form : "ATX", rule: b.small ? "the case is small" : "most supplies are" },
      efficiency: { value: "gold", rule: "supplies of these years" },
      modular: { value: w >= 600, rule: usual },
      cpu: { value: has.cpu, rule: usual },
      gfx: { value: has.gfx, rule: usual },
      g16: { value: has.g16, rule: usual },
      sata: { value: has.sata, rule: usual },
      lengthMm: { value: form.startsWith("SFX") ? 100 : w >= 1000 ? 180 : w >= 750 ? 160 : 150, rule: usual },
      cpuMm: { value: form.startsWith("SFX") ? 450 : 650, rule: "usual cables" },
    };
  },
  make: (v) => {
    const modular = is(v, "modular");
    const less = cableFits(v);
    const cable = (id: string, label: string, count: number, outlet: string, ends: object[], more: object = {}) =>
      count > 0 ? [{ id, label, count, ...(modular ? { outlets: [outlet] } : { captive: true }), ends, ...more }] : [];
    const outlets = (id: string, key: string, count: number) =>
      times(modular ? count : 0, (i) => ({
        id: `${id}_${i + 1}`,
        label: `${id}_${i + 1}`,
        family: "supply-outlet",
        flow: "out",
        role: "outlet",
        key,
      }));
    const small = s(v, "form").startsWith("SFX");
    return {
      ports: [
        ...outlets("BOARD", "board", 1),
        ...outlets("CPU_GFX", "12 V", n(v, "cpu") + n(v, "gfx")),
        ...outlets("PCIE16", "16-pin", n(v, "g16")),
        ...outlets("DRIVE", "drive", n(v, "sata") + 1),
      ] as never,
      leads: [],
      cables: [
        ...cable("board", "24-pin cable", 1, "board", [{ id: "plug-1", family: "atx-24", atMm: 600 + less }]),
        ...cable("cpu", "CPU cable", n(v, "cpu"), "12 V", [{ id: "plug-1", family: "cpu-4+4", atMm: n(v, "cpuMm") }]),
        ...cable("gfx", "graphics cable", n(v, "gfx"), "12 V", [
          { id: "plug-1", family: "gfx-6+2", atMm: 600 + less },
          { id: "plug-2", family: "gfx-6+2", atMm: 720 + less },
        ]),
        ...cable("g16", "16-pin cable", n(v, "g16"), "16-pin", [
          { id: "plug-1", family: "gfx-16", atMm: 650 + less, limit: { powerW: n(v, "watts") >= 1000 ? 600 : 450 } },
        ]),
        ...cable(
          "sata",
          "SATA string",
          n(v, "sata"),
          "drive",
          times(4, (i) => ({ id: `plug-${i + 1}`, family: "sata-power", atMm: 500 + less + 150 * i })),
        ),
        ...cable(
          "per",
          "peripheral string",
          1,
          "drive",
          times(2, (i) => ({ id: `plug-${i + 1}`, family: "peripheral-4", atMm: 500 + less + 150 * i })),
        ),
      ] as never,
      body: { widthMm: small ? 125 : 150, heightMm: small ? 64 : 86, depthMm: n(v, "lengthMm"), formFactor: s(v, "form") },
      ratings: {
        powerW: n(v, "watts"),
        efficiency: s(v, "efficiency") as never,
        railsA: { v12: Math.round((n(v, "watts") / 12) * 0.98 * 10) / 10, v5: 20, v33: 20 },
      },
    };
  },
};

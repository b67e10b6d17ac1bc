import { between, is, n, others, s, type TypicalKind, times, type Values } from "./kind";

const gfx8 = (count: number) =>
  times(count, (i) => ({ id: `PWR_${i + 1}`, label: `PWR_${i + 1}`, family: "gfx-8", flow: "in", role: "graphics-power", need: "mandatory" }));

/** Plugs of a graphics card by its draw: the slot gives 75 W, an 8-pin plug 150 W (PCI Express CEM); above 300 W one 16-pin plug is usual. */
const plugsFor = (w: number): string => (w <= 75 ? "none" : w <= 225 ? "one 8-pin" : w <= 300 ? "two 8-pin" : "one 16-pin");

export const CARD: TypicalKind = {
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

export const COOLER: TypicalKind = {
  figures: [
    { id: "liquid", word: "liquid", by: "seen", range: () => [], ask: (x) => `Is ${x} a liquid cooler?` },
    {
      id: "heightMm",
      word: "height",
      unit: "mm",
      by: "measured",
      range: (v) => (is(v, "liquid") ? [] : between(v, "heightMm", 120, 168)),
      ask: (x) => `How tall is ${x}?`,
    },
    {
      id: "radiatorMm",
      word: "radiator",
      unit: "mm",
      by: "label",
      range: (v) => (is(v, "liquid") ? others(v, "radiatorMm", 240, 360) : []),
      ask: (x) => `How long is the radiator of ${x}: 240, 280, 360?`,
    },
    {
      id: "thickMm",
      word: "thickness of the radiator",
      unit: "mm",
      by: "measured",
      range: (v) => (is(v, "liquid") ? between(v, "thickMm", 27, 38) : []),
      ask: (x) => `How thick is the radiator of ${x}?`,
    },
    {
      id: "cooledW",
      word: "heat it carries",
      unit: "W",
      by: "label",
      range: (v) => between(v, "cooledW", Math.round(n(v, "cooledW") * 0.7), Math.round(n(v, "cooledW") * 1.2)),
      ask: (x) => `How many watts does ${x} carry?`,
    },
    {
      id: "fans",
      word: "fans that come with it",
      by: "seen",
      range: (v) => (is(v, "liquid") ? [] : others(v, "fans", 1, 2)),
      ask: (x) => `How many fans come with ${x}?`,
    },
  ],
  typical: (said) => {
    const liquid = said.liquid === true || n(said, "radiatorMm") > 0;
    const rad = n(said, "radiatorMm") || 240;
    const h = n(said, "heightMm") || 155;
    return {
      liquid: { value: liquid, rule: "where no radiator is named" },
      heightMm: { value: liquid ? 52 : h, rule: liquid ? "usual pump heads" : "usual towers of one 120 mm fan" },
      radiatorMm: { value: liquid ? rad : 0, rule: "usual liquid coolers" },
      thickMm: { value: liquid ? 27 : 0, rule: "usual radiators" },
      cooledW: {
        value: liquid ? (rad <= 140 ? 150 : rad <= 280 ? 220 : 300) : h < 80 ? 80 : h < 130 ? 120 : 180,
        rule: liquid ? `usual at ${rad} mm` : `usual at ${h} mm`,
      },
      fans: { value: liquid ? fansOf(rad).fans : 1, rule: liquid ? "as many as the radiator is long" : "usual towers" },
    };
  },
  make: (v) => {
    const fanLead = (i: number, role: string) => ({
      id: `fan-${i + 1}`,
      label: `fan ${i + 1}`,
      family: "fan-4",
      role,
      lengthMm: 350,
      need: i === 0 ? "mandatory" : "wanted",
      load: { currentA: 0.2 },
      control: "pwm",
      reportsSpeed: true,
    });
    if (!is(v, "liquid"))
      return {
        ports: [],
        cables: [],
        leads: times(n(v, "fans"), (i) => fanLead(i, "cpu-fan")) as never,
        body: {
          heightMm: n(v, "heightMm"),
          ...(n(v, "heightMm") >= 90 ? { widthMm: 125, depthMm: 75 + 25 * n(v, "fans") } : { widthMm: 95, depthMm: 95 }),
        },
        ratings: { cooledW: n(v, "cooledW"), powerW: 2.4 * n(v, "fans"), peakW: 2.4 * n(v, "fans") },
      };
    const { fanMm, fans } = fansOf(n(v, "radiatorMm"));
    return {
      ports: [],
      cables: [],
      leads: [
        {
          id: "pump",
          label: "pump",
          family: "fan-4",
          role: "pump",
          lengthMm: 400,
          need: "mandatory",
          load: { currentA: 0.35 },
          control: "both",
          reportsSpeed: true,
        },
        ...times(fans, (i) => ({ ...fanLead(i, "radiator-fan"), need: "wanted" })),
      ] as never,
      body: {
        heightMm: n(v, "heightMm"),
        radiator: { fanMm: fanMm as 120 | 140, fans, lengthMm: fans * fanMm + 37, widthMm: fanMm, thicknessMm: n(v, "thickMm"), tubeMm: 400 },
      },
      ratings: { cooledW: n(v, "cooledW"), powerW: 4.2 + 2.4 * fans, peakW: 4.2 + 2.4 * fans, pasteApplied: true },
    };
  },
};
const fansOf = (mm: number): { fanMm: number; fans: number } =>
  mm % 140 === 0 && mm % 120 !== 0 ? { fanMm: 140, fans: Math.max(1, mm / 140) } : { fanMm: 120, fans: Math.max(1, Math.round(mm / 120)) };

/** What supplies of a size have in the bag (common practice: the middle of what is sold). */
function bag(w: number): { cpu: number; gfx: number; g16: number; sata: number } {
  return { cpu: w >= 650 ? 2 : 1, gfx: w >= 850 ? 3 : w >= 600 ? 2 : 1, g16: w >= 750 ? 1 : 0, sata: w >= 650 ? 2 : 1 };
}
const cableFits = (v: Values) => (s(v, "form") === "ATX" ? 0 : -150);

export const SUPPLY: TypicalKind = {
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
    { id: "lengthMm", word: "length", unit: "mm", by: "measured", range: (v) => between(v, "lengthMm", 140, 180), ask: (x) => `How long is ${x}?` },
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

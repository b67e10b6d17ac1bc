import { between, is, n, others, s, type TypicalKind, times } from "./kind";

/** Fans: what they draw and move by their side, at full speed (common practice: middle of what is sold). */
const FAN: Readonly<Record<number, { currentA: number; rpm: number; flow: number; noise: number }>> = {
  80: { currentA: 0.12, rpm: 2000, flow: 48, noise: 22 },
  92: { currentA: 0.14, rpm: 1900, flow: 62, noise: 22 },
  120: { currentA: 0.2, rpm: 1600, flow: 92, noise: 25 },
  140: { currentA: 0.22, rpm: 1400, flow: 115, noise: 25 },
  200: { currentA: 0.3, rpm: 900, flow: 180, noise: 26 },
};

export const FAN_KIND: TypicalKind = {
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

export const LIGHTING: TypicalKind = {
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

export const HUB: TypicalKind = {
  figures: [
    { id: "ways", word: "fan ports", by: "seen", range: (v) => between(v, "ways", 4, 10), ask: (x) => `How many fans go into ${x}?` },
    {
      id: "limitA",
      word: "current",
      unit: "A",
      by: "label",
      range: (v) => between(v, "limitA", 2, 4.5),
      ask: (x) => `How much current may the fans on ${x} draw?`,
    },
  ],
  typical: () => ({
    ways: { value: 6, rule: "usual hubs" },
    limitA: { value: 4.5, rule: "what one SATA power plug gives at 12 V (Serial ATA 3.x, 1.5 A a pin)" },
  }),
  make: (v) => ({
    ports: [
      {
        id: "power",
        label: "power",
        family: "sata-power",
        flow: "in",
        role: "device-power",
        need: "mandatory",
        load: { powerW: 1 },
        limit: { currentA: n(v, "limitA") },
        tailMm: 300,
      },
      ...times(n(v, "ways"), (i) => ({
        id: `FAN_${i + 1}`,
        label: `FAN_${i + 1}`,
        family: "fan-4",
        flow: "out",
        role: "case-fan",
        fedBy: "power",
        controlledBy: "pwm",
        control: "pwm",
        ...(i === 0 ? { speedTo: "pwm" } : {}),
      })),
    ] as never,
    leads: [{ id: "pwm", label: "PWM input", family: "fan-4", role: "hub-control", lengthMm: 500, load: { currentA: 0 }, control: "pwm" }] as never,
    cables: [],
    body: {},
    ratings: { powerW: 1, peakW: 1 },
  }),
};

export const SPLITTER: TypicalKind = {
  figures: [{ id: "ways", word: "branches", by: "seen", range: (v) => others(v, "ways", 2, 3), ask: (x) => `How many fans go on ${x}?` }],
  typical: () => ({ ways: { value: 2, rule: "usual splitters" } }),
  make: (v) => ({
    ports: times(n(v, "ways"), (i) => ({
      id: `out-${i + 1}`,
      label: `branch ${i + 1}`,
      family: "fan-4",
      flow: "out",
      role: "case-fan",
      fedBy: "in",
      control: "both",
      ...(i === 0 ? { speedTo: "in" } : {}),
    })) as never,
    leads: [{ id: "in", label: "plug", family: "fan-4", role: "splitter-in", lengthMm: 150, need: "optional", control: "both" }] as never,
    cables: [],
    body: {},
    ratings: {},
  }),
};

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

export const CPU: TypicalKind = {
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

export const DRIVE: TypicalKind = {
  figures: [
    {
      id: "form",
      word: "form",
      options: ["M.2", "2.5", "3.5"],
      by: "label",
      range: (v) => (s(v, "form") === "2.5" ? ["M.2"] : []),
      ask: (x) => `Is ${x} an M.2 module or a drive with two sockets?`,
    },
    {
      id: "protocol",
      word: "what it speaks",
      options: ["nvme", "sata"],
      by: "label",
      range: (v) => (s(v, "form") === "M.2" ? others(v, "protocol", "nvme", "sata") : []),
      ask: (x) => `Does ${x} speak NVMe or SATA?`,
    },
    { id: "sizeGb", word: "size", unit: "GB", by: "label", range: () => [], ask: (x) => `How large is ${x}?` },
  ],
  typical: (said) => {
    const form = s(said, "form") || (s(said, "protocol") === "sata" ? "2.5" : n(said, "sizeGb") >= 8000 ? "3.5" : "M.2");
    return {
      form: { value: form, rule: "drives of these years" },
      protocol: { value: form === "M.2" ? "nvme" : "sata", rule: "usual in that form" },
      sizeGb: { value: 1000, rule: "usual drives" },
    };
  },
  make: (v) => {
    const form = s(v, "form");
    if (form === "M.2")
      return {
        ports: [],
        cables: [],
        leads: [
          { id: "edge", label: "module", family: "m2", role: "seat", lengthMm: 0, key: "M", protocol: s(v, "protocol"), need: "mandatory" },
        ] as never,
        body: { formFactor: "M.2", widthMm: 80 },
        ratings: { sizeGb: n(v, "sizeGb"), peakW: 7, powerW: 7, idleW: 1, railsW: { v12: 0, v5: 0, v33: 7 } },
      };
    const disk = form === "3.5";
    return {
      ports: [
        { id: "power", label: "power", family: "sata-power", flow: "in", role: "device-power", load: { powerW: disk ? 10 : 4.5 }, need: "mandatory" },
        { id: "data", label: "data", family: "sata-data", flow: "in", role: "drive-data", need: "mandatory" },
      ] as never,
      leads: [],
      cables: [],
      body: { formFactor: form },
      ratings: { sizeGb: n(v, "sizeGb"), peakW: disk ? 10 : 4.5, powerW: disk ? 10 : 4.5, idleW: disk ? 4 : 1.5, ...(disk ? { startW: 25 } : {}) },
    };
  },
};

import { type Beside, between, is, n, others, s, type TypicalKind, times, type Values } from "./kind";

/*
 * Boards by form factor: outlines and holes are those of the form factor (ATX specification 2.2, microATX addendum, Mini-ITX addendum: from
 * memory, as the shelf's own boards have them); where headers stand and how many there are is common practice of boards of the middle class.
 */
interface Form {
  w: number;
  h: number;
  holes: readonly (readonly [string, number, number])[];
  dimms: number;
  caseFans: number;
  usb2: number;
  usb3: number;
  sata: number;
  m2: number;
  slots: number;
  led5: number;
  led12: number;
  cpuPlugs: number;
}
const HOLES = {
  A: [10, 288],
  B: [10, 231],
  C: [10, 6],
  F: [165, 6],
  G: [165, 288],
  H: [10, 163],
  J: [165, 163],
  K: [237, 288],
  L: [237, 6],
  M: [237, 163],
  R: [237, 231],
  S: [165, 231],
} as const;
const holes = (...ids: (keyof typeof HOLES)[]) => ids.map((id) => [id, HOLES[id][0], HOLES[id][1]] as const);
const FORM: Readonly<Record<string, Form>> = {
  ATX: {
    w: 244,
    h: 305,
    holes: holes("A", "C", "F", "G", "H", "J", "K", "L", "M"),
    dimms: 4,
    caseFans: 4,
    usb2: 2,
    usb3: 1,
    sata: 4,
    m2: 3,
    slots: 3,
    led5: 2,
    led12: 1,
    cpuPlugs: 2,
  },
  "E-ATX": {
    w: 277,
    h: 305,
    holes: holes("A", "C", "F", "G", "H", "J", "K", "L", "M"),
    dimms: 4,
    caseFans: 6,
    usb2: 2,
    usb3: 2,
    sata: 6,
    m2: 4,
    slots: 3,
    led5: 3,
    led12: 1,
    cpuPlugs: 2,
  },
  microATX: {
    w: 244,
    h: 244,
    holes: holes("B", "C", "F", "H", "J", "L", "M", "R", "S"),
    dimms: 4,
    caseFans: 3,
    usb2: 2,
    usb3: 1,
    sata: 4,
    m2: 2,
    slots: 2,
    led5: 2,
    led12: 1,
    cpuPlugs: 1,
  },
  FlexATX: {
    w: 229,
    h: 191,
    holes: holes("C", "F", "H", "J"),
    dimms: 2,
    caseFans: 1,
    usb2: 1,
    usb3: 1,
    sata: 2,
    m2: 1,
    slots: 1,
    led5: 1,
    led12: 0,
    cpuPlugs: 1,
  },
  "Mini-ITX": {
    w: 170,
    h: 170,
    holes: holes("C", "F", "H", "J"),
    dimms: 2,
    caseFans: 1,
    usb2: 1,
    usb3: 1,
    sata: 2,
    m2: 2,
    slots: 1,
    led5: 1,
    led12: 0,
    cpuPlugs: 1,
  },
};
const formOf = (v: Values): Form => (FORM[s(v, "form")] ?? FORM.ATX) as Form;
/** Slots stand 20.32 mm apart (ATX specification 2.2). */
const SLOT_MM = 20.32;

export const BOARD: TypicalKind = {
  along: ["SATA data cables", "screws for M.2 drives", "an antenna", "ties or labels for leads"],
  // As one goes round the board with a finger.
  groups: {
    "Top edge": ["cpuPlugs", "cpuOpt", "pump"],
    "Right edge": ["usb3", "usbc", "sata"],
    "Bottom edge": ["usb2", "led5", "led12"],
    "Over the board": ["caseFans", "dimms", "m2", "m2Two", "m2Sata", "slots", "wireless"],
  },
  figures: [
    {
      id: "form",
      word: "form factor",
      options: Object.keys(FORM),
      by: "label",
      range: (v) => (s(v, "form") === "ATX" ? ["microATX"] : []),
      ask: (x) => `Which size is ${x}: ATX, microATX, Mini-ITX?`,
    },
    {
      id: "socket",
      word: "CPU socket",
      by: "label",
      range: (v) => others(v, "socket", "another"),
      ask: (x) => `Is the CPU socket of ${x} the processor's own?`,
    },
    {
      id: "memory",
      word: "memory type",
      options: ["DDR4", "DDR5"],
      by: "label",
      range: (v) => others(v, "memory", "DDR4", "DDR5"),
      ask: (x) => `Which memory does ${x} take: DDR4 or DDR5?`,
    },
    { id: "dimms", word: "memory slots", by: "seen", range: (v) => others(v, "dimms", 2, 4), ask: (x) => `How many memory slots has ${x}?` },
    {
      id: "caseFans",
      word: "case fan headers",
      by: "seen",
      range: (v) => between(v, "caseFans", n(v, "caseFans") <= 2 ? 1 : 2, n(v, "caseFans") + 2),
      ask: (x) => `How many headers for case fans has ${x}?`,
    },
    {
      id: "cpuOpt",
      word: "second CPU fan header",
      by: "seen",
      range: (v) => others(v, "cpuOpt", true, false),
      ask: (x) => `Has ${x} a second header for a fan of the CPU cooler?`,
    },
    { id: "pump", word: "pump header", by: "seen", range: (v) => others(v, "pump", true, false), ask: (x) => `Has ${x} a header for a pump?` },
    { id: "usb2", word: "USB 2 headers", by: "seen", range: (v) => between(v, "usb2", 1, 3), ask: (x) => `How many USB 2 headers has ${x}?` },
    {
      id: "usb3",
      word: "USB 3 headers",
      by: "seen",
      range: (v) => between(v, "usb3", 1, 2),
      ask: (x) => `How many USB 3 headers (20 pins) has ${x}?`,
    },
    {
      id: "usbc",
      word: "front USB-C header",
      by: "seen",
      range: (v) => others(v, "usbc", true, false),
      ask: (x) => `Has ${x} a header for front USB-C?`,
    },
    { id: "sata", word: "SATA ports", by: "seen", range: (v) => between(v, "sata", 2, 8), ask: (x) => `How many SATA ports has ${x}?` },
    { id: "m2", word: "M.2 slots", by: "manual", range: (v) => between(v, "m2", 1, 4), ask: (x) => `How many M.2 slots has ${x}?` },
    {
      id: "m2Two",
      word: "M.2 slots with two lanes",
      by: "manual",
      range: (v) => (n(v, "m2") > 1 ? between(v, "m2Two", 0, 1) : []),
      ask: (x) => `How many M.2 slots of ${x} have only two lanes?`,
    },
    {
      id: "m2Sata",
      word: "M.2 slots that take SATA",
      by: "manual",
      range: (v) => between(v, "m2Sata", 0, n(v, "m2")),
      ask: (x) => `How many M.2 slots of ${x} take SATA drives, too?`,
    },
    {
      id: "slots",
      word: "expansion slots",
      by: "seen",
      range: (v) => between(v, "slots", 1, 4),
      ask: (x) => `How many long expansion slots has ${x}?`,
    },
    {
      id: "led5",
      word: "5 V light headers",
      by: "seen",
      range: (v) => between(v, "led5", 0, 3),
      ask: (x) => `How many 5 V light headers (3 pins) has ${x}?`,
    },
    {
      id: "led12",
      word: "12 V light headers",
      by: "seen",
      range: (v) => between(v, "led12", 0, 2),
      ask: (x) => `How many 12 V light headers (4 pins) has ${x}?`,
    },
    {
      id: "cpuPlugs",
      word: "CPU power sockets",
      by: "seen",
      range: (v) => others(v, "cpuPlugs", 1, 2),
      ask: (x) => `How many CPU power sockets has ${x}?`,
    },
    {
      id: "wireless",
      word: "wireless on board",
      by: "label",
      range: (v) => others(v, "wireless", true, false),
      ask: (x) => `Has ${x} wireless on board?`,
    },
  ],
  typical: (said, b: Beside) => {
    const form = s(said, "form") || b.form || "ATX";
    const f = (FORM[form] ?? FORM.ATX) as Form;
    const small = form === "Mini-ITX" || form === "FlexATX";
    const usual = `usual on ${form} boards`;
    return {
      form: { value: FORM[form] ? form : "ATX", rule: b.form ? "the case takes it" : "most boards are" },
      socket: { value: b.socket ?? "assumed", rule: "taken to fit the processor of the list" },
      memory: { value: b.memory ?? "DDR5", rule: b.memory ? "taken to fit the memory of the list" : "boards of these years" },
      dimms: { value: f.dimms, rule: usual },
      caseFans: { value: f.caseFans, rule: usual },
      cpuOpt: { value: !small, rule: usual },
      pump: { value: !small, rule: usual },
      usb2: { value: f.usb2, rule: usual },
      usb3: { value: f.usb3, rule: usual },
      usbc: { value: true, rule: "boards of these years" },
      sata: { value: f.sata, rule: usual },
      m2: { value: f.m2, rule: usual },
      m2Two: { value: 0, rule: usual },
      m2Sata: { value: Math.max(0, (said.m2 === undefined ? f.m2 : n(said, "m2")) - 2), rule: "from the third on, as is usual" },
      slots: { value: f.slots, rule: usual },
      led5: { value: f.led5, rule: usual },
      led12: { value: f.led12, rule: usual },
      cpuPlugs: { value: f.cpuPlugs, rule: usual },
      wireless: { value: false, rule: "where nobody says so" },
    };
  },
  make: (v) => {
    const f = formOf(v);
    const small = f.h < 200;
    const right = f.w - 6;
    const low = f.h - 6;
    const port = (id: string, family: string, flow: "in" | "out", role: string, xMm: number, yMm: number, more: object = {}) => ({
      id,
      label: id,
      family,
      flow,
      role,
      at: { xMm: Math.min(f.w - 4, Math.max(4, xMm)), yMm: Math.min(f.h - 4, Math.max(4, yMm)) },
      ...more,
    });
    const fan = { control: "both", reportsSpeed: true };
    const cpu = small ? [85, 70] : [100, 85];
    const dimmX = small ? 140 : 152;
    // Case fans where they usually are: beside the rear sockets, at the right edge, then along the bottom.
    const fansAt = (i: number): [number, number] =>
      i === 0 ? (small ? [right, 69] : [14, Math.min(178, low - 60)]) : i === 1 ? [right, small ? 50 : 150] : [118 - 18 * (i - 2), low];
    const bottom = (i: number) => 154 + 22 * i;
    const slotY = (i: number) => (small ? 158 : 165 + (i === 0 ? 0 : SLOT_MM * (2 + i)));
    const slots = Math.min(n(v, "slots"), small ? 1 : Math.max(1, Math.floor((f.h - 165) / SLOT_MM) - 2));
    const ports = [
      port("ATX_PWR", "atx-24", "in", "board-power", right, small ? 35 : 110, { turned: 90, need: "mandatory", load: { powerW: 60 } }),
      ...times(n(v, "cpuPlugs"), (i) =>
        port(`CPU_PWR${i + 1}`, "cpu-8", "in", "cpu-power", (small ? 22 : 28) + 24 * i, 6, { rank: i, need: i === 0 ? "mandatory" : "optional" }),
      ),
      port("CPU_FAN", "fan-4", "out", "cpu-fan", small ? 118 : 150, 6, { ...fan, limit: { currentA: 1 } }),
      ...(is(v, "cpuOpt") ? [port("CPU_OPT", "fan-4", "out", "cpu-optional-fan", 166, 6, { ...fan, limit: { currentA: 1 } })] : []),
      ...(is(v, "pump") ? [port("PUMP1", "fan-4", "out", "pump", small ? 134 : 182, 6, { ...fan, limit: { currentA: 2 } })] : []),
      ...times(n(v, "caseFans"), (i) => port(`SYS_FAN${i + 1}`, "fan-4", "out", "case-fan", ...fansAt(i), { ...fan, limit: { currentA: 1 } })),
      port("PANEL1", "panel-block", "out", "panel", small ? 150 : 220, small ? 140 : low, { need: "wanted" }),
      port("AUDIO1", "hd-audio", "out", "audio", small ? 12 : 18, small ? 148 : low),
      ...times(n(v, "usb2"), (i) => port(`USB2_${i + 1}`, "usb2", "out", "usb", small ? right : bottom(i), small ? 150 - 12 * i : low)),
      ...times(n(v, "usb3"), (i) => port(`USB3_${i + 1}`, "usb3-20", "out", "usb", right, (small ? 105 : 189) + 22 * i, { turned: 90 })),
      ...(is(v, "usbc") ? [port("USBC_1", "usbc-20", "out", "usb", right, small ? 82 : 165, { turned: 90 })] : []),
      ...times(n(v, "led5"), (i) =>
        port(`LED5V_${i + 1}`, "light-5v", "out", "light", [40, f.w - 32, 84][i] ?? 62, i === 1 || small ? 6 : low, { limit: { currentA: 3 } }),
      ),
      ...times(n(v, "led12"), (i) =>
        port(`LED12V_${i + 1}`, "light-12v", "out", "light", 62 - 36 * i, i === 0 ? low : low - 8, { limit: { currentA: 3 } }),
      ),
      ...times(n(v, "sata"), (i) =>
        port(
          `SATA_${i + 1}`,
          "sata-data",
          "out",
          "drive-data",
          i >= 6 ? right - 14 : right,
          (small ? 126 : Math.min(219.6, low - 60)) + 9 * (i % 6),
          { turned: 90, rank: i },
        ),
      ),
      ...times(n(v, "m2"), (i) =>
        port(
          `M2_${i + 1}`,
          "m2",
          "out",
          "drive-data",
          small ? 90 : (([110, 110, 150, 150] as const)[i] ?? 110),
          small ? 130 + 18 * i : Math.min(low - 20, [150, 205, 240, 268][i] ?? 150),
          {
            key: "M",
            rank: i,
            // The first are the fast ones; those that take SATA, too, and those with fewer lanes come last.
            protocols: i < n(v, "m2") - (v.m2Sata === undefined ? n(v, "m2") - 2 : n(v, "m2Sata")) ? ["nvme"] : ["nvme", "sata"],
            link: { generation: 4, lanes: i < n(v, "m2") - n(v, "m2Two") ? 4 : 2 },
          },
        ),
      ),
      port("CPU", "cpu-socket", "out", "cpu", cpu[0] ?? 100, cpu[1] ?? 85, { key: s(v, "socket") }),
      ...times(n(v, "dimms"), (i) =>
        port(
          n(v, "dimms") === 2 ? (["DIMM_A1", "DIMM_B1"][i] ?? "") : (["DIMM_A1", "DIMM_A2", "DIMM_B1", "DIMM_B2"][i] ?? ""),
          "memory-slot",
          "out",
          "memory",
          dimmX + 9 * i,
          small ? 85 : 85,
          {
            key: s(v, "memory"),
            rank: n(v, "dimms") === 2 ? i : ([2, 0, 3, 1][i] ?? i),
          },
        ),
      ),
      ...times(slots, (i) => port(`SLOT_${i + 1}`, "pcie-slot", "out", "expansion", 75, slotY(i), { rank: i })),
    ];
    return {
      ports: ports as never,
      leads: [],
      cables: [
        {
          id: "sata-lead",
          label: "SATA data cable",
          count: 2,
          ends: [
            { id: "end-1", family: "sata-data", atMm: 0 },
            { id: "end-2", family: "sata-data", atMm: 500 },
          ],
        },
      ] as never,
      body: {
        widthMm: f.w,
        heightMm: f.h,
        formFactor: s(v, "form"),
        holes: f.holes.map(([id, xMm, yMm]) => ({ id, at: { xMm, yMm } })),
        landmarks: [{ label: "Rear sockets", at: { xMm: 0, yMm: 20 }, widthMm: 26, heightMm: small ? 110 : 140 }],
      },
      ratings: {
        peakW: small ? 40 : 55,
        idleW: 18,
        limitMts: s(v, "memory") === "DDR4" ? 3200 : 6400,
        ...(is(v, "wireless") ? { wireless: true } : {}),
        outputs: [
          { socket: "HDMI", count: 1, widthPx: 3840, heightPx: 2160, hz: 60 },
          { socket: "DisplayPort", count: 1, widthPx: 3840, heightPx: 2160, hz: 60 },
        ],
      },
    };
  },
};

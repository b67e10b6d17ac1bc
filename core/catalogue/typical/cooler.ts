import { between, is, n, others, s, type TypicalKind, times, type Values } from "./kind";

const NOT_SAID = "not said";
/** What of its box goes on which socket; nothing where nobody said so. */
function kitsOf(v: Values): { mountings?: { socket: string; bracket: string; backplate: "own" }[] } {
  const said = s(v, "sockets");
  if (said === "" || said === NOT_SAID) return {};
  const sockets = [...new Set(said.split(/[,;/]/).map((x) => x.trim().slice(0, 60)))].filter(Boolean).slice(0, 12);
  return { mountings: sockets.map((socket) => ({ socket, bracket: `for ${socket}`, backplate: "own" })) };
}

export const COOLER: TypicalKind = {
  along: ["brackets for other sockets", "paste that is left", "a splitter for its fans", "spare fan clips", "its driver or key"],
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
    {
      id: "sockets",
      word: "CPU sockets it has kits for",
      by: "label",
      range: () => [],
      ask: (x) => `Which CPU sockets, with commas between, does the box of ${x} have mounting kits for?`,
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
      sockets: { value: NOT_SAID, rule: "where nobody says so" },
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
          ...kitsOf(v),
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
        ...kitsOf(v),
        heightMm: n(v, "heightMm"),
        radiator: { fanMm: fanMm as 120 | 140, fans, lengthMm: fans * fanMm + 37, widthMm: fanMm, thicknessMm: n(v, "thickMm"), tubeMm: 400 },
      },
      ratings: { cooledW: n(v, "cooledW"), powerW: 4.2 + 2.4 * fans, peakW: 4.2 + 2.4 * fans, pasteApplied: true },
    };
  },
};

const fansOf = (mm: number): { fanMm: number; fans: number } =>
  mm % 140 === 0 && mm % 120 !== 0 ? { fanMm: 140, fans: Math.max(1, mm / 140) } : { fanMm: 120, fans: Math.max(1, Math.round(mm / 120)) };

import { between, n, type TypicalKind, times } from "./kind";

export const HUB: TypicalKind = {
  along: ["adhesive pads", "spare leads"],
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

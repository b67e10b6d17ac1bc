import { n, others, type TypicalKind, times } from "./kind";

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

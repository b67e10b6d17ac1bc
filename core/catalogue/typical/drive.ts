import { n, others, s, type TypicalKind } from "./kind";

export const DRIVE: TypicalKind = {
  along: ["screws", "a bracket for another bay"],
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

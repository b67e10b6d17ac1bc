import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { pluggedDemo } from "../../tests/fixtures/demo";
import { linesOf, type Reported, readReport } from ".";

// Made up after the documented formats of these programs: a machine of tests has no such sensors. From memory, fields as their manuals name them.
const LSHW = JSON.stringify({
  id: "host",
  class: "system",
  children: [
    {
      id: "core",
      class: "bus",
      children: [
        { id: "firmware", class: "memory", version: "1.42", size: 65536 },
        {
          id: "memory",
          class: "memory",
          size: 34359738368,
          children: [
            { id: "bank:0", class: "memory", slot: "DIMM 0" },
            { id: "bank:1", class: "memory", size: 17179869184, clock: 4800000000 },
            { id: "bank:3", class: "memory", size: 17179869184, clock: 4800000000 },
          ],
        },
        { id: "cpu", class: "processor", product: "A processor" },
        {
          id: "nvme",
          class: "storage",
          children: [{ id: "namespace:1", class: "disk", product: "Swift 1 TB", serial: "PE104107", size: 1000204886016 }],
        },
      ],
    },
  ],
});
const SENSORS = JSON.stringify({
  "chip-isa-0290": {
    Adapter: "ISA adapter",
    CPU_FAN: { fan1_input: 1180.0, fan1_min: 0.0 },
    fan7: { fan7_input: 99999.0 },
    SYSTIN: { temp1_input: 34.5 },
    AUXTIN3: { temp4_input: -62.0 },
    in0: { in0_input: 0.9 },
  },
});
const SMART = JSON.stringify({
  smartctl: { version: [7, 3] },
  model_name: "Swift 1 TB",
  serial_number: "PE104107",
  user_capacity: { bytes: 1000204886016 },
  temperature: { current: 41 },
  power_on_time: { hours: 3 },
  smart_status: { passed: true },
});
const DMI = `# dmidecode 3.4
SMBIOS 3.5.0 present.

Handle 0x0000, DMI type 0, 26 bytes
BIOS Information
\tVersion: 1.42

Handle 0x0010, DMI type 17, 92 bytes
Memory Device
\tSize: 16 GB
\tLocator: DIMM_A2
\tSpeed: 6000 MT/s
\tConfigured Memory Speed: 4800 MT/s

Handle 0x0011, DMI type 17, 92 bytes
Memory Device
\tSize: No Module Installed
`;
const good = (text: string): Reported => {
  const r = readReport(text);
  if (typeof r === "string") throw new Error(r);
  return r;
};
const value = (r: Reported, id: string) => r.read.find((x) => x.id === id)?.value;

describe("report files", () => {
  it("each is known by what is in it, and says memory, drives, speeds and heat; what is not understood is kept", () => {
    const all = [LSHW, SENSORS, SMART, DMI].map(good);
    expect(all.map((r) => r.from)).toEqual(["lshw", "sensors", "smartctl", "dmidecode"]);
    const [lshw, sensors, smart, dmi] = all as [Reported, Reported, Reported, Reported];
    expect([value(lshw, "memory-size"), value(lshw, "memory-speed"), value(lshw, "firmware")]).toEqual([32, 4800, "1.42"]);
    expect(lshw.drives).toEqual([{ model: "Swift 1 TB", serial: "PE104107", sizeGb: 1000 }]);
    expect([value(sensors, "fan:CPU_FAN"), value(sensors, "temperature:SYSTIN")]).toEqual([1180, 34.5]);
    expect(sensors.unknown).toEqual(["chip-isa-0290 fan7 (99999)", "chip-isa-0290 AUXTIN3 (-62)", "chip-isa-0290 in0"]);
    expect([value(smart, "temperature:PE104107"), value(smart, "health:PE104107"), value(smart, "hours:PE104107")]).toEqual([41, "passed", 3]);
    expect([value(dmi, "memory-size"), value(dmi, "memory-speed"), value(dmi, "firmware")]).toEqual([16, 4800, "1.42"]);
  });
  it.each([
    ["", /empty/],
    [LSHW.slice(0, 200), /cut off/],
    ["[1, 2]", /none of the reports/],
    ["hello", /none of the reports/],
    ['{"a": 1}', /none of the reports/],
  ])("%.20j is refused in a sentence", (text, words) => {
    expect(readReport(text)).toMatch(words);
  });
  it("whatever JSON comes, there is an answer", () => {
    fc.assert(fc.property(fc.json({ maxDepth: 6 }), (text) => void readReport(text)));
  });
});

describe("what they say of the sheet", () => {
  it("memory by its number or its clock, drives by serial or size, what a report does not speak of is left out", async () => {
    const graph = await pluggedDemo("fs-1041");
    const sizeGb = graph.parts.get("nvme-1")?.type.ratings.sizeGb;
    const its = (text: string) => (sizeGb === undefined ? text : text.replace("1000204886016", String(sizeGb * 1e9 + 204_886_016)));
    const lines = linesOf(graph, [good(its(LSHW))]);
    const of = (id: string) => lines.find((l) => l.id === id);
    expect(of("memory-size")).toMatchObject({ expected: "32", seen: "32", state: "as expected" });
    expect(of("memory-speed")).toMatchObject({ expected: "4800", state: "as expected" });
    // It lists every drive of the machine: those that it has not are missing.
    const drives = lines.filter((l) => l.id.startsWith("drive:"));
    expect(drives.filter((l) => l.seen === "listed")).toHaveLength(1);
    expect(drives.filter((l) => l.seen === "missing" && l.state === "otherwise").length).toBeGreaterThan(0);
    expect(lines.some((l) => l.id.startsWith("turns:"))).toBe(false);
    // One drive's own report says nothing of the others.
    expect(linesOf(graph, [good(its(SMART))]).map((l) => l.seen)).toEqual(["listed"]);
    const half = linesOf(graph, [good(DMI)]);
    expect(half.find((l) => l.id === "memory-size")).toMatchObject({ seen: "16", state: "otherwise" });
  });
  it("a fan is a header's only by the header's own name", async () => {
    const graph = await pluggedDemo("fs-1041");
    const cpu = linesOf(graph, [good(SENSORS)]);
    expect(cpu.every((l) => l.id === "reads:board:CPU_FAN")).toBe(true);
    expect(linesOf(graph, [good(SENSORS.replace("CPU_FAN", "fan1"))])).toEqual([]);
  });
});

import { partsOfKind } from "../core/assembly";
import type { SimulatedMachine } from "./machine";

export const REPORTS = ["lshw", "sensors", "smartctl", "dmidecode"] as const;
export type ReportName = (typeof REPORTS)[number];

type Told = NonNullable<SimulatedMachine["told"]>;
const value = (t: Told, id: string) => Number(t.lines.find((l) => l.id === id)?.expected);
const listed = (t: Told) => partsOfKind(t.graph, "drive").filter((d) => t.lines.some((l) => l.id === `drive:${d.id}` && l.expected === "listed"));
const name = (p: { part: { label?: string | undefined }; type: { name: string } }) => p.part.label ?? p.type.name;

/** A report of the machine as the named program writes it, by its documented format (from memory: none of them is run). */
export function reportOf(t: Told, which: ReportName): string {
  const modules = partsOfKind(t.graph, "memory");
  const [sizeGb, mts] = [value(t, "memory-size"), value(t, "memory-speed")];
  const banks = modules.map((m, i) => ({ m, i, bytes: (m.type.ratings.sizeGb ?? sizeGb / modules.length) * 2 ** 30 }));
  switch (which) {
    case "lshw":
      return JSON.stringify(
        {
          id: "simulated",
          class: "system",
          description: "Simulated",
          children: [
            {
              id: "core",
              class: "bus",
              children: [
                {
                  id: "memory",
                  class: "memory",
                  size: sizeGb * 2 ** 30,
                  children: banks.map(({ m, i, bytes }) => ({ id: `bank:${i}`, class: "memory", product: name(m), size: bytes, clock: mts * 1e6 })),
                },
                ...partsOfKind(t.graph, "cpu").map((c) => ({ id: "cpu", class: "processor", product: c.type.name })),
                ...partsOfKind(t.graph, "card")
                  .filter((c) => c.type.ratings.hasGraphics)
                  .map((c) => ({ id: "display", class: "display", product: c.type.name })),
                ...listed(t).map((d, i) => ({
                  id: `disk:${i}`,
                  class: "disk",
                  product: name(d),
                  serial: d.part.serial ?? "",
                  size: (d.type.ratings.sizeGb ?? 0) * 1e9 || 2e9,
                })),
              ],
            },
          ],
        },
        null,
        1,
      );
    case "sensors":
      return JSON.stringify(
        {
          "simulated-isa-0000": Object.fromEntries([
            ...Object.entries(t.readings).flatMap(([k, v]) => (k.endsWith(" °C") ? [[k.slice(0, -3), { temp1_input: v }]] : [])),
            ...t.headers.map((h, i) => [h.label, { [`fan${i + 1}_input`]: h.rpm }]),
          ]),
        },
        null,
        1,
      );
    case "smartctl": {
      const d = listed(t)[0];
      return JSON.stringify({
        smartctl: { version: [7, 3], exit_status: 0 },
        model_name: d ? name(d) : "",
        serial_number: d?.part.serial ?? "",
        ...(d?.type.ratings.sizeGb ? { user_capacity: { bytes: d.type.ratings.sizeGb * 1e9 } } : {}),
        smart_status: { passed: true },
        temperature: { current: 34 },
        power_on_time: { hours: 1 },
      });
    }
    case "dmidecode":
      return [
        "# dmidecode 3.4",
        "SMBIOS 3.4 present.",
        "",
        ...banks.flatMap(({ i, bytes }) => [
          `Handle 0x00${10 + i}, DMI type 17, 92 bytes`,
          "Memory Device",
          `\tSize: ${Math.round(bytes / 2 ** 30)} GB`,
          `\tLocator: DIMM ${i}`,
          `\tConfigured Memory Speed: ${mts} MT/s`,
          "",
        ]),
      ].join("\n");
  }
}

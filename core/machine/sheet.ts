import type { Graph } from "../assembly";
import type { Expectation } from "./expectation";
import type { Observable } from "./observable";
import { simulate } from "./simulate";

/** The sheet of a first start, in the order in which a person looks. */
export const HEADINGS = ["Before the button", "First ten seconds", "Firmware screen", "Settings", "System", "Front ports", "Soak", "Proof"] as const;
export type Heading = (typeof HEADINGS)[number];

const FIRMWARE = new Set(["cpu", "memory-stage", "picture", "fan-warning", "memory-size", "memory-speed"]);

/** Under which heading a line stands. */
export function headingOf(line: string): Heading {
  if (line === "standby") return "Before the button";
  if (FIRMWARE.has(line) || line.startsWith("drive:") || line.startsWith("reads:")) return "Firmware screen";
  if (line.startsWith("port:")) return "Front ports";
  if (line === "cpu-load") return "Soak";
  return "First ten seconds";
}

/** Said by a soak, not by looking: nobody sees at a glance that full load holds. */
export const NEEDS_LOAD: ReadonlySet<string> = new Set(["cpu-load"]);

/** Something that is read, as a line: it leans on nothing that is known. */
const asLine = (o: Observable, group: Expectation["group"]): Expectation => ({
  id: o.id,
  group,
  what: o.what,
  expected: String(o.value),
  wanted: String(o.wanted),
  otherwise: [],
  works: o.isWanted,
  because: o.because,
  leans: [],
  ...(o.unit ? { unit: o.unit } : {}),
  ...(o.tolerance === undefined ? {} : { tolerance: o.tolerance }),
});

/** What the firmware reads of each header's fan: it may be written down, and need not be. rpm. */
export const headerLines = (graph: Graph): Expectation[] =>
  simulate(graph, { loaded: false }).observables.flatMap((o) =>
    o.group === "Headers" && typeof o.value === "number" && o.value > 0 ? [asLine(o, "Fans and pump")] : [],
  );

const AFTER_THE_START = new Set(["memory-channels", "memory-speed-profile"]);

/** Whatever else can be read or heard of a machine, as lines: not asked for on the sheet, and a fault may show in it. */
export const otherLines = (graph: Graph): Expectation[] =>
  simulate(graph).observables.flatMap((o) =>
    o.group === "Sound" ? [asLine(o, "Fans and pump")] : o.group === "Heat" || AFTER_THE_START.has(o.id) ? [asLine(o, "Memory")] : [],
  );

/** What a photo of a line of the sheet hangs on: this, then the line. */
export const SHEET = "sheet:";

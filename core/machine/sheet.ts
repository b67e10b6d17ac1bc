import type { Graph } from "../assembly";
import type { Expectation } from "./expectation";
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

/** What the firmware reads of each header's fan: it may be written down, and need not be. rpm. */
export function headerLines(graph: Graph): Expectation[] {
  return simulate(graph, { loaded: false }).observables.flatMap((o): Expectation[] =>
    o.group !== "Headers" || typeof o.value !== "number" || o.value === 0
      ? []
      : [
          {
            id: o.id,
            group: "Fans and pump",
            what: o.what,
            expected: String(o.value),
            wanted: String(o.wanted),
            otherwise: [],
            works: o.isWanted,
            because: o.because,
            leans: [],
            unit: "rpm",
            ...(o.tolerance === undefined ? {} : { tolerance: o.tolerance }),
          },
        ],
  );
}

/** What a photo of a line of the sheet hangs on: this, then the line. */
export const SHEET = "sheet:";

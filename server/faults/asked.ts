import type { Build } from "../../core/assembly";
import type { Happened } from "../../core/diagnose";

/** What the diagnosis thread is asked: a machine as it is plugged, and what was seen and done of each of its faults. */
export interface AskedAbout {
  build: Build;
  /** What was found in this shop, by kind and mode, and in how many machines. */
  found: Record<string, number>;
  machines: number;
  faults: Happened[][];
  spares?: string[];
}

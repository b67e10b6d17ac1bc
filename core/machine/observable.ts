import type { Group } from "./expectation";

/** Something that is seen, heard or read. */
export interface Observable {
  id: string;
  group: Group | "Headers" | "Sound" | "Heat";
  what: string;
  value: string | number;
  unit?: "GB" | "MT/s" | "rpm" | "dB(A)" | "°C" | "%";
  /** A reading that is off by no more is as predicted. */
  tolerance?: number;
  /** Other ways in which the same is read: the clock for the transfer rate. */
  accepted?: (string | number)[];
  /** What it should be when all is right. */
  wanted: string | number;
  /** Is what will be seen what is wanted? */
  isWanted: boolean;
  because: string;
}

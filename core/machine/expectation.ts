import type { Element, Path } from "./paths";

export const GROUPS = ["Power", "Fans and pump", "Lights", "Start-up", "Memory", "Drives", "Front ports"] as const;
export type Group = (typeof GROUPS)[number];

/** One line of the first-boot sheet. */
export interface Expectation {
  id: string;
  group: Group;
  what: string;
  /** What is to be seen, in the words that the sheet offers. */
  expected: string;
  /** What is to be seen when all is as it should be. */
  wanted: string;
  /** The other things it could be seen to do; empty when a value is typed in. */
  otherwise: string[];
  /** True when the expectation is that it works. */
  works: boolean;
  because: string;
  /** All that must be good for it to work. */
  leans: Element[];
  /** Ids among `leans` that the line could do without: that it holds clears none of them. */
  spare?: string[];
  /** Also seen on a machine that does not get that far: it clears nothing while something it leans on is in doubt. */
  silent?: true;
  unit?: string;
  /** A number that is off by no more is as expected. */
  tolerance?: number;
}

export interface PowerOn {
  /** What happens, in one sentence. */
  verdict: string;
  /** Parts die: do not press. */
  damage: string[];
  stopsAt?: "standby" | "button" | "cpu" | "memory" | "fan-warning" | "picture";
  lines: Expectation[];
}

/** Said of what comes after the place where start-up stops: whether it is good cannot be seen. */
export const NOT_REACHED = "not reached";

/** Seen of a fan that turns and ticks, rattles or rubs. */
export const NOISE = "noise";

export const leansOf = (p: Path) => ({ leans: p.leans, ...(p.spare ? { spare: p.spare } : {}) });

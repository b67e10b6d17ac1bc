import type { Address } from "../assembly";

/**
 * A statement about a graph as a value: kind, the ends concerned, the numbers. Words are made from it in `words.ts` alone, and
 * `holds.ts` checks it against the graph without what made it. Lengths in mm, currents in A, watts in W.
 */
export type Claim =
  // Why a plug is where it is.
  | { kind: "fixed"; lead: Address }
  | { kind: "by-hand"; lead: Address }
  | { kind: "fits"; lead: Address; port: Address }
  | { kind: "shares"; lead: Address; root: string; with: Address[]; zone?: string }
  | { kind: "current"; root: string; a: number; ofA: number }
  | { kind: "leds"; root: string; leds: number; of?: number }
  | { kind: "counted-by-leds"; lead: Address; leds: number; a: number }
  | { kind: "school-kept"; lead: Address }
  | {
      kind: "school-left";
      lead: Address;
      at?: Address;
      asks: "header" | "hub" | undefined;
      there: number;
      others: { port: Address; because: Hindrance }[];
    }
  | { kind: "signal-only"; lead: Address; what: "speed" | "colour" }
  | { kind: "button"; lead: Address }
  | { kind: "low-noise"; lead: Address }
  | { kind: "full-speed"; lead: Address; port: Address }
  | { kind: "run"; lead: Address; port: Address; needMm: number; hasMm: number }
  | { kind: "halves"; lead: Address; halves: 1 | 2 }
  | { kind: "only-kind"; lead: Address }
  | { kind: "pins"; lead: Address; pins: number[]; signals: string[]; polarity: boolean }
  | { kind: "outlet"; lead: Address; system: string; feeds: Address[] }
  | { kind: "cable-load"; cable: string; w: number; ofW?: number }
  | { kind: "one-cable"; cable: string; feeds: Address[] }
  | { kind: "cpu-power"; drawW: number; plugW: number; needed: number }
  | { kind: "card-power"; port: Address; w: number }
  | { kind: "doubled"; cable: string; card: string; wholeW: number; limitW: number; within: boolean }
  | { kind: "adapter"; port: Address; w: number; extends?: true }
  | { kind: "main-plug"; port: Address }
  | { kind: "slot-fastest"; lead: Address; port: Address; first: boolean; off: string[] }
  | { kind: "slot-speed"; lead: Address; port: Address; carriesMBs: number; readsMBs: number }
  | { kind: "boots"; lead: Address }
  | { kind: "heatsink"; port: Address }
  | { kind: "lanes"; lead: Address; port: Address; lanes: number; wants: number; sharedWith: Address[] }
  | { kind: "first-card"; lead: Address; port: Address }
  | { kind: "board-order"; lead: Address; port: Address; modules: number }
  | { kind: "cpu-socket"; lead: Address }
  | { kind: "data-port"; drive: Address; port: Address }
  // Why an end is free.
  | { kind: "no-port"; lead: Address }
  | { kind: "own-control"; lead: Address }
  | { kind: "spare"; end: Address }
  | { kind: "no-pins"; lead: Address; block: Address }
  | { kind: "middle-blank"; lead: Address; block: Address }
  | { kind: "hindered"; lead: Address; ports: { port: Address; because: Hindrance }[] }
  | { kind: "room"; end: Address; port: Address; planned: boolean }
  | { kind: "cpu-enough"; socket: Address; drawW: number; carriesW: number; filled: number }
  | { kind: "cpu-short"; socket: Address; drawW: number; carriesW: number }
  | { kind: "no-plug"; socket: Address }
  | { kind: "weak-plugs"; socket: Address; w: number; strongestW: number }
  | { kind: "plugs-short"; socket: Address; missingMm: number }
  | { kind: "plugs-in-use"; socket: Address; plugs: number }
  | { kind: "cables-full"; socket: Address; w: number; cables: { cable: string; w: number; ofW: number }[] }
  | { kind: "no-outlet"; socket: Address; systems: string[] }
  | { kind: "data-ports-gone"; socket: Address; taken: Address[]; off: { port: Address; by: Address }[] }
  | { kind: "no-data-cable"; socket: Address; used: number }
  | { kind: "data-cable-short"; socket: Address; missingMm: number }
  | { kind: "unknown"; end: Address; planned: boolean };

/** What keeps a lead out of one port that it fits. */
export type Hindrance =
  | { kind: "taken"; by: Address[] }
  | { kind: "reach"; missingMm: number }
  | { kind: "over"; a: number; ofA: number }
  | { kind: "over-start"; a: number; ofA: number }
  | { kind: "leds"; leds: number; of: number }
  | { kind: "pump"; with: Address[] }
  | { kind: "own-kind" }
  | { kind: "own-part" }
  | { kind: "ring" }
  | { kind: "cooler" }
  | { kind: "dead"; lead: Address }
  | { kind: "off"; by: Address }
  | { kind: "switches-off"; ports: Address[] }
  | { kind: "protocol" }
  | { kind: "lanes"; lanes: number };

import type { Address } from "../assembly";
import type { Where } from "./where";

/** How the case lies while hands are in it. The first is how it stands when it comes out of its box. */
export const POSTURES = ["standing", "front-up", "behind-up"] as const;
export type Posture = (typeof POSTURES)[number];

export const POSTURE_WORDS: Readonly<Record<Posture, string>> = {
  standing: "on its feet",
  "front-up": "front of the tray up",
  "behind-up": "behind the tray up",
};

/** What hands do in a step. */
export const STEP_KINDS = ["prepare", "assemble", "test", "fit", "plug", "route", "dress", "gate", "check", "close"] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/**
 * needs: the one makes no sense before the other. covers: the one hides the place of the other. reach: a lead reaches only once its
 * part is where it belongs. school: the shop works so, or somebody pulled the step by hand.
 */
export type PrecedenceKind = "needs" | "covers" | "reach" | "school";

/** The reason of a precedence that somebody's hand made. */
export const BY_HAND = "somebody pulled it forward by hand";

/** `before` comes before `after`, and why. */
export interface Precedence {
  before: string;
  after: string;
  kind: PrecedenceKind;
  why: string;
}

/** Minutes of hands, and minutes that run by themselves. */
export interface Minutes {
  handsOn: number;
  unattended: number;
}

/** What is plugged for a bench test, and which pins are bridged for a moment to start it. */
export interface Rig {
  ports: readonly Address[];
  /** Where the fan of a small spare cooler is plugged that stands in for one which is not on the table. */
  spareFan?: Address;
  bridge?: { port: Address; pins: readonly number[] };
}

/** One thing that hands do, as the build asks for it; its place in the order is worked out from the precedences. */
export interface Work {
  id: string;
  kind: StepKind;
  title: string;
  detail: string;
  /** How one knows that it is right. */
  rightWhen?: string;
  /** How the case may lie. Empty: on the table, the case does not matter. */
  postures: readonly Posture[];
  minutes: Minutes;
  /** Whose figure that is: practice, or so many times of the shop's own. */
  minutesFrom: "practice" | "said" | number;
  /** What the minutes of the shop are kept under: steps of one measure take about as long. */
  measure: string;
  tools: readonly string[];
  caution?: string;
  /** Parts that hands hold. */
  parts: readonly string[];
  /** The connection that it makes, when it makes one. */
  lead?: Address;
  port?: Address;
  /** Leads that it moves: its own, or those of a bundle. */
  leads: readonly Address[];
  screws: number;
  takesOff: readonly string[];
  putsBack: readonly string[];
  /** What must be made anew when it has to be done a second time. */
  anew?: string;
  /** What is to be photographed here, before it is out of sight. */
  photo?: string;
  /** It presses the power button. */
  presses?: true;
  /** Bench test: ports of the board that are plugged, and the two pins that stand in for the button. */
  rig?: Rig;
  /** Usual turn of work, lower first; hands go along an edge by `along`. */
  stage: number;
  along: number;
  /** Steps at one place are one go: one card at the bench. */
  where: Where;
  /** Once one of these is done it is too late for this step: it is not shown any more. */
  mootOnce: readonly string[];
  done: boolean;
}

/** Everything that is to be done, and what must come before what. */
export interface Problem {
  works: readonly Work[];
  precedences: readonly Precedence[];
  /** Schools that cannot be followed here, each in a sentence. */
  gaveWay: readonly string[];
  conflicts: readonly Conflict[];
  /** Steps for which it is too late: a bench that has not heard yet may still say that they are done. */
  late: readonly Pick<Work, "id" | "title" | "measure" | "parts" | "kind">[];
}

/** Steps of which each needs the other first. */
export interface Conflict {
  steps: readonly string[];
  why: string;
  /** What would resolve it; each was tried: the order was worked out with it. */
  ways: readonly { words: string; turns: number }[];
}

/** A step in its place of the order. */
export interface Step extends Omit<Work, "stage" | "along" | "mootOnce"> {
  /** How the case lies when it is done; undefined: on the table. */
  posture?: Posture;
  /** What comes first. Why: left out where nobody reads it. */
  after: readonly { step: string; kind: PrecedenceKind; why?: string }[];
  /** Steps whose place it hides. */
  covers: readonly string[];
  coversWords?: string;
  /** Number of its block: a block ends where the case is turned. */
  block: number;
}

export interface Order {
  steps: readonly Step[];
  /** How the case lies, block by block. */
  blocks: readonly Posture[];
  /** How the case lies now. */
  lies: Posture;
  /** Turns of the case that are still to be made. */
  turns: number;
  /** Of the steps that are not done. */
  left: Minutes;
  conflicts: readonly Conflict[];
  gaveWay: readonly string[];
  late: Problem["late"];
}

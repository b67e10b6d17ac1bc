import type { Graph, LeadNode, Policy, PortNode } from "../assembly";

/** Where a fan's command comes from, as a school looks at it. */
export interface Commanded {
  /** The header at the end, through hubs and splitters; undefined: the part's own knob or electronics, or nothing. */
  header?: PortNode | undefined;
  /** The part on whose powered ports it hangs, if any: a hub, or a cooler with outlets. */
  hub?: { id: string; kind: string } | undefined;
}

/** One answer to a question. */
export interface Answer {
  words: string;
  /** What it risks (common practice). */
  risk?: string;
}

/**
 * A question on which good technicians differ, with the answers that there are. All of a school is in one file: its options, which
 * leads it speaks of and when one departs from it, and its words.
 */
export interface School<K extends keyof Policy = keyof Policy> {
  id: K;
  word: string;
  /** Every answer that the policy knows, in words. */
  options: Record<Extract<`${Policy[K] & (string | number)}`, string>, Answer>;
  /** Another answer moves plugs, so that a plan goes stale by it. */
  movesPlugs: boolean;
  /** Roles of the leads that it speaks of. */
  roles: readonly string[];
  /** Does a lead of these roles, commanded so, depart from the answer that was chosen? */
  departs?: (graph: Graph, lead: LeadNode, commanded: Commanded) => boolean;
  /** Does the answer that was chosen ask for a powered hub, not for a header of the board? */
  asksHub?: (policy: Policy) => boolean;
  /** What it says of a lead of these roles, in a clause for "why here". */
  words?: (policy: Policy, lead: LeadNode) => string;
}

export const COOLING_HEADERS = ["cpu-fan", "cpu-optional-fan"];
/** Is a lead commanded from a header of one of these roles? */
export const isAt = ({ header }: Commanded, ...roles: string[]): boolean => header !== undefined && roles.includes(header.port.role);

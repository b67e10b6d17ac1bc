import type { Stage } from "./stage";

/** A lead as it was called when the event happened. */
export interface LeadSaid {
  lead: string;
  tag: string;
  name: string;
}

/** Where a lead stood before it was moved, so that the whole move can be taken back. */
export interface Stood {
  port: string;
  place?: number[];
  state: string;
}

/**
 * What can happen to a job, by kind, with its data: names are those of the moment. An event is never changed; a correction is
 * another event, whose data has `takesBack`, the number of the first. Money in the shop's currency, dates as YYYY-MM-DD.
 */
export interface JobEvents {
  brief: { changes: string[] };
  "figure-confirmed": { part: string; name: string; word: string; value: string; was?: string };
  "job-made": { number: string; client: string; parts: number; from: "list" | "file"; copyOf?: string; aside?: number };
  "part-added": { names: string[]; count: number };
  "part-removed": { part: string; name: string };
  "part-placed": { part: string; name: string; changes: string[] };
  /** A length measured by hand, mm; null: what the entry says counts again. `was`: what counted before. */
  "part-measured": { part: string; name: string; what: string; word: string; mm: number | null; was: number | null };
  "part-named": { part: string; was: string; now: string };
  "part-serial": { part: string; name: string; serial: string | null };
  "part-swapped": { part: string; name: string; was: string; now: string };
  "part-corrected": { part: string; name: string; type: string; revision: number };
  /** Prices, supplier, ordered and expected of equal parts. */
  bought: { names: string[]; count: number; price?: number; supplier?: string; orderedOn?: string; expectedOn?: string };
  /** What is known of a piece changed; in words what. */
  facts: { part: string; name: string; changed: string[] };
  offered: { count: number; total: number; unpriced: number };
  "offer-accepted": { count: number; by: string; on: string; total: number };
  "accessories-ordered": { items: { name: string; count: number }[] };
  wishes: { changes: { what: string; value: string | number | boolean | null }[]; fanShare?: number };
  schools: { changes: { school: string; answer: string }[] };
  setting: { memoryProfile?: boolean; cpuFanWarning?: "halt" | "ignore"; because?: string };
  planned: { revision: number; status: string; placed: number; free: number; moved: number; proof: string };
  "plan-proved": { revision: number };
  /** A plug is in now, was checked, or is out again. `planned`: where the plan wanted it, when that is another port. */
  plug: LeadSaid & { port: string; portName: string; state: "plugged" | "checked" | "out"; planned?: string; was?: Stood };
  /** Its place was taken by hand; it has the one that was left. */
  "place-exchanged": LeadSaid & { portName: string; with: string; was: Stood };
  "place-lost": LeadSaid & { portName: string; was?: Stood };
  /** `was`: where it stood before, nowhere: null; `lost`: who stood there. */
  fixed: LeadSaid & { port: string; portName: string; fixed: boolean; bumped: string[]; was?: Stood | null; lost?: ({ lead: string } & Stood)[] };
  /** Led through a cut-out by choice; null: the usual way again. */
  "led-through": LeadSaid & { cutout: string | null; label: string };
  step: { step: string; title: string; done: boolean };
  /** Pulled before another step by hand; both by their titles of then. */
  pulled: { step: string; title: string; before: string; was?: { step: string; before: string }[] };
  "let-go": { was?: { step: string; before: string }[] };
  photo: { photo: string; of: string };
  note: { text: string };
  skipped: { text: string };
  problem: { text: string };
  seen: { line: string; what: string; value: string; expected: string; asExpected: boolean; unit: string };
  "fault-opened": { number: number; what: string };
  "fault-closed": { number: number; finding: string };
  tried: { element: string; name: string; result: string; closed: number[] };
  received: { part: string; name: string; serial?: string; supplier?: string; warrantyUntil?: string; price?: number };
  tested: { part: string; name: string; result: "passed" | "dead"; with: string; waitUntil?: string };
  /** What came is not taken: damaged, another than ordered, or not in its box. */
  refused: { part: string; name: string; why: "damaged" | "wrong" | "missing"; words: string; serial: string | null };
  replaced: { part: string; name: string; serial: string | null };
  "set-aside": { finding: string; message: string; reason: string };
  soaking: Record<string, never>;
  /** One thing of the set-up. */
  "set-up": { what: string; target: string; state: "set" | "later" | "not"; before: string; after: string; why: string; stands: string };
  /** A report file of the machine. */
  report: { name: string; from: string; lines: number; read: string[] };
  /** Something that was promised. */
  proved: { words: string; verdict: string; because: string; conditions: string };
  "soak-log": { name: string; verdict: string; minutes: number; because: string; simulated?: true };
  lent: { what: string; owner: string; serial: string };
  "loan-back": { what: string; serial: string };
  /** What it is, never what it says. */
  "secret-kept": { what: string };
  "secret-shown": { what: string };
  "by-itself": { what: string; minutes: number };
  "by-itself-seen": { what: string; afterMinutes: number };
  /** A machine, or a stand-in, may send its readings; `until` in ISO 8601. */
  "machine-let-in": { name: string; until: string; simulated?: true };
  "machine-shut-out": { name: string };
  waiting: { for: string; until: string | null };
  "goes-on": { to: Stage };
  "handed-over": { open: string[]; reason: string };
  /** Something of how it leaves: its way out, a word of the client's, what was seen in the bag, its safety test. */
  leaving: { what: string; says: string };
  reopened: { reason: string };
  /** A machine that was handed over is here again: its earlier job, and what the client says. */
  "came-back": { of: string; says: string };
  /** Told in the earlier job. */
  /** A page for the client's eyes was switched on, or off. */
  "client-page": { on: boolean };
  "in-service": { number: string; says: string };
  cancelled: { reason: string };
  details: { changes: { what: string; was: string | number | null; now: string | number | null }[] };
}

export type EventKind = keyof JobEvents;

/** One thing that happened, without who and when. */
export type JobEvent = { [K in EventKind]: { kind: K; data: JobEvents[K] } }[EventKind];

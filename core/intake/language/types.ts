import type { PartKind } from "../../catalogue";

/** The words of one language that lists and mails of parts are written with. Data: another language is another file. */
export interface Language {
  /** What a kind of part is called; several words as one entry, longer ones first. `fits` says more of it: a drive that is a hard disk. */
  kinds: readonly { words: readonly string[]; kind: PartKind; fits?: string }[];
  /** What is asked for and goes into no machine, and what it is. */
  extras: readonly { words: readonly string[]; what: ExtraKind }[];
  /** Numbers written out. */
  numbers: Readonly<Record<string, number>>;
  /** Pieces: "2 pcs". */
  pieces: readonly string[];
  /** Headings of the columns of a table. */
  columns: {
    part: readonly string[];
    what: readonly string[];
    count: readonly string[];
    price: readonly string[];
    each: readonly string[];
    serial: readonly string[];
  };
  /** Lines that add up what stands above. */
  totals: readonly string[];
  /** The client has it already. */
  own: readonly string[];
  /** It has been used before; what follows says from whom. */
  used: readonly string[];
  /** What only people write: verbs and greetings. A line with them is talk, unless it says what is owned. */
  talk: readonly string[];
  greeting: readonly string[];
  farewell: readonly string[];
  /** Words before the client's own name. */
  iAm: readonly string[];
  phone: readonly string[];
  budget: readonly string[];
  /** Words before the day on which it is needed. */
  due: readonly string[];
  weekdays: readonly string[];
  months: readonly string[];
  /** "tomorrow", in days from today. */
  days: Readonly<Record<string, number>>;
  /** Price of one piece. */
  each: readonly string[];
  colours: readonly string[];
  /** Words that say nothing of which part it is. */
  filler: readonly string[];
  /** Words of what a machine must do, and what each line of a promise is about. */
  promises: readonly { words: readonly string[]; about: PromiseKind }[];
  /** Several machines of one list: "two of these". */
  machines: readonly string[];
  /** Either of two things is meant, nobody has decided. */
  without: readonly string[];
}

export const EXTRA_KINDS = [
  "licence",
  "stick",
  "monitor",
  "keyboard",
  "mouse",
  "headset",
  "speakers",
  "gift",
  "service",
  "cable",
  "paste",
  "other",
] as const;
export type ExtraKind = (typeof EXTRA_KINDS)[number];

export const PROMISE_KINDS = ["program", "quiet", "memory-speed", "overclock", "installed", "data-moved", "lights", "wireless", "date"] as const;
export type PromiseKind = (typeof PROMISE_KINDS)[number];

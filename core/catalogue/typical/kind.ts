import type { PartType } from "../part-type";

export type FigureValue = number | string | boolean;
export type Values = Readonly<Record<string, FigureValue>>;

/** What the other lines of a list say that a part has to go with. */
export interface Beside {
  socket?: string;
  memory?: string;
  form?: string;
  /** Of the machine's supply, by what the processor and the card draw, W. */
  drawW?: number;
  /** The case is one of small ones. */
  small?: boolean;
}

/** One value of a part that people can look up, count or measure. */
export interface Figure {
  id: string;
  /** What it is called: "fan headers". */
  word: string;
  unit?: "mm" | "W" | "MT/s" | "GB" | "A";
  /** What it plausibly is besides the value that stands, as is common practice: both ends, and what lies between where an answer may turn. */
  range: (values: Values) => readonly FigureValue[];
  /** In the words of the thing: "How long is it?" */
  ask: (name: string) => string;
  /** What may be chosen, where it is a word. */
  options?: readonly string[];
  /** How it is found out: printed on the box, seen, measured. The easier the sooner it is asked. */
  by: "label" | "seen" | "measured" | "manual";
}

/** A kind of part as it usually is, by what is said of it. Data with the rule that gave it; common practice unless another source is named. */
export interface TypicalKind {
  figures: readonly Figure[];
  /** What else usually lies in its box, and is not always used. */
  along?: readonly string[];
  /** Figures in the order in which one counts them, under headings; those of none stand first. */
  groups?: Readonly<Record<string, readonly string[]>>;
  /** Every figure's value, and the rule that gives it, for what is not said. */
  typical: (said: Values, beside: Beside) => Record<string, { value: FigureValue; rule: string }>;
  /** The part with these values. */
  make: (values: Values) => Pick<PartType, "ports" | "leads" | "cables"> & { body: Partial<PartType["body"]>; ratings: PartType["ratings"] };
}

export const n = (v: Values, id: string): number => Number(v[id] ?? 0);
export const is = (v: Values, id: string): boolean => v[id] === true;
export const s = (v: Values, id: string): string => String(v[id] ?? "");
export const times = <X>(count: number, make: (i: number) => X): X[] => Array.from({ length: Math.max(0, Math.round(count)) }, (_, i) => make(i));
/** Values of a range other than the one that stands. */
export const others = (v: Values, id: string, ...all: FigureValue[]): FigureValue[] => [...new Set(all)].filter((x) => x !== v[id]);
export const between = (v: Values, id: string, low: number, high: number): FigureValue[] => {
  const here = n(v, id);
  return others(v, id, Math.min(low, here), Math.max(high, here));
};

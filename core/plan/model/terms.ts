/** A variable of the model times a whole number. */
export type Term = readonly [variable: number, factor: number];

export const term = (variable: number, factor = 1): Term => [variable, factor];

/** Each of the variables times the same number. */
export const terms = (variables: Iterable<number>, factor = 1): Term[] => [...variables].map((v): Term => [v, factor]);

/** One term for each of a list that counts anything. */
export const each = <X>(list: Iterable<X>, variable: (x: X) => number, factor: (x: X) => number): Term[] =>
  [...list].flatMap((x): Term[] => (factor(x) === 0 ? [] : [[variable(x), factor(x)]]));

/** `lower` <= the sum of the terms <= `upper`. */
export interface Row {
  lower: number;
  upper: number;
  terms: readonly Term[];
  /** Follows from other rows for whole numbers: it only shows the solver sooner what cannot be. */
  implied?: boolean;
}

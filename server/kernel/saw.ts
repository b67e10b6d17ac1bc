import { z } from "zod";
import { contradicts, type Refusal } from "./result";

const Value = z.union([z.string().max(500), z.number(), z.boolean(), z.null()]);
type Value = z.infer<typeof Value>;

/**
 * What the screen showed of each value that is written with it, under the same name. Left out where a person has looked at both facts
 * and says what is so (optimistic concurrency: what somebody else wrote meanwhile is never written over in silence).
 */
export const Saw = z.record(z.string().max(40), Value).optional();
export type Saw = z.infer<typeof Saw>;

/** A value that is about to be written: what is stored now, and what is said now. */
export interface Said {
  field: string;
  /** How it is called, and how a value of it is said. */
  word: string;
  is: Value;
  now: Value | undefined;
  words?: (value: Value) => string;
}

const plain = (v: Value): string => (v === null || v === "" ? "nothing" : v === true ? "yes" : v === false ? "no" : String(v));

/** Two facts, where what is stored is neither what the screen showed nor what is said now; nothing where all may be written. */
export function seenOtherwise(saw: Saw, values: readonly Said[]): Refusal | undefined {
  const empty = (v: Value | undefined) => (v === "" ? null : (v ?? null));
  const other = values.find(
    ({ field, is, now }) =>
      now !== undefined && saw !== undefined && Object.hasOwn(saw, field) && empty(saw[field]) !== empty(is) && empty(now) !== empty(is),
  );
  if (!other) return undefined;
  const { word, is, now = null, words = plain } = other;
  return contradicts(`Meanwhile somebody has said of ${word}: ${words(is)}. You say: ${words(now)}. Nothing was changed. Look, then choose.`, {
    there: words(is),
    yours: words(now),
  });
}

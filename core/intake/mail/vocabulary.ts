import type { PartKind } from "../../catalogue";
import { type ExtraKind, LANGUAGES, type PromiseKind } from "../language";

/** Letters and digits of any script are word characters; a word ends where none follows. */
const literal = (s: string) => s.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
const bound = (words: readonly string[]) =>
  new RegExp(
    `(?<![\\p{L}\\p{N}])(?:${[...words]
      .sort((a, b) => b.length - a.length)
      .map(literal)
      .join("|")})(?![\\p{L}\\p{N}])`,
    "iu",
  );
const all = (pick: (l: (typeof LANGUAGES)[number]) => readonly string[]) => LANGUAGES.flatMap(pick);

export interface KindWord {
  kind: PartKind;
  fits?: string;
  words: readonly string[];
  is: RegExp;
}
export const KINDS: readonly KindWord[] = LANGUAGES.flatMap((l) => l.kinds.map((k) => ({ ...k, is: bound(k.words) })));
export const EXTRAS: readonly { what: ExtraKind; is: RegExp }[] = LANGUAGES.flatMap((l) =>
  l.extras.map((e) => ({ what: e.what, is: bound(e.words) })),
);
export const PROMISES: readonly { about: PromiseKind; is: RegExp }[] = LANGUAGES.flatMap((l) =>
  l.promises.map((p) => ({ about: p.about, is: bound(p.words) })),
);
export const NUMBERS: ReadonlyMap<string, number> = new Map(LANGUAGES.flatMap((l) => Object.entries(l.numbers)));
export const OWN = bound(all((l) => l.own));
export const USED = bound(all((l) => l.used));
export const TALK: ReadonlySet<string> = new Set(all((l) => l.talk));
export const FILLER: ReadonlySet<string> = new Set(all((l) => l.filler));
export const COLOURS: ReadonlySet<string> = new Set(all((l) => l.colours));
export const GREETING = new RegExp(
  `^(?:${all((l) => l.greeting)
    .map(literal)
    .join("|")})(?![\\p{L}\\p{N}])`,
  "iu",
);
/** A farewell with the name on the same line: "lg Kasimir". */
export const CLOSING = new RegExp(
  `^(?:${all((l) => l.farewell)
    .sort((a, b) => b.length - a.length)
    .map(literal)
    .join("|")})[\\s,.!]+(.{2,60})$`,
  "iu",
);
export const FAREWELL = new RegExp(
  `^(?:${all((l) => l.farewell)
    .sort((a, b) => b.length - a.length)
    .map(literal)
    .join("|")})(?![\\p{L}\\p{N}])[\\s,.!]*$`,
  "iu",
);
export const I_AM = new RegExp(
  `(?<![\\p{L}])(?:${all((l) => l.iAm)
    .map(literal)
    .join("|")})\\s*(.+)$`,
  "iu",
);
export const PHONE = bound(all((l) => l.phone));
export const BUDGET = bound(all((l) => l.budget));
export const DUE = bound(all((l) => l.due));
export const TOTAL = new RegExp(
  `^\\s*(?:${all((l) => l.totals)
    .map(literal)
    .join("|")})(?![\\p{L}\\p{N}])`,
  "iu",
);
export const EACH = bound(all((l) => l.each).filter((e) => e !== "@"));
export const MACHINES = bound(all((l) => l.machines));
export const WITHOUT = all((l) => l.without);
export const WEEKDAYS = LANGUAGES.map((l) => l.weekdays);
export const MONTHS = LANGUAGES.map((l) => l.months);
export const DAYS: ReadonlyMap<string, number> = new Map(LANGUAGES.flatMap((l) => Object.entries(l.days)));
export const PIECES = all((l) => l.pieces)
  .sort((a, b) => b.length - a.length)
  .map(literal)
  .join("|");
export const NUMBER_WORDS = [...NUMBERS.keys()]
  .filter((n) => !["a", "an", "one", "ein", "eine", "einen"].includes(n))
  .map(literal)
  .join("|");

type Column = "part" | "what" | "count" | "price" | "each" | "serial";
const COLUMN = new Map<string, Column>(
  LANGUAGES.flatMap((l) =>
    (Object.entries(l.columns) as [Column, readonly string[]][]).flatMap(([c, words]) => words.map((w): [string, Column] => [w, c])),
  ),
);
/** What a column's heading says is in it. */
export const columnOf = (cell: string): Column | undefined =>
  COLUMN.get(
    cell
      .trim()
      .toLowerCase()
      .replace(/[.:()€$]/g, "")
      .trim(),
  );

/** The kind that is named first by the longest of words, and what is left without them. */
export function kindIn(text: string): { kind: PartKind | undefined; fits: string | undefined; rest: string; at: number } {
  let best: { k: KindWord; at: number; found: string } | undefined;
  for (const k of KINDS) {
    const m = k.is.exec(text);
    if (!m) continue;
    // "Graphics card 2 TB drive": the longer word says more; of two as long the first.
    if (!best || m[0].length > best.found.length || (m[0].length === best.found.length && m.index < best.at)) best = { k, at: m.index, found: m[0] };
  }
  const first = Math.min(...KINDS.filter((k) => k.kind === best?.k.kind).map((k) => k.is.exec(text)?.index ?? text.length));
  return best
    ? { kind: best.k.kind, fits: best.k.fits, rest: `${text.slice(0, best.at)} ${text.slice(best.at + best.found.length)}`, at: first }
    : { kind: undefined, fits: undefined, rest: text, at: -1 };
}

/** What it is that goes into no machine, where it is no part. */
export const extraIn = (text: string): ExtraKind | undefined => EXTRAS.find((e) => e.is.test(text))?.what;

export const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}][\p{L}\p{N}'’.+/-]*/gu) ?? [];
/** How many words only people write. */
export const talkIn = (text: string): number => wordsOf(text).filter((w) => TALK.has(w.replace(/[.,!?]+$/, ""))).length;

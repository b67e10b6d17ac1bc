import type { Build, TypeLookup } from "../assembly";
import type { PartType } from "../catalogue";
import type { Agreed, OfferLine } from "../offer";
import type { Verdict } from "../proof";

export const SOLD_STATES = ["same", "other", "better", "missing", "not asked for"] as const;
export type SoldState = (typeof SOLD_STATES)[number];

/** What the client said to a difference: who, on which day, how it was told. */
export interface Word {
  words: string;
  who: string;
  /** ISO day. */
  on: string;
}

/** One line of what was sold beside what is there. */
export interface SoldRow {
  /** The same line has the same id for as long as neither side changes. */
  id: string;
  about: "part" | "beside" | "work" | "moment" | "promise";
  /** Empty: it was not sold. */
  sold: string;
  /** Empty: it is not there. */
  built: string;
  state: SoldState;
  /** What is there minus what was sold, hundredths of the shop's money; what has no price counts as nothing. */
  cents: number;
  word: Word | null;
}

interface Tally {
  type: string | undefined;
  what: string;
  count: number;
  cents: number;
}

const keyOf = (l: OfferLine) => l.type ?? l.what;

/** Lines by type, with what they cost together. */
function tally(lines: readonly OfferLine[]): Map<string, Tally> {
  const out = new Map<string, Tally>();
  for (const l of lines) {
    const had = out.get(keyOf(l)) ?? { type: l.type, what: l.what, count: 0, cents: 0 };
    out.set(keyOf(l), { ...had, count: had.count + l.count, cents: had.cents + (l.own ? 0 : Math.round((l.each ?? 0) * 100) * l.count) });
  }
  return out;
}

const said = (t: Tally, count: number) => (count === 1 ? t.what : `${count} × ${t.what}`);

/** Figures of which more is better, by which a part is judged beside another of its kind. */
const FIGURES = ["sizeGb", "profileMts", "readMBs", "cooledW"] as const;

/** Is one part no worse in any figure that both have, and better in one? Of the others nobody can say: they are other. */
export function isBetter(is: PartType, was: PartType): boolean {
  const both = FIGURES.flatMap((f) => {
    const [a, b] = [is.ratings[f], was.ratings[f]];
    return a === undefined || b === undefined ? [] : [a - b];
  });
  return is.kind === was.kind && both.every((d) => d >= 0) && both.some((d) => d > 0);
}

/** Of `n` of `of`, what a tally costs: the last takes what rounding left. */
const share = (t: Tally, n: number): number => (n === t.count ? t.cents : Math.round((t.cents * n) / t.count));

/** Lists of one sort beside each other: what is alike first; of what is left, another of the same kind stands in for what was sold. */
function besideEachOther(
  about: "part" | "beside",
  soldLines: readonly OfferLine[],
  builtLines: readonly OfferLine[],
  types: TypeLookup,
  wordOf: (id: string) => Word | null,
): SoldRow[] {
  const [sold, built] = [tally(soldLines), tally(builtLines)];
  // As the list was sold: what is another stands beside what was sold for it, what nobody asked for at the end.
  const nth = new Map([...sold.keys()].map((key, i) => [key, i]));
  const rows: { at: number; row: SoldRow }[] = [];
  const row = (id: string, key: string, s: string, b: string, state: SoldState, cents: number) =>
    rows.push({
      at: nth.get(key) ?? sold.size,
      row: { id, about, sold: s, built: b, state, cents, word: state === "same" && cents === 0 ? null : wordOf(id) },
    });
  const leftSold: { key: string; t: Tally; n: number; cents: number }[] = [];
  const leftBuilt: { key: string; t: Tally; n: number; cents: number }[] = [];
  for (const [key, s] of sold) {
    const b = built.get(key);
    const alike = Math.min(s.count, b?.count ?? 0);
    const [sc, bc] = [share(s, alike), b ? share(b, alike) : 0];
    if (alike > 0) row(`${about} ${key}`, key, said(s, alike), b ? said(b, alike) : "", bc === sc ? "same" : "other", bc - sc);
    if (s.count > alike) leftSold.push({ key, t: s, n: s.count - alike, cents: s.cents - sc });
    if (b && b.count > alike) leftBuilt.push({ key, t: b, n: b.count - alike, cents: b.cents - bc });
  }
  for (const [key, b] of built) if (!sold.has(key)) leftBuilt.push({ key, t: b, n: b.count, cents: b.cents });
  const typeOf = (t: Tally) => (t.type === undefined ? undefined : types(t.type));
  for (const s of leftSold) {
    const was = typeOf(s.t);
    const at = was ? leftBuilt.findIndex((b) => typeOf(b.t)?.kind === was.kind) : -1;
    const [b] = at < 0 ? [] : leftBuilt.splice(at, 1);
    const is = b && typeOf(b.t);
    if (!b) row(`${about} ${s.key} gone`, s.key, said(s.t, s.n), "", "missing", 0 - s.cents);
    else
      row(
        `${about} ${s.key} to ${b.key}`,
        s.key,
        said(s.t, s.n),
        said(b.t, b.n),
        is && was && b.n >= s.n && isBetter(is, was) ? "better" : "other",
        b.cents - s.cents,
      );
  }
  for (const b of leftBuilt) row(`${about} ${b.key} more`, b.key, "", said(b.t, b.n), "not asked for", b.cents);
  return rows.sort((a, b) => a.at - b.at).map((r) => r.row);
}

const when = (a: Agreed) => (a.due ? `${a.due.on}${a.due.hour ? ` ${a.due.hour}` : ""}${a.due.promised ? ", promised" : ", wished"}` : "");

/** What was promised, as it stands now. */
export interface PromiseNow {
  about: string;
  words: string;
  verdict: Verdict;
  because: string;
}

/**
 * What was sold, frozen when it was agreed, beside what is in the machine: line by line, with what the client said to each difference.
 * The differences in price of all lines together are what is there minus what was sold.
 */
export function soldAgainstBuilt(
  sold: Agreed,
  built: Agreed,
  types: TypeLookup,
  promises: readonly PromiseNow[] = [],
  words: Readonly<Record<string, Word>> = {},
): SoldRow[] {
  const wordOf = (id: string) => words[id] ?? null;
  const rows = [
    ...besideEachOther("part", sold.parts, built.parts, types, wordOf),
    ...besideEachOther("beside", sold.beside, built.beside, types, wordOf),
  ];
  const work = (a: Agreed) => Math.round(a.hours * a.rate * 100);
  const hours = (a: Agreed) => (a.hours > 0 ? `${a.hours} h${a.rate > 0 ? ` at ${a.rate}` : ""}` : "");
  const line = (about: SoldRow["about"], id: string, s: string, b: string, cents: number) => {
    if (s === "" && b === "") return;
    const state: SoldState = s === b ? "same" : s === "" ? "not asked for" : b === "" ? "missing" : "other";
    rows.push({ id, about, sold: s, built: b, state, cents, word: state === "same" ? null : wordOf(id) });
  };
  line("work", "work", hours(sold), hours(built), work(built) - work(sold));
  // Where no moment was agreed a later one is nobody's difference.
  if (sold.due) line("moment", "moment", when(sold), when(built), 0);
  const now = new Map(promises.map((p) => [`${p.about} ${p.words}`, p]));
  for (const p of sold.promises) {
    const id = `promise ${p.about} ${p.words}`;
    const n = now.get(`${p.about} ${p.words}`);
    const kept = n?.verdict === "kept";
    rows.push({
      id,
      about: "promise",
      sold: p.words,
      built: n ? `${n.verdict === "kept" ? "kept" : n.verdict}: ${n.because}` : "no longer promised",
      state: kept ? "same" : n && n.verdict !== "not kept" ? "missing" : "other",
      cents: 0,
      word: kept ? null : wordOf(id),
    });
  }
  for (const p of promises)
    if (!sold.promises.some((x) => x.about === p.about && x.words === p.words)) {
      const id = `promise ${p.about} ${p.words} since`;
      rows.push({ id, about: "promise", sold: "", built: `${p.words} (${p.verdict})`, state: "not asked for", cents: 0, word: wordOf(id) });
    }
  return rows;
}

/** What is in the machine as it would be offered; what the shop laid in to wire it and never offered is no line. */
export function withoutLaidIn(build: Pick<Build, "parts">, now: Agreed, sold: Agreed): Agreed {
  const bought = new Set(build.parts.flatMap((p) => (p.from === "client" ? [p.type] : [])));
  const offered = new Set(sold.parts.map((l) => l.type));
  return { ...now, parts: now.parts.filter((l) => l.type === undefined || bought.has(l.type) || offered.has(l.type)) };
}

/** Leaves the shop silently: a difference without a word of the client's. What is only better in the same line needs one too. */
export const isSilent = (r: SoldRow): boolean => (r.state !== "same" || r.cents !== 0) && r.word === null;

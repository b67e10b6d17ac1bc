import { type Entry, type Listed, plain, type ShelfIndex } from "../read-list";
import type { Said } from "./figures";
import type { Wanted } from "./line";
import { COLOURS, FILLER, KINDS, kindIn } from "./vocabulary";

export interface Alternative {
  id: string;
  name: string;
  /** What distinguishes it from the best, in words: "1 TB, not 2 TB". */
  differs: string;
}

export interface Match {
  /** The part type of the shelf that the line means; left out: the shelf does not know it. */
  known?: { id: string; name: string; kind: Listed["kind"] };
  /** Several answer to it just as well: what to ask. */
  ask?: string;
  /** No name is said: of those with its figures the first. */
  guessed?: true;
  alternatives: Alternative[];
}

const MOST = 5;
/** No more of those that share words with a line are looked at closely. */
const MOST_WEIGHED = 60;
/** Words of which kind it is say nothing of which of that kind. */
const KIND_TOKENS: ReadonlySet<string> = new Set(KINDS.flatMap((k) => k.words.flatMap((x) => plain(x).split(" "))));
const isModel = (w: string) => /\d/.test(w) && !/^\d+(?:gb|w|mm)$/.test(w);

/** Figures of an entry that contradict what the line says. */
function contradicts(t: Listed, said: Said): boolean {
  const r = t.ratings;
  if (said.sizeGb !== undefined && r.sizeGb !== undefined && (t.kind === "drive" || t.kind === "memory") && r.sizeGb !== said.sizeGb) return true;
  if (said.watts !== undefined && t.kind === "supply" && r.powerW !== undefined && r.powerW !== said.watts) return true;
  if (said.mts !== undefined && t.kind === "memory" && r.profileMts !== undefined && r.profileMts !== said.mts) return true;
  if (said.fanMm !== undefined && t.kind === "fan" && t.body.widthMm !== undefined && t.body.widthMm !== said.fanMm) return true;
  const rad = t.body.radiator;
  if (said.radiatorMm !== undefined && t.kind === "cooler" && rad && rad.fans * rad.fanMm !== said.radiatorMm) return true;
  return false;
}

const SORT: Readonly<Record<string, string>> = { disk: "3.5", nvme: "M.2", ssd: "2.5" };
/** Is it of the sort that was named: a hard disk is no module. */
function sortOf(t: Listed, fits: string | undefined): boolean {
  if (t.kind === "cooler" && fits === "liquid") return t.body.radiator !== undefined;
  const form = fits === undefined ? undefined : SORT[fits];
  return t.kind !== "drive" || form === undefined || t.body.formFactor === undefined || t.body.formFactor === form;
}

const figureWords = (t: Listed): string =>
  [
    t.ratings.sizeGb === undefined ? "" : t.ratings.sizeGb >= 1000 ? `${t.ratings.sizeGb / 1000} TB` : `${t.ratings.sizeGb} GB`,
    t.kind === "supply" && t.ratings.powerW !== undefined ? `${t.ratings.powerW} W` : "",
    t.ratings.profileMts === undefined ? "" : `${t.ratings.profileMts} MT/s`,
    t.body.radiator ? `${t.body.radiator.fans * t.body.radiator.fanMm} mm` : "",
    t.kind === "fan" && t.body.widthMm !== undefined ? `${t.body.widthMm} mm` : "",
  ]
    .filter(Boolean)
    .join(", ");

function differs(best: Listed, other: Listed): string {
  const [a, b] = [figureWords(best), figureWords(other)];
  if (a !== b && b !== "") return a === "" ? b : `${b}, not ${a}`;
  const mine = new Set(plain(best.name).split(" "));
  const own = plain(other.name)
    .split(" ")
    .filter((w) => !mine.has(w));
  return own.length > 0 ? own.join(" ") : `its id is ${other.id}`;
}

/** A line against the shelf. A line that names a model which no entry has is none of them, however near it is. */
export function matchOf(w: Pick<Wanted, "words" | "kind" | "fits" | "said" | "origin">, index: ShelfIndex): Match {
  const exact = index.byName.get(plain(w.words)) ?? [];
  const { rest } = w.kind ? kindIn(w.words) : { rest: w.words };
  const spoken = new Set(plain(w.words).split(" "));
  const tokens = [...new Set(plain(rest).split(" "))].filter((t) => t !== "" && !FILLER.has(t) && !COLOURS.has(t));
  const scored = new Map<Entry, { score: number; names: number; hit: Set<string> }>();
  const total = Math.max(2, index.entries.length);
  for (const t of tokens) {
    const with1 = index.byWord.get(t) ?? [];
    const rare = Math.log(total / Math.max(1, with1.length)) + 0.1;
    const size = /^\d+(?:gb|w|mm)$/.test(t);
    for (const e of with1) {
      if (w.kind && e.t.kind !== w.kind) continue;
      const has = scored.get(e) ?? { score: 0, names: 0, hit: new Set<string>() };
      has.score += rare;
      if (!size) has.names += 1;
      has.hit.add(t);
      scored.set(e, has);
    }
  }
  const ranked = [...scored]
    .filter(([e]) => !contradicts(e.t, w.said) && sortOf(e.t, w.fits))
    .sort(([a, x], [b, y]) => y.score - x.score || a.n - b.n);
  const answers = (
    exact.length > 0 ? exact.filter((e) => !w.kind || e.t.kind === w.kind || exact.length === 1) : ranked.slice(0, MOST_WEIGHED).map(([e]) => e)
  ).filter((e) => {
    if (exact.length > 0) return true;
    const has = scored.get(e);
    const name = plain(e.t.name)
      .split(" ")
      .filter((t) => !FILLER.has(t));
    const strange = tokens.filter((t) => !KIND_TOKENS.has(t) && !has?.hit.has(t));
    // All that is distinctive of the line stands in it; or it stands whole in the line, and what else is said is no model.
    const allOfLine = strange.length === 0 && (has?.names ?? 0) > 0;
    const wholeName = name.length > 0 && name.every((t) => spoken.has(t)) && !strange.some(isModel);
    return allOfLine || wholeName;
  });
  // Of those that answer to it as well, the one of which the line leaves least unsaid.
  const unsaid = (e: Entry) => {
    const here = new Set(plain(w.words).split(" "));
    return plain(e.t.name)
      .split(" ")
      .filter((t) => !here.has(t) && !FILLER.has(t)).length;
  };
  answers.sort((a, b) => (scored.get(b)?.score ?? 0) - (scored.get(a)?.score ?? 0) || unsaid(a) - unsaid(b) || a.n - b.n);
  const [best, second] = answers;
  const bestScore = best ? (scored.get(best)?.score ?? 0) : 0;
  const near = [...answers.slice(1), ...ranked.map(([e]) => e).filter((e) => !answers.includes(e))].slice(0, MOST);
  const alternatives = near.map((e) => ({ id: e.t.id, name: e.t.name, differs: best ? differs(best.t, e.t) : figureWords(e.t) }));
  if (!best) {
    // A kind and its figures, and no name: what the shelf has of it will do, unless it is a thing that the client has.
    const [first, next] = ranked;
    const nameless = tokens.every((t) => /^\d+(?:gb|w|mm)?$/.test(t) || KIND_TOKENS.has(t));
    if (w.kind && nameless && !w.origin && first && tokens.every((t) => KIND_TOKENS.has(t) || index.byWord.get(t)?.includes(first[0]))) {
      const other = next && Math.abs(next[1].score - first[1].score) < 1e-9 ? next[0].t : undefined;
      return {
        known: { id: first[0].t.id, name: first[0].t.name, kind: first[0].t.kind },
        guessed: true,
        ...(other ? { ask: `${first[0].t.name} or ${other.name}: ${differs(first[0].t, other)}?` } : {}),
        alternatives: ranked.slice(1, 1 + MOST).map(([e]) => ({ id: e.t.id, name: e.t.name, differs: differs(first[0].t, e.t) })),
      };
    }
    return { alternatives };
  }
  const equal =
    exact.length === 0 && second !== undefined && Math.abs((scored.get(second)?.score ?? 0) - bestScore) < 1e-9 && unsaid(second) === unsaid(best);
  return {
    known: { id: best.t.id, name: best.t.name, kind: best.t.kind },
    ...(equal && second ? { ask: `${best.t.name} or ${second.t.name}: ${differs(best.t, second.t)}?` } : {}),
    alternatives,
  };
}

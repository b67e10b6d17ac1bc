import { type Cost, LEVELS } from "../cost/cost";
import type { Piece } from "../model/model";
import { type Term, term } from "../model/terms";
import { Together } from "../model/together";

/** What is left of a piece when its links are taken out: one section, with the links it touches as variables of its own. */
export interface Section {
  piece: Piece;
  /** Each of the section's variables in the piece. */
  at: number[];
  /** The section's links, as indices into the section. */
  links: number[];
  /** This section pays for links; sections that do not only follow. */
  pays: boolean;
  /** Every link only asks for more: it costs least without any. */
  asked: boolean;
}

/** Takes the links out of a piece and looks what hangs together without them. A link is paid for where most rows know it. */
export function sectionsOf(piece: Piece): Section[] {
  const isLink = new Set(piece.links);
  const isHelper = new Set(piece.helpers);
  const isDetail = new Set(piece.details);
  const asked = new Set(piece.asked);
  const together = new Together(piece.vars.length);
  /** For each link the rows that know it, by a variable of the section that each row is in. */
  const knownBy = new Map<number, number[]>(piece.links.map((l) => [l, []]));
  for (const r of piece.rows) {
    const own = r.terms.flatMap(([v]) => (isLink.has(v) ? [] : [v]));
    for (const v of own) together.join(v, own[0] as number);
    if (own[0] !== undefined) for (const [v] of r.terms) knownBy.get(v)?.push(own[0]);
  }
  const payer = new Map<number, number>();
  for (const [link, rows] of knownBy) {
    const counts = new Map<number, number>();
    for (const v of rows) counts.set(together.of(v), (counts.get(together.of(v)) ?? 0) + 1);
    const most = [...counts].sort((a, b) => b[1] - a[1] || a[0] - b[0])[0];
    if (most) payer.set(link, most[0]);
  }
  // Links that stand in one row of their own (equals in their order) are paid for together.
  for (const r of piece.rows) {
    const pay = r.terms.every(([v]) => isLink.has(v)) ? r.terms.flatMap(([v]) => payer.get(v) ?? []) : [];
    for (const p of pay) together.join(p, pay[0] as number);
  }
  // Two sections that pay would have to agree on a link that both know: they stay one.
  for (let merged = true; merged; ) {
    merged = false;
    const paying = new Set([...payer.values()].map((p) => together.of(p)));
    for (const [link, rows] of knownBy)
      for (const v of rows) if (paying.has(together.of(v)) && together.join(v, payer.get(link) as number)) merged = true;
  }
  const groups = new Map<number, number[]>();
  for (let i = 0; i < piece.vars.length; i++) {
    if (isLink.has(i)) continue;
    const list = groups.get(together.of(i));
    if (list) list.push(i);
    else groups.set(together.of(i), [i]);
  }
  const payerOf = (link: number) => (payer.has(link) ? together.of(payer.get(link) as number) : undefined);
  const rowsOf = new Map<number, Piece["rows"][number][]>();
  for (const r of piece.rows) {
    const own = r.terms.find(([v]) => !isLink.has(v));
    // A row of links alone belongs to whoever pays for one of them.
    const ids = own ? [together.of(own[0])] : [...new Set(r.terms.flatMap(([v]) => payerOf(v) ?? []))];
    for (const id of ids) {
      const list = rowsOf.get(id);
      if (list) list.push(r);
      else rowsOf.set(id, [r]);
    }
  }
  return [...groups].map(([id, vars]) => {
    const paidHere = (link: number) => payerOf(link) === id;
    const rows = rowsOf.get(id) ?? [];
    const links = [...new Set(rows.flatMap((r) => r.terms.flatMap(([v]) => (isLink.has(v) ? [v] : []))))].sort((a, b) => a - b);
    const at = [...vars, ...links];
    const local = new Map(at.map((v, i) => [v, i]));
    return {
      at,
      links: links.map((_, i) => vars.length + i),
      pays: links.some(paidHere),
      asked: vars.every((v) => asked.has(v)),
      piece: {
        vars: at.map((i) => piece.vars[i] ?? -1),
        upper: at.map((i) => piece.upper[i] ?? 1),
        rest: at.map((i) => piece.rest[i] ?? false),
        costs: at.map((i) => (isLink.has(i) && !paidHere(i) ? {} : (piece.costs[i] ?? {}))),
        rows: rows.map((r) => ({ ...r, terms: r.terms.map(([v, c]) => term(local.get(v) ?? -1, c)) })),
        helpers: at.flatMap((v, i) => (isHelper.has(v) ? [i] : [])),
        details: at.flatMap((v, i) => (isDetail.has(v) ? [i] : [])),
        links: [],
        asked: [],
      },
    };
  });
}

export const setOf = (section: Section, values: readonly number[]): Set<number> =>
  new Set(section.links.flatMap((l) => ((values[l] ?? 0) > 0 ? [section.at[l] as number] : [])));

/** The same section with its links held at a set. */
export function held(section: Section, set: ReadonlySet<number>): Piece {
  const upper = [...section.piece.upper];
  const rows = [...section.piece.rows];
  for (const l of section.links) {
    if (!set.has(section.at[l] as number)) upper[l] = 0;
    else rows.push({ lower: 1, upper: 1, terms: [[l, 1]] });
  }
  return { ...section.piece, upper, rows };
}

/** The same section without the sets that were looked at. */
export function without(section: Section, sets: readonly ReadonlySet<number>[]): Piece {
  const rows = sets.map((set) => {
    const terms = section.links.map((l): Term => [l, set.has(section.at[l] as number) ? -1 : 1]);
    return { lower: 1 - set.size, upper: Number.POSITIVE_INFINITY, terms };
  });
  return { ...section.piece, rows: [...section.piece.rows, ...rows] };
}

/** Where what is to be beaten costs nothing, so must the answer; at the first level that is not so it may not cost more. */
export function below(piece: Piece, beat: Cost): Piece {
  const upper = [...piece.upper];
  for (const level of LEVELS) {
    const most = beat[level];
    if (level === "canonical" || most < 0) break;
    const terms = piece.costs.flatMap((c, i): Term[] => (c[level] ? [[i, c[level] ?? 0]] : []));
    if (most > 0) {
      if (terms.length === 0) break;
      return { ...piece, upper, rows: [...piece.rows, { lower: Number.NEGATIVE_INFINITY, upper: most, terms }] };
    }
    for (const [i, c] of terms) if (c > 0) upper[i] = 0;
  }
  return { ...piece, upper };
}

/** Raises single variables until no row asks for more; what cannot be helped stays as it is. */
export function mended(piece: Piece, values: readonly number[]): number[] {
  const out = [...values];
  const sumOf = (r: Piece["rows"][number]) => r.terms.reduce((s, [v, c]) => s + c * (out[v] ?? 0), 0);
  for (const row of piece.rows) {
    if (sumOf(row) >= row.lower) continue;
    const tries = row.terms.filter(([v, c]) => c > 0 && (out[v] ?? 0) < (piece.upper[v] ?? 1) && !piece.rest[v]);
    for (const [v] of tries) {
      out[v] = (out[v] ?? 0) + 1;
      if (sumOf(row) >= row.lower && piece.rows.every((r) => !r.terms.some(([x]) => x === v) || sumOf(r) <= r.upper)) break;
      out[v] = (out[v] ?? 0) - 1;
    }
  }
  return out;
}

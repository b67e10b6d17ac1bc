import type { Readings } from "./readings";
import { gapOf } from "./soak";

/** So many moments are kept of a log: two hours by three seconds. */
export const MOST_THINNED = 2400;
/** The same log with fewer moments: means of neighbours, never across a gap; nothing is changed of one that is short enough. */
export function thinned(r: Pick<Readings, "atS" | "columns" | "values">, most = MOST_THINNED): { atS: number[]; values: (number | null)[][] } {
  const n = r.atS.length;
  const gapS = gapOf(r.atS);
  const gaps = r.atS.filter((s, i) => i > 0 && s - (r.atS[i - 1] ?? 0) > gapS).length;
  const size = Math.max(1, Math.ceil(n / Math.max(1, most - gaps - 1)));
  const buckets: [number, number][] = [];
  for (let i = 0; i < n; ) {
    let end = i + 1;
    while (end < n && end - i < size && (r.atS[end] ?? 0) - (r.atS[end - 1] ?? 0) <= gapS) end++;
    buckets.push([i, end]);
    i = end;
  }
  const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;
  const round = (v: number) => Math.round(v * 100) / 100;
  return {
    atS: buckets.map(([a, b]) => round(mean(r.atS.slice(a, b)))),
    values: r.values.map((v) =>
      buckets.map(([a, b]) => {
        const there = v.slice(a, b).filter(Number.isFinite);
        return there.length > 0 ? round(mean(there)) : null;
      }),
    ),
  };
}

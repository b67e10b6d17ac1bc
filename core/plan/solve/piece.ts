import { LEVELS, type Level, type PartCost } from "../cost";
import type { Piece } from "../model/model";

/** Checks a rounded answer against every row: the solver's tolerances must not leak into a plan. */
export function holds(piece: Piece, values: readonly number[]): boolean {
  return (
    values.every((v, i) => v >= 0 && v <= (piece.upper[i] ?? 1)) &&
    piece.rows.every((r) => {
      const sum = r.terms.reduce((s, [v, c]) => s + c * (values[v] ?? 0), 0);
      return sum >= r.lower - 1e-6 && sum <= r.upper + 1e-6;
    })
  );
}

/** What an answer costs at one level. */
export const costAt = (piece: Piece, level: Level, values: readonly number[]) =>
  piece.costs.reduce((s, c, i) => s + (c[level] ?? 0) * (values[i] ?? 0), 0);

/** What an answer costs. */
export function totalCost(piece: Piece, values: readonly number[]): PartCost {
  const sum: PartCost = {};
  for (const [i, c] of piece.costs.entries()) {
    const v = values[i] ?? 0;
    if (v === 0) continue;
    for (const l of LEVELS) if (c[l]) sum[l] = (sum[l] ?? 0) + v * (c[l] ?? 0);
  }
  return sum;
}

/** Helpers that ask for helpers: a chain of hubs is never longer. */
const MOST_PASSES = 8;

/**
 * The same answer with its helpers as low as the rows let them be: a solver that was not asked for a level leaves them anywhere.
 * What no helper mends stays as it is.
 */
export function tightened({ helpers, upper, rows }: Pick<Piece, "helpers" | "upper" | "rows">, values: readonly number[]): number[] {
  const out = [...values];
  const isHelper = new Set(helpers);
  for (const h of helpers) out[h] = 0;
  const asked = rows.filter((r) => r.terms.some(([v]) => isHelper.has(v)));
  for (let pass = 0, raised = true; raised && pass < MOST_PASSES; pass++) {
    raised = false;
    for (const r of asked) {
      let sum = r.terms.reduce((s, [v, c]) => s + c * (out[v] ?? 0), 0);
      if (sum <= r.upper && sum >= r.lower) continue;
      for (const [v, c] of r.terms) {
        if (!isHelper.has(v)) continue;
        const by = sum > r.upper && c < 0 ? (sum - r.upper) / -c : sum < r.lower && c > 0 ? (r.lower - sum) / c : 0;
        const raise = Math.min(Math.ceil(by - 1e-9), (upper[v] ?? 1) - (out[v] ?? 0));
        if (raise <= 0) continue;
        out[v] = (out[v] ?? 0) + raise;
        sum += c * raise;
        raised = true;
      }
    }
  }
  return out;
}

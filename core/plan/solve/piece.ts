import { LEVELS, type Level, type PartCost } from "../cost/cost";
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

import type { Row } from "./terms";

/** Helpers that ask for helpers: a chain of hubs is never longer. */
const MOST_PASSES = 8;

/**
 * The same answer with its helpers as low as the rows let them be: a solver that was not asked for a level leaves them anywhere.
 * What no helper mends stays as it is.
 */
export function tightened(
  { helpers, upper, rows }: { helpers: readonly number[]; upper: readonly number[]; rows: readonly Row[] },
  values: readonly number[],
): number[] {
  const out = [...values];
  const isHelper = new Set(helpers);
  for (const h of helpers) out[h] = 0;
  const asked = rows.filter((r) => !r.implied && r.terms.some(([v]) => isHelper.has(v)));
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

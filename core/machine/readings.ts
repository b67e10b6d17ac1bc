import type { Expectation } from "./expectation";

/** Readings of a tool that rounds differ by so much, MT/s. */
const ROUNDED_MTS = 2;

/**
 * Is a value that somebody saw what was expected? Numbers by their value; a memory speed that was read as the clock (half of the
 * transfer rate, since memory moves data twice a clock: JEDEC) counts as the speed.
 */
export function asExpected(line: Pick<Expectation, "expected" | "unit" | "tolerance">, value: string): boolean {
  const [seen, expected] = [value.trim(), line.expected.trim()];
  if (seen.toLowerCase() === expected.toLowerCase()) return true;
  const [a, b] = [Number(seen.replace(",", ".")), Number(expected.replace(",", "."))];
  if (seen === "" || !Number.isFinite(a) || !Number.isFinite(b)) return false;
  return Math.abs(a - b) <= (line.tolerance ?? 0) || (line.unit === "MT/s" && Math.abs(2 * a - b) <= ROUNDED_MTS);
}

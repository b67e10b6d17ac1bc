/**
 * What a plan costs, in strict order: the first level that differs decides.
 * Whole numbers all; see docs/architecture.md for what each counts.
 */
export const LEVELS = [
  "mandatoryFree",
  "wantedFree",
  "functionsReduced",
  "schoolDepartures",
  "optionalFree",
  "extraRoots",
  "toOrder",
  "fromShelf",
  "fromBag",
  "changes",
  "lengthCm",
  "canonical",
] as const;
export type Level = (typeof LEVELS)[number];
export type Cost = Record<Level, number>;
export type PartCost = Partial<Cost>;

/** Each level in words, for screens. */
export const LEVEL_WORDS: Record<Level, string> = {
  mandatoryFree: "mandatory leads free",
  wantedFree: "wanted leads free",
  functionsReduced: "functions reduced",
  schoolDepartures: "departures from the shop's way",
  optionalFree: "optional leads free",
  extraRoots: "headers beyond one for each zone",
  toOrder: "accessories to order",
  fromShelf: "accessories from the shelf",
  fromBag: "cables from the bag",
  changes: "changed since the last plan",
  lengthCm: "length in cm",
  canonical: "order of names",
};

export const zeroCost = (): Cost => Object.fromEntries(LEVELS.map((l) => [l, 0])) as Cost;

export function addCost(a: Cost, b: PartCost): Cost {
  const sum = { ...a };
  for (const l of LEVELS) sum[l] += b[l] ?? 0;
  return sum;
}

/** Negative when `a` is better. The canonical order is a tie-break, not a cost, unless asked for. */
export function compareCost(a: PartCost, b: PartCost, withCanonical = false): number {
  for (const l of LEVELS) {
    if (l === "canonical" && !withCanonical) continue;
    const d = (a[l] ?? 0) - (b[l] ?? 0);
    if (d !== 0) return d;
  }
  return 0;
}

/**
 * What a plan costs, in strict order: the first level that differs decides. Whole numbers all; docs/architecture.md says what
 * each counts, docs/decisions.md why they stand in this order.
 */
export const LEVELS = [
  "mandatoryFree",
  "coolingFree",
  "fansFree",
  "lightsFree",
  "wantedFree",
  "functionsReduced",
  "hubsBehind",
  "optionalFree",
  "toOrder",
  "schoolDepartures",
  "signalsLost",
  "radiatorDivided",
  "coolingShared",
  "splittersBehind",
  "extraRoots",
  "cardCables",
  "fromShelf",
  "hubsTaken",
  "fromBag",
  "placesShared",
  "lightsDivided",
  "changes",
  "outOfOrder",
  "lengthCm",
  "canonical",
] as const;
export type Level = (typeof LEVELS)[number];
export type Cost = Record<Level, number>;
export type PartCost = Partial<Cost>;

/** Each level in words, for screens. */
export const LEVEL_WORDS: Record<Level, string> = {
  mandatoryFree: "plugs missing that it does not run without",
  coolingFree: "fans that cool the CPU, not plugged",
  fansFree: "fans not plugged",
  lightsFree: "lights not plugged",
  wantedFree: "other plugs that are wanted and have no place",
  functionsReduced: "things that work less well than they could",
  hubsBehind: "hubs behind hubs",
  optionalFree: "plugs left free, as they may be",
  toOrder: "accessories to order",
  schoolDepartures: "places that depart from the shop's way",
  signalsLost: "places of the case of which no speed is read",
  radiatorDivided: "headers or hubs beyond one for the fans of a radiator",
  coolingShared: "places of the case that share a control with what cools the CPU",
  splittersBehind: "splitters behind splitters",
  extraRoots: "headers beyond one for each zone",
  cardCables: "graphics plugs doubled on a cable, or cables shared by cards",
  fromShelf: "accessories from the shelf",
  hubsTaken: "hubs among the accessories",
  fromBag: "cables from the bag",
  placesShared: "places of the case that share one control",
  lightsDivided: "headers or hubs beyond one for the lights of a place",
  changes: "changed since the last plan",
  outOfOrder: "drives out of the order of sockets and cage",
  lengthCm: "length in cm",
  canonical: "order of names",
};

/** Levels that say what does not work or stays free: all of them are zero in most builds. */
export const FREE_LEVELS = ["mandatoryFree", "coolingFree", "fansFree", "lightsFree", "wantedFree"] as const satisfies readonly Level[];

/** A place departs from the school once for each role of its leads. */
export const departureKey = (place: string, role: string): string => `${place}/${role}`;

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

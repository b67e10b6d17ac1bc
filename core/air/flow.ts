import { type Graph, kept, type PartNode, partsOfKind } from "../assembly";
import { PART_KINDS } from "../catalogue";
import { type FanSeat, fanSeats, radiatorSeats } from "../fit";
import { wholeDraw } from "../power";
import { list } from "../words";

/**
 * Shares of the printed flow that are left behind what a fan blows through. Common practice, no source: a mounted fan
 * against free air, a dust filter, a radiator.
 */
export const MOUNTED = 0.85;
export const FILTERED = 0.8;
export const THROUGH_RADIATOR = 0.6;
/**
 * Two fans on the two sides of a radiator are in series: the same air, twice the pressure (handbook: fans in series add pressure at
 * equal flow). So half of what the radiator takes comes back; the share itself is common practice.
 */
const SANDWICHED = (1 + THROUGH_RADIATOR) / 2;
/** Speed through a low-noise lead, a resistor in the 12 V wire: common practice, from memory. */
export const LOW_NOISE = 0.8;
/** In and out within this share of each other count as balanced. */
const BALANCED = 0.1;
/** Air takes this rise between in and out in an ordinary case, K (common practice). */
const RISE_K = 10;
/** Density times heat capacity of air at 20 °C, J/(m³ K): 1.204 × 1006 (handbook, from memory). */
const AIR_J_M3K = 1.204 * 1006;

/** Sound of equal or unequal sources together, dB: 10 log10 of the sum of powers (formula). */
export const soundSumDb = (levels: readonly number[]): number =>
  levels.length === 0 ? 0 : 10 * Math.log10(levels.reduce((s, l) => s + 10 ** (l / 10), 0));
/** Sound of a fan at a share of its speed, dB: 50 log10 of the ratio of speeds (fan law, from memory). */
export const soundAtDb = (fullDb: number, share: number): number => Math.max(0, fullDb + 50 * Math.log10(share));
/** Flow in m³/h that carries a heat in W away at a rise in K: V = P / (rho cp dT) (formula). */
export const flowForHeatM3h = (heatW: number, riseK = RISE_K): number => (heatW / (AIR_J_M3K * riseK)) * 3600;

export interface FanAir {
  part: PartNode;
  region: FanSeat["mount"]["region"];
  at: { xMm: number; yMm: number };
  sizeMm: number;
  blows: "in" | "out";
  /** After mount, filter and radiator, at the planned speed; undefined: its entry does not say, and it counts in no sum. */
  flowM3h?: number;
  /** At the planned speed; undefined: its entry does not say. */
  noiseDb?: number;
  through: string[];
  /** Said when it works against something. */
  against?: string;
}

export interface Air {
  fans: FanAir[];
  inM3h: number;
  outM3h: number;
  sign: "over" | "under" | "balanced" | "still" | "unknown";
  why: string;
  noiseDb: number;
  /** Noise at full speed, as at the very first start. */
  noiseFullDb: number;
  heatW: number;
  neededM3h: number;
  /** The supply, where it hangs over the board and its own fan draws the case's air out; its flow undefined where its entry does not say. */
  supply?: { part: PartNode; flowM3h?: number };
  /** What moves air nobody knows how much: the sums are of all the others, so at least so much. */
  unknown: PartNode[];
  /** The same of noise. */
  silent: PartNode[];
  /** Fans without which enough air still moves and the sign stays. */
  spare: PartNode[];
  share: number;
}

/** Air at front, bottom and side goes in, at top and rear out, unless a part says otherwise (common practice). */
export const usualWay = (region: FanAir["region"]): "in" | "out" => (region === "top" || region === "rear" ? "out" : "in");

/** Flow, pressure and noise of the case at the planned share of full speed. */
export function airOf(graph: Graph, share: number = graph.build.settings.fanShare): Air {
  return kept(graph, `air:${share}`, PART_KINDS, () => work(graph, share));
}

function work(graph: Graph, share: number): Air {
  const { cooled, fans } = kept(graph, `air-fans:${share}`, ["case", "fan", "cooler"], () => turning(graph, share));
  const heatW = wholeDraw(graph).peakW * 0.7;
  const neededM3h = flowForHeatM3h(heatW);
  const total = (list: readonly FanAir[], way: "in" | "out") => list.filter((f) => f.blows === way).reduce((s, f) => s + (f.flowM3h ?? 0), 0);
  const supply = exhaustSupply(graph);
  const inM3h = total(fans, "in");
  const outM3h = total(fans, "out") + (supply?.flowM3h ?? 0);
  // Where some of it is unknown, which way the air goes in all is, too.
  const sign = fans.some((f) => f.flowM3h === undefined) ? "unknown" : signOf(inM3h, outM3h);
  const others = partsOfKind(graph, "cooler").flatMap((p) => p.type.ratings.noiseDb ?? []);
  const full = fanSeats(graph).flatMap((s) => s.part.type.ratings.noiseDb ?? []);
  const unknown = [
    ...fans.filter((f) => f.flowM3h === undefined).map((f) => f.part),
    ...(supply && supply.flowM3h === undefined ? [supply.part] : []),
  ];
  return {
    fans,
    inM3h,
    outM3h,
    sign,
    why: `${WHY[sign]}${supply ? ` The supply over the board draws ${supply.flowM3h === undefined ? "air" : `${Math.round(supply.flowM3h)} m³/h`} out with them.` : ""}${unknownWords(unknown)}`,
    noiseDb: soundSumDb([...fans.flatMap((f) => f.noiseDb ?? []), ...others.map((n) => soundAtDb(n, share))]),
    noiseFullDb: soundSumDb([...full, ...others]),
    heatW,
    neededM3h,
    ...(supply ? { supply } : {}),
    unknown,
    silent: fans.filter((f) => f.noiseDb === undefined).map((f) => f.part),
    // Where some is unknown, nobody can say of any that the air is enough without it.
    spare:
      unknown.length > 0 ? [] : spareFans(fans, neededM3h, (list, way) => total(list, way) + (way === "out" ? (supply?.flowM3h ?? 0) : 0), cooled),
    share,
  };
}

/** What is in no sum, in a sentence of its own; empty where all is known. */
export const unknownWords = (unknown: readonly PartNode[]): string =>
  unknown.length === 0
    ? ""
    : ` Not counted: ${list(
        unknown.map((p) => p.part.label ?? p.type.name),
        4,
      )}; how much air ${unknown.length === 1 ? "it moves" : "they move"} is not known.`;

/** In and out in words, as a number that a change leads to. */
export function inAndOut(graph: Graph): string {
  const a = airOf(graph);
  const least = a.unknown.length > 0 ? "at least " : "";
  return `${least}${Math.round(a.inM3h)} m³/h in, ${Math.round(a.outM3h)} m³/h out`;
}

/** A supply that hangs at the top takes its air from over the board, unless it is turned to draw from outside (common practice). */
function exhaustSupply(graph: Graph): Air["supply"] {
  const mounts = partsOfKind(graph, "case")[0]?.type.body.mounts ?? [];
  const part = partsOfKind(graph, "supply").find((s) => mounts.find((m) => m.id === s.part.mount)?.region === "top");
  if (!part || part.part.blows === "in") return undefined;
  return { part, ...(part.type.ratings.flowM3h === undefined ? {} : { flowM3h: part.type.ratings.flowM3h }) };
}

function turning(graph: Graph, share: number): { cooled: Set<string>; fans: FanAir[] } {
  const cooled = new Set(radiatorSeats(graph).flatMap((s) => s.fans.map((f) => f.id)));
  const rows = new Map<string, number>();
  for (const s of fanSeats(graph)) if (cooled.has(s.part.id)) rows.set(s.mount.id, (rows.get(s.mount.id) ?? 0) + 1);
  const first = new Set<string>();
  const fans = fanSeats(graph).map((seat): FanAir => {
    const behind = cooled.has(seat.part.id);
    const sandwich = behind && (rows.get(seat.mount.id) ?? 0) > 1;
    const air = oneFan(seat, behind, share, sandwich);
    if (!sandwich) return air;
    if (!first.has(seat.mount.id)) {
      first.add(seat.mount.id);
      return air;
    }
    return { ...air, flowM3h: 0, through: [...air.through, "in series with the fan on the other side"] };
  });
  for (const f of fans) {
    const against = worksAgainst(f, fans);
    if (against) f.against = against;
  }
  return { cooled, fans };
}

const WHY: Record<Air["sign"], string> = {
  over: "More air is pushed in than drawn out: dust comes only through the filters.",
  under: "More air is drawn out than pushed in: the rest comes in through gaps, without a filter, and brings dust.",
  balanced: "In and out are nearly equal.",
  still: "No case fan moves air: heat leaves only as far as it rises by itself.",
  unknown: "Whether more goes in or out cannot be said.",
};

function signOf(inM3h: number, outM3h: number): Air["sign"] {
  if (inM3h + outM3h === 0) return "still";
  const ratio = (inM3h - outM3h) / Math.max(inM3h, outM3h);
  return ratio > BALANCED ? "over" : ratio < -BALANCED ? "under" : "balanced";
}

function oneFan(seat: FanSeat, radiator: boolean, planned: number, sandwich = false): FanAir {
  const r = seat.part.type.ratings;
  const share = planned * (seat.part.part.lowNoise ? LOW_NOISE : 1);
  const factor = MOUNTED * (seat.mount.filter ? FILTERED : 1) * (radiator ? (sandwich ? SANDWICHED : THROUGH_RADIATOR) : 1);
  return {
    part: seat.part,
    region: seat.mount.region,
    at: seat.mount.at,
    sizeMm: seat.sizeMm,
    blows: seat.part.part.blows ?? usualWay(seat.mount.region),
    ...(r.flowM3h === undefined ? {} : { flowM3h: r.flowM3h * share * factor }),
    ...(r.noiseDb === undefined ? {} : { noiseDb: soundAtDb(r.noiseDb, share) }),
    through: [...(seat.mount.filter ? ["filter"] : []), ...(radiator ? ["radiator"] : [])],
  };
}

function worksAgainst(f: FanAir, all: readonly FanAir[]): string | undefined {
  const beside = all.filter((o) => o !== f && o.region === f.region && o.blows !== f.blows);
  const same = all.filter((o) => o !== f && o.region === f.region && o.blows === f.blows);
  if (beside.length > 0 && beside.length >= same.length + 1) return `its neighbours at the ${f.region} blow ${beside[0]?.blows}`;
  if (f.region === "top" && f.blows === "in") return "heat rises and this fan blows it back down";
  if (f.region === "bottom" && f.blows === "out") return "heat rises and this fan draws it down";
  return undefined;
}

/** Greedy from the weakest: left out while what is left still carries the heat and keeps the sign. */
function spareFans(
  fans: readonly FanAir[],
  neededM3h: number,
  total: (list: readonly FanAir[], way: "in" | "out") => number,
  cooled: ReadonlySet<string>,
): PartNode[] {
  let [inM3h, outM3h] = [total(fans, "in"), total(fans, "out")];
  const sign = signOf(inM3h, outM3h);
  const spare: PartNode[] = [];
  for (const f of [...fans].sort((a, b) => (a.flowM3h ?? 0) - (b.flowM3h ?? 0) || (a.part.id < b.part.id ? -1 : 1))) {
    if (cooled.has(f.part.id)) continue;
    const i = inM3h - (f.blows === "in" ? (f.flowM3h ?? 0) : 0);
    const o = outM3h - (f.blows === "out" ? (f.flowM3h ?? 0) : 0);
    // What is left of a sum taken down to nothing may differ from 0 by rounding.
    if (Math.max(i, o) < neededM3h || i < 1e-9 || o < 1e-9 || signOf(i, o) !== sign) continue;
    [inM3h, outM3h] = [i, o];
    spare.push(f.part);
  }
  return spare;
}

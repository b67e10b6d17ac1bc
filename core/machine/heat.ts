import { airOf, flowForHeatM3h } from "../air";
import { cpuCoolers, type Graph, partsOfKind } from "../assembly";

/** A room, °C (common practice). */
export const ROOM_C = 22;
/** At the heat that is printed for it a cooler is so much over the air, K (common practice: makers rate to about this). */
const RATED_RISE_K = 65;
/** What has to be warmed before it is steady: metal of a tower, water and metal of a loop, J/K (0.8 kg of aluminium; 0.3 kg of water with it). */
const AIR_J_K = 720;
const LIQUID_J_K = 1900;
/** Where a CPU holds itself by slowing down, °C (common practice; makers print 90 to 100). */
const CPU_LIMIT_C = 95;
/** Film or no paste between plate and CPU lets so much less through (common practice, from memory). */
const BARE = 3;
/** Water that does not move carries next to nothing. */
const STILL = 10;
/** From this share of its heat down it does not only slow down (common practice). */
const GIVES_UP = 0.3;
/** Air in the case where its flow is not known is so much warmer than the room, K (common practice). */
const CASE_RISE_K = 8;
const MOST_CASE_RISE_K = 25;
/** How far such a figure is off in practice, K. */
export const HEAT_OFF_K = 8;
/** A card's own cooler is made for its heat: so much over the air in the case under load, and its hottest point over that, K (common practice). */
const CARD_RISE_K = 40;
export const HOTSPOT_K = 18;

export interface Heat {
  idleC: number;
  /** Steady under load; no higher than where it slows down. */
  loadC: number;
  /** Time constant, s: after one it has done 63 % of the way (formula: resistance times capacity). */
  tauS: number;
  holds: "holds" | "slows down" | "shuts down";
  /** Share of its full clock that is left under load. */
  clockShare: number;
  because: string;
}

/** What keeps heat from getting out. */
export interface Hindered {
  bare?: string | undefined;
  pumpStill?: string | undefined;
}

/** A warming body after some seconds: T = T1 + (T0 - T1) e^(-t/tau) (lumped heat, handbook). °C. */
export const warmedC = (fromC: number, toC: number, tauS: number, s: number): number => toC + (fromC - toC) * Math.exp(-s / tauS);

/** How much warmer than the room the air in the case gets, K, at a heat and a share of the fans' speed. */
export function caseRiseK(graph: Graph, heatW: number, share: number): number {
  const a = airOf(graph, share);
  const through = Math.max(a.inM3h, a.outM3h);
  if (a.unknown.length > 0 || through <= 0) return CASE_RISE_K;
  return Math.min(MOST_CASE_RISE_K, flowForHeatM3h(heatW, 1) / through);
}

/** The CPU at idle and under load, by its cooler, the air and what hinders it; nothing where its cooler's heat or its own is not known. */
export function cpuHeat(graph: Graph, { share, roomC = ROOM_C, bare, pumpStill }: { share: number; roomC?: number } & Hindered): Heat | undefined {
  const cpu = partsOfKind(graph, "cpu")[0];
  const heatW = cpu?.type.ratings.heatW ?? cpu?.type.ratings.powerW;
  const coolers = cpuCoolers(graph).filter((c) => c.type.ratings.cooledW !== undefined);
  const cooler = coolers.sort((a, b) => (b.type.ratings.cooledW ?? 0) - (a.type.ratings.cooledW ?? 0))[0];
  const cooledW = cooler?.type.ratings.cooledW;
  if (!heatW || !cooledW || !cooler) return undefined;
  const liquid = cooler.type.body.radiator !== undefined;
  const fullKw = RATED_RISE_K / cooledW;
  // Between plates of fins the heat that passes goes with about the root of the air's speed (handbook, laminar flow).
  const kw = (fullKw / Math.sqrt(share)) * (bare ? BARE : 1) * (pumpStill ? STILL : 1);
  const idleW = cpu?.type.ratings.idleW ?? heatW * 0.15;
  const airC = (w: number) => roomC + caseRiseK(graph, w, share);
  const [idleAirC, loadAirC] = [airC(idleW * 2), airC(airOf(graph, share).heatW)];
  const freeC = loadAirC + kw * heatW;
  const left = Math.max(0, Math.min(1, (CPU_LIMIT_C - loadAirC) / (kw * heatW)));
  const holds = left >= 1 ? "holds" : left < GIVES_UP ? "shuts down" : "slows down";
  const name = cooler.part.label ?? cooler.type.name;
  return {
    idleC: Math.min(CPU_LIMIT_C, idleAirC + kw * idleW),
    loadC: Math.min(CPU_LIMIT_C, freeC),
    tauS: (fullKw / Math.sqrt(share)) * (liquid ? LIQUID_J_K : AIR_J_K),
    holds,
    // Power goes with the cube of the clock where volts follow it (common practice).
    clockShare: Math.cbrt(left),
    because:
      pumpStill ??
      bare ??
      `${Math.round(heatW)} W through ${kw.toFixed(2)} K/W of ${name}, air in the case at ${Math.round(loadAirC)} °C${holds === "holds" ? "" : `; ${CPU_LIMIT_C} °C is the limit`}.`,
  };
}

/** A graphics card under load, °C, and its hottest point. */
export const cardHeatC = (graph: Graph, share: number, roomC = ROOM_C): { loadC: number; hotspotC: number } => {
  const loadC = roomC + caseRiseK(graph, airOf(graph, share).heatW, share) + CARD_RISE_K;
  return { loadC, hotspotC: loadC + HOTSPOT_K };
};

/** Between which the CPU is worked out to be under load, from rest on, by the minute: °C. */
export function heatBand(heat: Heat, minutes: number): { minute: number; lowC: number; highC: number }[] {
  const steps = 60;
  return Array.from({ length: steps + 1 }, (_, i) => {
    const minute = (minutes * i) / steps;
    const c = warmedC(heat.idleC, heat.loadC, heat.tauS, minute * 60);
    return { minute, lowC: c - HEAT_OFF_K, highC: c + HEAT_OFF_K };
  });
}

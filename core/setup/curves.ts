import { soundAtDb, soundSumDb } from "../air";
import { asPlugged, type Graph, type PortNode } from "../assembly";
import { commandedFrom } from "../brings";
import { cpuHeat } from "../machine";

/** One point of a curve: at this temperature so much of full speed. */
export interface CurvePoint {
  atC: number;
  /** Of full, percent. */
  percent: number;
  /** What its fans are heard at then, dB(A) at 1 m; left out: not known. */
  noiseDb?: number;
}

export interface Curve {
  header: string;
  name: string;
  /** What turns by it. */
  fans: string[];
  follows: "CPU" | "board";
  mode: "pwm" | "volts" | "full";
  points: CurvePoint[];
  because: string;
}

/** What was measured under a curve at full load. */
export interface Measured {
  /** The highest that held, °C. */
  maxC: number;
  noiseDb?: number;
}

/** Slower than this a fan may stop: by its control wire, by volts (common practice). Percent. */
const LEAST_PERCENT = { pwm: 25, volts: 45 } as const;
const LIMIT_C = 95;
/** So far below its limit a CPU need not be cooler under full load (common practice). */
const ROOM_K = 12;
const STEP_PERCENT = 10;
const round5 = (v: number) => Math.min(100, Math.max(0, Math.round(v / 5) * 5));

const isHeader = (p: PortNode) => p.part.type.kind === "board" && p.port.flow === "out" && (p.port.family === "fan-4" || p.port.family === "fan-3");

function noiseAt(graph: Graph, fans: readonly string[], percent: number): number | undefined {
  const known = fans.flatMap((id) => graph.parts.get(id)?.type.ratings.noiseDb ?? []);
  return known.length < fans.length || known.length === 0 ? undefined : Math.round(soundSumDb(known.map((n) => soundAtDb(n, percent / 100))));
}

/**
 * A curve for each header that something turns by: as slow as its fans go at rest, the everyday share in the middle, full before the CPU
 * would have to slow down. `measured` of a round before moves the middle: quieter where there is room, faster where there is none.
 */
export function curvesOf(whole: Graph, measured: Readonly<Record<string, Measured>> = {}): Curve[] {
  const graph = asPlugged(whole);
  const share = graph.build.settings.fanShare;
  return [...graph.ports.values()].filter(isHeader).flatMap((p): Curve[] => {
    const leads = commandedFrom(graph, p).filter((l) => l.lead.role !== "light");
    const turning = leads.filter((l) => ["cpu-fan", "radiator-fan", "case-fan", "pump"].includes(l.lead.role));
    if (turning.length === 0) return [];
    const fans = [...new Set(turning.map((l) => l.part.id))];
    const names = [...new Set(turning.map((l) => l.name))];
    const base = { header: p.address, name: p.name, fans: names };
    if (turning.some((l) => l.lead.role === "pump"))
      return [
        {
          ...base,
          follows: "CPU",
          mode: "full",
          points: [{ atC: 0, percent: 100 }],
          because: "A pump runs at full speed: it is hardly heard, and slower it carries less (common practice).",
        },
      ];
    const mode = turning.every((l) => l.lead.control !== "voltage" && l.lead.family === "fan-4") ? "pwm" : "volts";
    const cools = turning.some((l) => l.lead.role === "cpu-fan" || l.lead.role === "radiator-fan");
    const heat = cpuHeat(graph, { share });
    const round = measured[p.address];
    // The next round: half of the room that is left, or of what is missing, goes into the speed.
    const spare = round === undefined ? 0 : LIMIT_C - ROOM_K - round.maxC;
    const shift = round === undefined || Math.abs(spare) < 4 ? 0 : spare > 0 ? -STEP_PERCENT : 2 * STEP_PERCENT;
    const least = LEAST_PERCENT[mode];
    const everyday = Math.max(least + 5, round5(share * 100 + shift));
    const idleC = Math.round(heat?.idleC ?? 40);
    const at = (atC: number, percent: number): CurvePoint => {
      const noiseDb = noiseAt(graph, fans, percent);
      return { atC, percent, ...(noiseDb === undefined ? {} : { noiseDb }) };
    };
    const points = [
      at(idleC + 5, least),
      at(Math.max(idleC + 15, 60), everyday),
      at(LIMIT_C - ROOM_K, Math.min(100, Math.max(everyday + STEP_PERCENT, cools ? 85 : 75))),
      at(LIMIT_C - 4, 100),
    ];
    const said =
      round === undefined
        ? heat
          ? `At ${Math.round(share * 100)} % the CPU is worked out at ${Math.round(heat.loadC)} °C under full load${heat.holds === "holds" ? "" : ", which is its limit"}.`
          : "What the CPU's cooler carries is not known: a usual curve."
        : shift === 0
          ? `${Math.round(round.maxC)} °C was measured: as it should be.`
          : `${Math.round(round.maxC)} °C was measured: ${shift < 0 ? "room to be quieter" : "too warm, faster in the middle"}.`;
    return [
      {
        ...base,
        follows: "CPU",
        mode,
        points,
        because: `${said} ${mode === "pwm" ? "By the control wire." : "By volts: slower, and it may not start."}`,
      },
    ];
  });
}

import { asPlugged, type Graph, partsOfKind } from "../build";
import type { PartKind } from "../catalogue";
import type { Context, Finding, Rule, Severity } from "./rule";
import { airEnough } from "./rules/air-enough";
import { airWay } from "./rules/air-way";
import { cableWatts } from "./rules/cable-watts";
import { cardFit } from "./rules/card-fit";
import { coolerFit } from "./rules/cooler-fit";
import { coolerHeat } from "./rules/cooler-heat";
import { cpuFanSignal } from "./rules/cpu-fan-signal";
import { cpuSocket } from "./rules/cpu-socket";
import { dangling } from "./rules/dangling";
import { displaced } from "./rules/displaced";
import { drivePorts } from "./rules/drive-ports";
import { fanSize } from "./rules/fan-size";
import { firmware } from "./rules/firmware";
import { formFactors } from "./rules/form-factors";
import { freeLeads } from "./rules/free-leads";
import { lightCapacity } from "./rules/light-capacity";
import { lightVoltage } from "./rules/light-voltage";
import { lightWish } from "./rules/light-wish";
import { mating } from "./rules/mating";
import { memoryPair } from "./rules/memory-pair";
import { memoryRoom } from "./rules/memory-room";
import { memorySlots } from "./rules/memory-slots";
import { memorySpeedRule } from "./rules/memory-speed";
import { memoryType } from "./rules/memory-type";
import { needsPower } from "./rules/needs-power";
import { noise } from "./rules/noise";
import { panelPins } from "./rules/panel-pins";
import { pictureSource } from "./rules/picture-source";
import { radiatorFit } from "./rules/radiator-fit";
import { radiatorPlace } from "./rules/radiator-place";
import { reach } from "./rules/reach";
import { rootCurrent } from "./rules/root-current";
import { signalLost } from "./rules/signal-lost";
import { standoffs } from "./rules/standoffs";
import { supplyClass } from "./rules/supply-class";
import { supplyFit } from "./rules/supply-fit";
import { supplyPlugs } from "./rules/supply-plugs";
import { supplyRails } from "./rules/supply-rails";
import { supplySize } from "./rules/supply-size";
import { supplySystem } from "./rules/supply-system";
import { supplyUsual } from "./rules/supply-usual";
import { toOrder } from "./rules/to-order";

/** All rules. Adding one is adding a file and its line here. */
export const RULES: readonly Rule[] = [
  cpuSocket,
  firmware,
  memoryType,
  formFactors,
  drivePorts,
  cardFit,
  coolerFit,
  radiatorPlace,
  radiatorFit,
  memoryRoom,
  supplyFit,
  fanSize,
  coolerHeat,
  standoffs,
  supplyRails,
  supplyPlugs,
  memoryPair,
  lightCapacity,
  supplyClass,
  airWay,
  airEnough,
  noise,
  lightWish,
  supplyUsual,
  mating,
  lightVoltage,
  supplySystem,
  panelPins,
  displaced,
  rootCurrent,
  cableWatts,
  needsPower,
  cpuFanSignal,
  pictureSource,
  supplySize,
  freeLeads,
  dangling,
  reach,
  memorySlots,
  memorySpeedRule,
  signalLost,
  toOrder,
];

const WEIGHT: Record<Severity, number> = { stop: 0, warn: 1, note: 2 };

/** Runs every rule that applies; most serious first, else in the order of the rules. */
export function check(graph: Graph, on: Context["on"]): Finding[] {
  const judged = on === "plugged" ? asPlugged(graph) : graph;
  return RULES.filter((r) => r.on.includes(on))
    .flatMap((r) => r.run({ graph: judged, on }))
    .map((f, i) => ({ f, i }))
    .sort((a, b) => WEIGHT[a.f.severity] - WEIGHT[b.f.severity] || a.i - b.i)
    .map(({ f }) => f);
}

/** The parts list alone: what can be said before anything is opened. */
export const checkParts = (graph: Graph): Finding[] => judgeParts(graph).findings;

export interface PartsJudgement {
  graph: Graph;
  byRule: ReadonlyMap<string, readonly Finding[]>;
  findings: Finding[];
}

/**
 * The parts list judged. With `before`, rules whose kinds of parts are the very same nodes keep what they said: give
 * the graph as `buildGraph(build, types, before.graph)` makes it.
 */
export function judgeParts(graph: Graph, before?: PartsJudgement): PartsJudgement {
  const same =
    before !== undefined &&
    before.graph.build.wishes === graph.build.wishes &&
    before.graph.build.settings === graph.build.settings &&
    before.graph.build.policy === graph.build.policy;
  const unchanged = new Map<PartKind, boolean>();
  const isSame = (kind: PartKind): boolean => {
    const known = unchanged.get(kind);
    if (known !== undefined) return known;
    const [a, b] = [partsOfKind(graph, kind), before ? partsOfKind(before.graph, kind) : []];
    const yes = a.length === b.length && a.every((p, i) => p === b[i]);
    unchanged.set(kind, yes);
    return yes;
  };
  const byRule = new Map<string, readonly Finding[]>();
  for (const rule of RULES) {
    if (!rule.on.includes("parts")) continue;
    const had = same && rule.reads?.every(isSame) ? before.byRule.get(rule.id) : undefined;
    byRule.set(rule.id, had ?? rule.run({ graph, on: "parts" }));
  }
  const findings = [...byRule.values()].flat();
  return {
    graph,
    byRule,
    findings: findings
      .map((f, i) => ({ f, i }))
      .sort((a, b) => WEIGHT[a.f.severity] - WEIGHT[b.f.severity] || a.i - b.i)
      .map(({ f }) => f),
  };
}

/** A whole graph judged: the plan, and beside it whatever hands did wrong. */
export function checkAll(graph: Graph): Finding[] {
  const plan = check(graph, "plan");
  const known = new Set(plan.map((f) => f.id));
  return [...plan, ...check(graph, "plugged").filter((f) => !known.has(f.id))].sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity]);
}

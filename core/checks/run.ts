import { asPlugged, type Graph } from "../build";
import type { Context, Finding, Rule, Severity } from "./rule";
import { cableWatts } from "./rules/cable-watts";
import { cpuFanSignal } from "./rules/cpu-fan-signal";
import { dangling } from "./rules/dangling";
import { displaced } from "./rules/displaced";
import { freeLeads } from "./rules/free-leads";
import { lightVoltage } from "./rules/light-voltage";
import { mating } from "./rules/mating";
import { memorySlots } from "./rules/memory-slots";
import { memorySpeedRule } from "./rules/memory-speed";
import { needsPower } from "./rules/needs-power";
import { panelPins } from "./rules/panel-pins";
import { pictureSource } from "./rules/picture-source";
import { reach } from "./rules/reach";
import { rootCurrent } from "./rules/root-current";
import { signalLost } from "./rules/signal-lost";
import { supplySize } from "./rules/supply-size";
import { supplySystem } from "./rules/supply-system";
import { toOrder } from "./rules/to-order";

/** All rules. Adding one is adding a file and its line here. */
export const RULES: readonly Rule[] = [
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

/** A whole graph judged: the plan, and beside it whatever hands did wrong. */
export function checkAll(graph: Graph): Finding[] {
  const plan = check(graph, "plan");
  const known = new Set(plan.map((f) => f.id));
  return [...plan, ...check(graph, "plugged").filter((f) => !known.has(f.id))].sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity]);
}

import { asPlugged, assumedIn, type Graph, kept, sayingAssumed } from "../assembly";
import type { Context, Finding, Rule, Severity } from "./rule";
import { airEnough } from "./rules/air-enough";
import { airWay } from "./rules/air-way";
import { bothSides } from "./rules/both-sides";
import { budget } from "./rules/budget";
import { cableWatts } from "./rules/cable-watts";
import { cageOut } from "./rules/cage-out";
import { cardFit } from "./rules/card-fit";
import { chainJoints } from "./rules/chain-joints";
import { commandNowhere } from "./rules/command-nowhere";
import { coolerFit } from "./rules/cooler-fit";
import { coolerHeat } from "./rules/cooler-heat";
import { coolerMounting } from "./rules/cooler-mounting";
import { coolerOutlets } from "./rules/cooler-outlets";
import { coolingSold } from "./rules/cooling-sold";
import { cpuFanSignal } from "./rules/cpu-fan-signal";
import { cpuPower } from "./rules/cpu-power";
import { cpuSocket } from "./rules/cpu-socket";
import { dangling } from "./rules/dangling";
import { displaced } from "./rules/displaced";
import { driveData } from "./rules/drive-data";
import { driveHeat } from "./rules/drive-heat";
import { drivePorts } from "./rules/drive-ports";
import { driveSpeed } from "./rules/drive-speed";
import { fanSize } from "./rules/fan-size";
import { firmware } from "./rules/firmware";
import { formFactors } from "./rules/form-factors";
import { freeLeads } from "./rules/free-leads";
import { frontGap } from "./rules/front-gap";
import { graphicsDoubled } from "./rules/graphics-doubled";
import { lanes } from "./rules/lanes";
import { lightCapacity } from "./rules/light-capacity";
import { lightVoltage } from "./rules/light-voltage";
import { lightWish } from "./rules/light-wish";
import { lowNoise } from "./rules/low-noise";
import { mating } from "./rules/mating";
import { memoryPair } from "./rules/memory-pair";
import { memoryRoom } from "./rules/memory-room";
import { memorySlots } from "./rules/memory-slots";
import { memorySpeedRule } from "./rules/memory-speed";
import { memoryType } from "./rules/memory-type";
import { monitors } from "./rules/monitors";
import { needsPower } from "./rules/needs-power";
import { noRoomBehindTray } from "./rules/no-room-behind";
import { noise } from "./rules/noise";
import { onePlace } from "./rules/one-place";
import { outletWatts } from "./rules/outlet-watts";
import { outletsMeant } from "./rules/outlets-meant";
import { panelPins } from "./rules/panel-pins";
import { pictureSource } from "./rules/picture-source";
import { placeMissing } from "./rules/place-missing";
import { portMissing } from "./rules/port-missing";
import { pumpAlone } from "./rules/pump-alone";
import { radiatorFit } from "./rules/radiator-fit";
import { radiatorPlace } from "./rules/radiator-place";
import { reach } from "./rules/reach";
import { rootCurrent } from "./rules/root-current";
import { signalLost } from "./rules/signal-lost";
import { speedUnread } from "./rules/speed-unread";
import { standoffs } from "./rules/standoffs";
import { supplyClass } from "./rules/supply-class";
import { supplyFit } from "./rules/supply-fit";
import { supplyPlugs } from "./rules/supply-plugs";
import { supplyRails } from "./rules/supply-rails";
import { supplySize } from "./rules/supply-size";
import { supplySystem } from "./rules/supply-system";
import { supplyUsual } from "./rules/supply-usual";
import { toOrder } from "./rules/to-order";
import { tubeSide } from "./rules/tube-side";
import { unlikeFans } from "./rules/unlike-fans";
import { verticalCard } from "./rules/vertical-card";
import { wireDrop } from "./rules/wire-drop";
import { wireless } from "./rules/wireless";

/** All rules. Adding one is adding a file and its line here. */
export const RULES: readonly Rule[] = [
  cpuSocket,
  firmware,
  memoryType,
  formFactors,
  drivePorts,
  placeMissing,
  portMissing,
  cardFit,
  coolerFit,
  coolerMounting,
  radiatorPlace,
  radiatorFit,
  tubeSide,
  memoryRoom,
  supplyFit,
  cageOut,
  fanSize,
  frontGap,
  coolerHeat,
  standoffs,
  coolingSold,
  verticalCard,
  bothSides,
  supplyRails,
  supplyPlugs,
  memoryPair,
  lightCapacity,
  supplyClass,
  airWay,
  airEnough,
  noRoomBehindTray,
  noise,
  onePlace,
  lowNoise,
  lightWish,
  monitors,
  wireless,
  budget,
  supplyUsual,
  wireDrop,
  mating,
  lightVoltage,
  supplySystem,
  panelPins,
  displaced,
  driveData,
  driveSpeed,
  driveHeat,
  rootCurrent,
  cableWatts,
  outletWatts,
  cpuPower,
  needsPower,
  graphicsDoubled,
  pumpAlone,
  outletsMeant,
  commandNowhere,
  cpuFanSignal,
  pictureSource,
  supplySize,
  freeLeads,
  dangling,
  reach,
  memorySlots,
  memorySpeedRule,
  lanes,
  speedUnread,
  coolerOutlets,
  unlikeFans,
  signalLost,
  chainJoints,
  toOrder,
];

const WEIGHT: Record<Severity, number> = { stop: 0, warn: 1, note: 2 };

/** What a rule says, with what of it is only assumed. */
function said(rule: Rule, graph: Graph, on: Context["on"]): Finding[] {
  const found = rule.run({ graph, on });
  const { rests } = rule;
  if (!rests || found.length === 0) return found;
  return found.map((f) => {
    const message = sayingAssumed(
      f.message,
      assumedIn(
        graph,
        rests,
        f.ends.map((e) => e.split(":")[0] ?? ""),
      ),
    );
    return message === f.message ? f : { ...f, message };
  });
}

/** Runs every rule that applies; most serious first, else in the order of the rules. */
export function check(graph: Graph, on: Context["on"]): Finding[] {
  const judged = on === "plugged" ? asPlugged(graph) : graph;
  return RULES.filter((r) => r.on.includes(on))
    .flatMap((r) => said(r, judged, on))
    .map((f, i) => ({ f, i }))
    .sort((a, b) => WEIGHT[a.f.severity] - WEIGHT[b.f.severity] || a.i - b.i)
    .map(({ f }) => f);
}

/**
 * The parts list alone: what can be said before anything is opened. Rules whose kinds of parts did not change since the
 * graph that this one was made from keep what they said.
 */
export function checkParts(graph: Graph): Finding[] {
  return RULES.filter((r) => r.on.includes("parts"))
    .flatMap((r) => {
      if (!r.reads) return said(r, graph, "parts");
      return kept(graph, `rule:${r.id}`, r.reads, () => said(r, graph, "parts"));
    })
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

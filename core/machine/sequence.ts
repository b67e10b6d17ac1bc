import { type Graph, partsOfKind } from "../assembly";
import { list, upper } from "../words";
import { NOISE, type PowerOn } from "./expectation";
import type { Observable } from "./observable";

/** Something that happens in the first seconds. */
export interface Moment {
  /** Seconds after the press; below zero: before it. Common practice: boards differ. */
  fromS: number;
  toS: number;
  id: string;
  what: string;
  /** As it should be, or a fault. */
  isWanted: boolean;
}

const MOST_NAMED = 3;

/** What is seen and heard, in order: before the button, the first ten seconds, until a picture. Times are common practice. */
export function sequenceOf(graph: Graph, on: PowerOn, observables: readonly Observable[]): Moment[] {
  const of = new Map(observables.map((o) => [o.id, o]));
  const out: Moment[] = [];
  const add = (fromS: number, toS: number, id: string, what: string, isWanted: boolean) => out.push({ fromS, toS, id, what, isWanted });
  if (on.damage.length > 0) {
    add(-1, 0, "damage", `Do not press: ${on.damage[0]}.`, false);
    return out;
  }
  const standby = of.get("standby");
  add(
    -5,
    0,
    "standby",
    standby?.isWanted ? "Supply on: the board's standby light is lit." : `The board stays dark. ${standby?.because ?? ""}`.trim(),
    standby?.isWanted ?? false,
  );
  if (on.stopsAt === "standby") return out;
  const button = of.get("button");
  add(
    0,
    1,
    "button",
    button?.isWanted ? "You press, and it starts." : `You press, and nothing happens. ${button?.because ?? ""}`.trim(),
    button?.isWanted ?? false,
  );
  if (on.stopsAt === "button") return out;
  const group = (id: string, word: string, good: string, fromS: number, toS: number, prefix: string) => {
    const all = observables.filter((o) => o.id.startsWith(prefix));
    if (all.length === 0) return;
    const off = all.filter((o) => !o.isWanted && o.value !== NOISE);
    add(
      fromS,
      toS,
      id,
      off.length === 0
        ? good
        : `${all.length - off.length} of ${all.length} ${word}; not: ${list(
            off.map((o) => o.what),
            MOST_NAMED,
          )}.`,
      off.length === 0,
    );
  };
  group("fans", "fans and pumps turn", "Every fan and pump turns, loud: full speed.", 0, 2, "turns:");
  group("lights", "lights are lit", "All lights are lit; colours move until they are set.", 1, 4, "lit:");
  const noise = of.get("noise");
  if (noise && !noise.isWanted) add(0, 2, "noise", noise.because, false);
  const stage = { cpu: "CPU", memory: "memory", picture: "graphics" }[on.stopsAt as "cpu"] as string | undefined;
  const trains = partsOfKind(graph, "memory").length > 0 && on.stopsAt !== "cpu" && on.stopsAt !== "memory";
  if (trains)
    add(5, 90, "training", "Dark for up to a minute and a half while the board learns its memory: only at the very first start, and no fault.", true);
  if (stage !== undefined) {
    const why = of.get({ cpu: "cpu", memory: "memory-stage", picture: "picture" }[on.stopsAt as "cpu"])?.because ?? "";
    add(5, 30, "stage", `No picture; where the board has a stage light, the one for ${stage} stays lit. ${why}`.trim(), false);
    return out;
  }
  if (on.stopsAt === "fan-warning") {
    add(15, 90, "prompt", `A picture, then a warning that waits for a key. ${upper(of.get("fan-warning")?.because ?? "")}`.trim(), false);
    return out;
  }
  const blank = partsOfKind(graph, "drive").length > 0;
  add(15, 90, "picture", `A picture. ${of.get("picture")?.because ?? ""}`.trim(), of.get("picture")?.isWanted ?? true);
  add(16, 95, "prompt", `It may ask for a key once: new CPU or memory${blank ? ", no system on the drives yet" : ""}. No fault.`, true);
  return out;
}

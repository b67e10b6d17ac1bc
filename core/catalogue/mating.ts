import { family } from "./families";

/**
 * What happens when a plug of one family meets a port of another.
 * - `fits`: works fully.
 * - `loss`: goes in and works, with something given up.
 * - `idle`: goes in, does nothing, harms nothing.
 * - `harm`: goes in, or can be forced in, and destroys something.
 * - `keyed`: does not go in.
 */
export type Outcome = "fits" | "loss" | "idle" | "harm" | "keyed";

export interface Mating {
  outcome: Outcome;
  /** What is lost, harmed or in the way, as a clause; empty for a plain fit. */
  because: string;
}

const FITS: Mating = { outcome: "fits", because: "" };

/** plug family → port family → outcome. Pairs that are not listed and not equal are keyed off. */
const TABLE: Record<string, Record<string, Mating>> = {
  "cpu-4+4": {
    "cpu-8": FITS,
    "cpu-4": { outcome: "fits", because: "one half goes in, the other hangs beside it" },
    "gfx-8": { outcome: "harm", because: "the two 8-position plugs put 12 V on opposite rows" },
  },
  "cpu-4": { "cpu-8": { outcome: "loss", because: "half the contacts carry the current: 168 W instead of 336 W" } },
  "cpu-8": { "gfx-8": { outcome: "harm", because: "the two 8-position plugs put 12 V on opposite rows" } },
  "gfx-6+2": {
    "gfx-8": FITS,
    "gfx-6": { outcome: "fits", because: "the two hang beside the six" },
    "cpu-8": { outcome: "harm", because: "the two 8-position plugs put 12 V on opposite rows" },
  },
  "gfx-8": { "cpu-8": { outcome: "harm", because: "the two 8-position plugs put 12 V on opposite rows" } },
  "gfx-6": { "gfx-8": { outcome: "loss", because: "the card sees a 75 W plug" } },
  "panel-loose": { "panel-block": FITS },
  "fan-3": { "fan-4": FITS },
  "fan-4": { "fan-3": FITS },
  "light-5v": {
    "light-12v": { outcome: "harm", because: "12 V on 5 V LEDs: they die at power-on" },
    "light-maker": { outcome: "keyed", because: "the maker's plug has another shape" },
  },
  "light-12v": { "light-5v": { outcome: "idle", because: "5 V is too little for 12 V lights: they stay dark" } },
  usb2: { "hd-audio": { outcome: "keyed", because: "the blank is position 9 on USB 2 and position 8 on audio" } },
  "hd-audio": { usb2: { outcome: "keyed", because: "the blank is position 8 on audio and position 9 on USB 2" } },
};

/** Looks up the mating table. `plugKey` and `portKey` matter only for families with their own key. */
export function mate(plug: string, port: string, plugKey?: string, portKey?: string): Mating {
  const listed = TABLE[plug]?.[port];
  if (listed) return listed;
  if (plug !== port) {
    return { outcome: "keyed", because: `the plug is of another kind (${family(plug).name}) than the port (${family(port).name})` };
  }
  if (family(plug).ownKey && plugKey !== portKey) {
    return plug === "supply-outlet"
      ? { outcome: "harm", because: `cable system ${plugKey ?? "unknown"} is wired differently from outlet ${portKey ?? "unknown"}` }
      : { outcome: "keyed", because: `${plugKey ?? "unmarked"} does not go into ${portKey ?? "unmarked"}` };
  }
  return FITS;
}

/** True when the planner may use the pair: it fits, with or without a loss. */
export function usable(m: Mating): boolean {
  return m.outcome === "fits" || m.outcome === "loss";
}

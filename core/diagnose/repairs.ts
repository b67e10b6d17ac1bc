import { type Graph, partsOfKind } from "../assembly";
import type { PartKind } from "../catalogue";
import { type Cause, nameOf } from "./causes";
import { elsewhere } from "./elsewhere";

export const DEED_KINDS = [
  "look",
  "measure",
  "bridge",
  "spare beside",
  "minimal",
  "swap leads",
  "set right",
  "reset settings",
  "press home",
  "lead aside",
  "tighten",
  "another port",
  "another cable",
  "seat anew",
  "swap",
  "update",
  "open the cooler",
  "lift the board",
] as const;
export type DeedKind = (typeof DEED_KINDS)[number];

/** What mends a cause, as hands are told it. */
export interface Repair {
  id: string;
  kind: DeedKind;
  /** The element that it is about. */
  target: string;
  words: string;
  /** Of hands, where everything lies open (common practice). */
  minutes: number;
  /** The step of the order whose place hands must get at; what is over it comes out first. */
  step?: string;
  /** A known-good spare of this kind is needed. */
  spare?: PartKind;
  caution?: string;
}

export const OFF = "Supply off, mains out, press the button once.";
export const DRAIN = "Supply switch off, mains lead out, press the button once to drain it. Then hands go in.";
const SHARP = `${DRAIN} Touch bare metal first; a board and a module are held by their edges.`;
const FLASH = "The current must not go while it writes: no switch is touched until it says that it is done.";
const MAINS = "Mains: look at the lead and the switch only. A supply is never opened.";

/** Minutes by what comes out for it, where nothing is over it (common practice). */
const SWAP_MIN: Partial<Record<PartKind, number>> = {
  memory: 4,
  card: 6,
  supply: 20,
  cpu: 45,
  cooler: 40,
  board: 60,
  case: 120,
  drive: 6,
  fan: 8,
  hub: 8,
};
const SEAT_MIN: Partial<Record<PartKind, number>> = { memory: 3, card: 5, drive: 4, cpu: 40 };
const [OTHER_MIN, PRESS_MIN, CABLE_MIN, PORT_MIN, SET_MIN, ASIDE_MIN, COOLER_MIN, UPDATE_MIN, LIFT_MIN, TIGHTEN_MIN, PROFILE_MIN, RESET_MIN] = [
  8, 2, 5, 4, 1, 3, 25, 15, 50, 4, 3, 4,
];

/** A port in doubt: what is in it goes where there is room, by name; where there is none, somebody looks into it. */
function otherPort(graph: Graph, target: string): Repair {
  const at = graph.atPort.get(target)?.[0];
  const lead = at && graph.leads.get(at.lead);
  const seat = lead?.loom === "seat" ? lead.part : undefined;
  const other = elsewhere(graph, target, new Set());
  const name = nameOf(graph, target);
  return {
    id: `port:${target}`,
    kind: "another port",
    target,
    ...(seat ? { step: `mount:${seat.id}` } : at ? { step: `plug:${at.lead}` } : {}),
    minutes: (seat && SWAP_MIN[seat.type.kind]) ?? PORT_MIN,
    words: `${OFF} ${other ? other.action : `Look into ${name} with a light, for bent pins and dirt`}, then start.`,
    caution: seat ? SHARP : DRAIN,
  };
}

/** What mends a cause: the one thing, or one of several, the gentlest first. */
export function repairsOf(graph: Graph, c: Cause): Repair[] {
  const name = nameOf(graph, c.element);
  const part = graph.parts.get(c.element);
  const kind = part?.type.kind;
  const { element: target, mode } = c;
  const intoCard = partsOfKind(graph, "card").some((x) => x.type.ratings.hasGraphics);
  const hands = { target, caution: DRAIN };
  const mount = part && !part.cable ? { step: `mount:${part.id}` } : {};
  const swap = (): Repair => ({
    ...hands,
    ...mount,
    id: `swap:${target}`,
    kind: "swap",
    ...(kind ? { spare: kind } : {}),
    minutes: (kind && SWAP_MIN[kind]) ?? OTHER_MIN,
    words: `${OFF} Swap ${name} for one that works, then start.`,
    caution: kind === "supply" ? `${DRAIN} Only the new supply's own cables; the old ones come out with it.` : SHARP,
  });
  const opened = (): Repair => ({
    ...hands,
    ...mount,
    id: `open:${target}`,
    kind: "open the cooler",
    minutes: COOLER_MIN,
    words: `${OFF} Take ${name} off, look for the film and the paste, clean and paste anew, then start.`,
    caution: `${DRAIN} Twist before you lift: a CPU can come out with its cooler.`,
  });
  if (target.includes("@"))
    return [
      {
        ...hands,
        id: `press:${target}`,
        kind: "press home",
        step: `plug:${target.slice(0, target.indexOf("@"))}`,
        minutes: PRESS_MIN,
        words: `${OFF} Press ${name} home, until it clicks or sits flush, then start.`,
      },
    ];
  if (target === "settings" && mode === "too fast")
    return [
      {
        id: "reset:settings",
        kind: "reset settings",
        target,
        minutes: RESET_MIN,
        words: `${OFF} Reset the firmware's settings at the board's own pins or key, as its manual says, then start.`,
        caution: `${DRAIN} All settings go: note first what was set. Nothing else of the board is bridged.`,
      },
    ];
  if (target === "settings")
    return [
      {
        id: "set:settings",
        kind: "set right",
        target,
        minutes: PROFILE_MIN,
        words: "Open the firmware's settings, switch the memory's profile on, keep it and start.",
      },
    ];
  if (target === "mains" || mode === "off")
    return [
      {
        id: "set:mains",
        kind: "set right",
        target: "mains",
        minutes: SET_MIN,
        words: "Look whether the supply's switch is on and the mains lead is in at both ends, then start.",
        caution: MAINS,
      },
    ];
  if (target === "monitor")
    return mode === "dead"
      ? [{ id: "swap:monitor", kind: "swap", target, minutes: PORT_MIN, words: "Take another monitor and its cable." }]
      : [
          {
            id: "set:monitor",
            kind: "set right",
            target,
            minutes: SET_MIN,
            words: `Look at the monitor: on, set to this input, its cable in at both ends, in an output, and in the ${intoCard ? "card, not in the board" : "board"}.`,
          },
        ];
  if (part?.cable)
    return [
      {
        ...hands,
        id: `cable:${target}`,
        kind: "another cable",
        step: `plug:${target}:root-1`,
        minutes: CABLE_MIN,
        words: `${OFF} Use another cable of this supply in place of ${name}, then start.`,
        caution: `${DRAIN} Cables of another supply never fit, whatever their plugs look like.`,
      },
    ];
  if (!part && graph.ports.has(target)) return [otherPort(graph, target)];
  if (!part)
    return [
      {
        ...hands,
        id: `swap:${target}`,
        kind: "swap",
        step: `plug:${target}`,
        minutes: OTHER_MIN,
        words: `${OFF} Put the lead of another switch, such as reset, on the pins of ${name}, then start with that.`,
      },
    ];
  switch (mode) {
    case "unseated":
      return [
        {
          ...hands,
          ...mount,
          id: `seat:${target}`,
          kind: "seat anew",
          minutes: (kind && SEAT_MIN[kind]) ?? OTHER_MIN,
          words: `${OFF} Take ${name} out, look at its contacts, seat it anew, then start.`,
          caution: SHARP,
        },
        swap(),
      ];
    case "film on":
    case "no paste":
      return [opened()];
    case "uneven":
      return [
        {
          ...hands,
          id: `tighten:${target}`,
          kind: "tighten",
          minutes: TIGHTEN_MIN,
          words: `${OFF} Draw the screws of ${name} down crosswise, a turn at a time, until they stop, then start.`,
        },
        opened(),
      ];
    case "old firmware":
      return [
        {
          id: `update:${target}`,
          kind: "update",
          target,
          minutes: UPDATE_MIN,
          words: `Update the firmware of ${name} from a stick, without CPU where the board can.`,
          caution: FLASH,
        },
      ];
    case "touches metal":
      return [
        {
          ...hands,
          ...mount,
          id: `lift:${target}`,
          kind: "lift the board",
          minutes: LIFT_MIN,
          words: `${OFF} Take ${name} out and look for a standoff that is missing or stands wrong, or a screw under it.`,
          caution: SHARP,
        },
      ];
    case "rubs":
      return [
        {
          ...hands,
          id: `aside:${target}`,
          kind: "lead aside",
          minutes: ASIDE_MIN,
          words: `${OFF} Take every lead out of ${name}'s reach and tie it, then start.`,
        },
        swap(),
      ];
    default:
      return [swap()];
  }
}

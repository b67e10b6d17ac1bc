import type { Graph, PartNode } from "../assembly";

/**
 * A way in which a thing may be other than good. What it does to the machine is worked out along the ways of current and signal:
 * nothing passes, or one function of the thing fails and all others go on.
 */
export interface Mode {
  id: string;
  /** What it is in: parts of these kinds, or what is named. */
  of: readonly (PartNode["type"]["kind"] | "joint" | "port" | "mains" | "monitor" | "switch" | "settings")[];
  /** Left out: the whole of it. */
  function?: Failing;
  /** Said of the thing: "Front fan 1 stands still". */
  words: (name: string) => string;
}

/** Functions that fail alone. */
export type Failing =
  | "motor"
  | "signal"
  | "leds"
  | "control"
  | "weak"
  | "half"
  | "film"
  | "paste"
  | "pressure"
  | "profile"
  | "training"
  | "firmware"
  | "short"
  | "foreign"
  | "slow"
  | "rubs"
  | "elsewhere"
  | "input";

/** Modes are common practice (what goes wrong at the bench), as data: a further one is a line. */
export const MODES: readonly Mode[] = [
  {
    id: "dead",
    of: ["board", "cpu", "memory", "card", "drive", "supply", "fan", "hub", "splitter", "cooler", "lighting", "cable", "port", "monitor", "switch"],
    words: (n) => `${n} is dead`,
  },
  { id: "unseated", of: ["cpu", "memory", "card", "drive"], words: (n) => `${n} is not seated` },
  { id: "out", of: ["joint"], words: (n) => `${n}: it is out` },
  { id: "loose", of: ["joint"], words: (n) => `${n}: it is loose` },
  { id: "half", of: ["joint"], function: "half", words: (n) => `${n}: it is only half in` },
  { id: "off", of: ["mains", "supply"], words: (n) => `${n}: it is off at its switch` },
  { id: "weak", of: ["supply"], function: "weak", words: (n) => `${n} gives way under load` },
  { id: "still", of: ["fan", "cooler"], function: "motor", words: (n) => `${n} stands still` },
  { id: "no signal", of: ["fan", "cooler"], function: "signal", words: (n) => `${n} turns and tells no speed` },
  { id: "dark", of: ["fan", "cooler", "lighting", "memory"], function: "leds", words: (n) => `the lights of ${n} are dead` },
  { id: "slow", of: ["fan", "cooler"], function: "slow", words: (n) => `${n} turns slowly: its bearing is worn` },
  { id: "rubs", of: ["fan", "cooler"], function: "rubs", words: (n) => `a lead rubs in ${n}` },
  { id: "no control", of: ["hub"], function: "control", words: (n) => `${n} passes no command on` },
  { id: "film on", of: ["cooler"], function: "film", words: (n) => `the film is still on ${n}` },
  { id: "no paste", of: ["cooler"], function: "paste", words: (n) => `${n} sits without paste` },
  { id: "uneven", of: ["cooler"], function: "pressure", words: (n) => `${n} is not drawn down evenly` },
  { id: "profile off", of: ["settings"], function: "profile", words: () => "the memory's profile is off in the firmware" },
  { id: "too fast", of: ["settings"], function: "training", words: () => "the firmware's settings ask more of the memory than it holds" },
  { id: "old firmware", of: ["board"], function: "firmware", words: (n) => `the firmware of ${n} does not know the CPU` },
  { id: "touches metal", of: ["board"], function: "short", words: (n) => `${n} touches metal: a standoff is missing or stands wrong` },
  { id: "of another supply", of: ["cable"], function: "foreign", words: (n) => `${n} is another supply's cable` },
  { id: "in the board", of: ["monitor"], function: "elsewhere", words: () => "the monitor is in the board, not in the card" },
  {
    id: "in an input",
    of: ["monitor"],
    function: "input",
    words: () => "the monitor's cable is in a socket that is an input, or it shows another input",
  },
];

/** What is assigned: elements by id (part, `lead@port`, port, `mains`, `monitor`, a switch's lead) and the mode of each. */
export type Assignment = Readonly<Record<string, string>>;

/** Bad elements and functions, as the ways of current and signal ask for them, and what is said of each. */
export interface Bad {
  bad: ReadonlySet<string>;
  words: ReadonlyMap<string, string>;
  /** What could not be assigned, each in a sentence. */
  faults: string[];
}

export const failing = (element: string, fn: Failing): string => `${element}#${fn}`;

function kindOf(graph: Graph, element: string): { kind: Mode["of"][number]; name: string } | undefined {
  if (element === "mains") return { kind: "mains", name: "The mains lead" };
  if (element === "settings") return { kind: "settings", name: "The firmware's settings" };
  if (element === "monitor") return { kind: "monitor", name: "The monitor" };
  const [lead, port] = element.split("@");
  if (lead !== undefined && port !== undefined) {
    const [l, p] = [graph.leads.get(lead), graph.ports.get(port)];
    return l && p ? { kind: "joint", name: `${l.tag} in ${p.name}` } : undefined;
  }
  const part = graph.parts.get(element);
  if (part) return { kind: part.cable ? "cable" : part.type.kind, name: part.part.label ?? part.type.name };
  const at = graph.ports.get(element);
  if (at) return { kind: "port", name: at.name };
  const l = graph.leads.get(element);
  return l?.part.type.kind === "case" ? { kind: "switch", name: `${l.name} of the case` } : undefined;
}

/** Sockets that much is drawn through. */
const LOADED: ReadonlySet<string> = new Set(["cpu-power", "graphics-power"]);

/** The modes that an element may be in. */
export const modesOf = (graph: Graph, element: string): readonly Mode[] => {
  const k = kindOf(graph, element)?.kind;
  return k === undefined ? [] : MODES.filter((m) => m.of.includes(k));
};

/** What is bad by an assignment. An element or mode that is not known is said and left out. */
export function badOf(graph: Graph, assignment: Assignment): Bad {
  const bad = new Set<string>();
  const words = new Map<string, string>();
  const faults: string[] = [];
  for (const [element, id] of Object.entries(assignment)) {
    if (id === "good") continue;
    const what = kindOf(graph, element);
    if (!what) {
      faults.push(`modes: ${element} is nothing of this machine. It is left out.`);
      continue;
    }
    const mode = MODES.find((m) => m.id === id && m.of.includes(what.kind));
    if (!mode) {
      const may = MODES.filter((m) => m.of.includes(what.kind)).map((m) => m.id);
      faults.push(`modes: ${element} cannot be “${id}”. It can be: ${may.join(", ")}. It is left out.`);
      continue;
    }
    // A plug that is half in carries current until much is drawn; signals do not pass at all.
    const carries = mode.function !== "half" || LOADED.has(graph.ports.get(element.split("@")[1] ?? "")?.port.role ?? "");
    const at = mode.function === undefined || !carries ? element : failing(element, mode.function);
    bad.add(at);
    words.set(at, mode.words(what.name));
  }
  return { bad, words, faults };
}

import { asPlugged, type Graph, partsOfKind } from "../assembly";
import { memorySpeed } from "../memory";
import { firmwareBehind } from "../wiring";
import { curvesOf } from "./curves";

export const SETUP_GROUPS = ["Settings", "System"] as const;

/** Something that is set up after the first start: what, how it is to be, and why. */
export interface SetupItem {
  id: string;
  group: (typeof SETUP_GROUPS)[number];
  what: string;
  /** As it is to be, in words. */
  target: string;
  /** As a number, where one is read afterwards. */
  value?: number;
  unit?: "MT/s" | "%" | "dB(A)";
  how: string;
  /** So long it runs by itself, minutes (common practice). */
  minutes?: number;
  /** Must be out again before the machine leaves. */
  mustBeOut?: true;
}

/** What the shop sets up besides: its programs, a start drive that it lends, the updates' day. */
export interface SetupAsked {
  /** Each once. */
  promises?: readonly { about: string; words: string; value?: number | undefined }[];
  /** The shop's own programs for the test, which come off again. */
  testPrograms?: readonly string[];
  /** Without a system: the client puts one on. */
  bare?: boolean;
}

/** Where a memory profile stands in most firmware (common practice). */
const ADVANCED = "Often behind the advanced view (a function key), or as one touch on the first page.";

/** All that is set up in a machine after it starts, in the order in which it is done. */
export function setupOf(whole: Graph, { promises = [], testPrograms = [], bare = false }: SetupAsked = {}): SetupItem[] {
  const graph = asPlugged(whole);
  return [...settings(graph, promises), ...(bare ? [] : system(graph, promises, testPrograms))];
}

function settings(graph: Graph, promises: NonNullable<SetupAsked["promises"]>): SetupItem[] {
  const out: SetupItem[] = [];
  const add = (i: Omit<SetupItem, "group">) => out.push({ group: "Settings", ...i });
  const board = partsOfKind(graph, "board")[0];
  for (const b of firmwareBehind(graph))
    add({
      id: "firmware",
      what: `Firmware of ${b.board.part.label ?? b.board.type.name}`,
      target: `${b.needs} or newer`,
      value: b.needs,
      how: "The current never goes while it writes.",
    });
  if (board && firmwareBehind(graph).length === 0)
    add({
      id: "firmware",
      what: `Firmware of ${board.part.label ?? board.type.name}`,
      target: "its version written down",
      how: "It stands on the first page of the firmware.",
    });
  const [now, then] = [memorySpeed(graph, false), memorySpeed(graph, true)];
  const promised = promises.find((p) => p.about === "memory-speed")?.value;
  if (now && then && then.mts > now.mts) {
    const to = Math.min(then.mts, Math.max(promised ?? then.mts, now.mts));
    add({
      id: "memory-profile",
      what: "Memory profile",
      target: `on: ${to} MT/s`,
      value: to,
      unit: "MT/s",
      how: `${ADVANCED} Not stable: one or two steps lower, and say so. ${now.mts} is its default, no fault and no end.`,
    });
  }
  const drives = partsOfKind(graph, "drive");
  if (drives.length > 0) {
    add({
      id: "drive-mode",
      what: "Drive mode",
      target: "plain (AHCI, no array), unless an array was agreed",
      how: "Before the system goes on: changed afterwards it may not start.",
    });
    const boot = bootDrive(graph);
    if (boot)
      add({
        id: "start-order",
        what: "Start order",
        target: `${boot.name} first`,
        how: "The start drive of the shop only for the installation.",
      });
  }
  for (const c of curvesOf(graph))
    add({
      id: `curve:${c.header}`,
      what: `Fan curve of ${c.name}`,
      target: c.mode === "full" ? "full speed" : c.points.map((p) => `${p.percent} % at ${p.atC} °C`).join(", "),
      how: `${c.because} Turns by it: ${c.fans.join(", ")}.`,
    });
  add({
    id: "prompts",
    what: "CPU fan warning",
    target: graph.build.settings.cpuFanWarning === "halt" ? "halts start-up" : "ignored, as agreed",
    how: "A machine that starts with a still fan tells nobody.",
  });
  for (const s of partsOfKind(graph, "supply"))
    if (!s.type.ratings.fanless)
      add({
        id: `switch:${s.id}`,
        what: `Fan switch of ${s.part.label ?? s.type.name}, where it has one`,
        target: "as the client wants it: quiet, or always turning",
        how: "A switch on the part; write down how it stands.",
      });
  for (const c of partsOfKind(graph, "card").filter((x) => x.type.ratings.hasGraphics))
    add({
      id: `switch:${c.id}`,
      what: `Switch of ${c.part.label ?? c.type.name}, where it has one`,
      target: "as delivered, unless another was agreed",
      how: "Two firmwares, quiet and fast, or its lights: a switch on its edge.",
    });
  for (const c of clocks(graph, promises)) add(c);
  for (const l of lightsBy(graph))
    add({
      id: `lights:${l.id}`,
      what: `Lights: ${l.names.join(", ")}`,
      target: promises.find((p) => p.about === "lights")?.words ?? "effect and colour as the client wants them",
      how: l.obeys,
    });
  return out;
}

const OF_PART = { cpu: /\b(cpu|processor|prozessor|core)/i, card: /\b(card|gpu|graphics|grafik)/i, memory: /\b(memory|ram|speicher|dimm)/i } as const;

/** Where an overclock was agreed: each part with what was agreed of it, or as delivered, which is a value too. */
function clocks(graph: Graph, promises: NonNullable<SetupAsked["promises"]>): Omit<SetupItem, "group">[] {
  const agreed = promises.filter((p) => p.about === "overclock");
  if (agreed.length === 0) return [];
  const kinds = Object.keys(OF_PART) as (keyof typeof OF_PART)[];
  // What names no part is of the CPU.
  const of = (words: string) => kinds.find((k) => OF_PART[k].test(words)) ?? "cpu";
  const sockets = [...graph.ports.values()].filter((p) => p.part.type.kind === "board" && p.port.role === "cpu-power");
  const out = sockets.filter((p) => !graph.atPort.get(p.address)?.length);
  return kinds.flatMap((kind) => {
    const part = partsOfKind(graph, kind).find((p) => kind !== "card" || p.type.ratings.hasGraphics);
    if (!part) return [];
    const mine = agreed.filter((p) => of(p.words) === kind);
    const value = mine.find((p) => p.value)?.value;
    const second = kind === "cpu" && mine.length > 0 && sockets.length > 1;
    return [
      {
        id: `clock:${part.id}`,
        what: `Clock of ${part.part.label ?? part.type.name}`,
        target: mine.length > 0 ? mine.map((p) => p.words).join("; ") : "as delivered",
        ...(value === undefined ? {} : { value }),
        how: `What is set, what held under load, at which voltage.${second ? (out.length > 0 ? ` ${out[0]?.name} is empty: the second CPU plug follows.` : " The second CPU plug is in.") : ""}`,
      },
    ];
  });
}

/** Lights by what commands them: a header of the board, a hub, nobody. */
function lightsBy(graph: Graph): { id: string; names: string[]; obeys: string }[] {
  const out = new Map<string, { id: string; names: string[]; obeys: string }>();
  for (const l of graph.leads.values()) {
    if (l.loom !== "lighting" || l.lead.role !== "light") continue;
    const c = graph.ofLead.get(l.address);
    const port = c && graph.ports.get(c.port);
    if (!port || l.part.cable) continue;
    const root = rootOf(graph, port.address);
    const at = graph.ports.get(root);
    if (!at) continue;
    const byBoard = at.part.type.kind === "board";
    const group = out.get(root) ?? {
      id: root,
      names: [],
      obeys: byBoard
        ? `Obeys the board, on ${at.name}: its firmware, or a program in the system.`
        : at.part.type.kind === "hub" || at.part.type.kind === "case"
          ? `Obeys ${at.part.part.label ?? at.part.type.name}: its own button or remote, unless its control lead is in the board.`
          : `Obeys nobody: ${at.name} gives it current and no command.`,
    };
    group.names.push(l.part.part.label ?? l.part.type.name);
    out.set(root, group);
  }
  return [...out.values()].map((g) => ({ ...g, names: [...new Set(g.names)] }));
}

/** The port from which a chain of lights is commanded: through splitters, hubs whose control lead is in, and lights that pass on. */
function rootOf(graph: Graph, port: string, depth = 0): string {
  const at = graph.ports.get(port);
  if (!at || depth > 12 || at.part.type.kind === "board") return port;
  const up = [...graph.leads.values()].find((l) => l.part === at.part && l.loom === "lighting" && graph.ofLead.has(l.address));
  const next = up && graph.ofLead.get(up.address)?.port;
  return next === undefined || next === port ? port : rootOf(graph, next, depth + 1);
}

/** A thing that was promised is known by its words: another one that goes or comes changes nothing of it. */
const named = (words: string): string => words.trim().toLowerCase().replace(/\s+/g, " ").slice(0, 150);

/** The drive that the system goes on: the fastest module, else the first solid one, else the first. */
function bootDrive(graph: Graph): { part: string; name: string } | undefined {
  const drives = partsOfKind(graph, "drive");
  const rank = (d: (typeof drives)[number]) => (d.type.ratings.readMBs ?? 0) + (d.type.leads.some((l) => l.role === "seat") ? 100_000 : 0);
  const best = [...drives].sort((a, b) => rank(b) - rank(a))[0];
  if (!best) return undefined;
  const seat = graph.connections.find((c) => c.lead.startsWith(`${best.id}:`));
  const at = seat && graph.ports.get(seat.port)?.name;
  return {
    part: best.id,
    name: `${best.part.label ?? best.type.name}${at ? ` in ${at}` : ""}${best.part.serial ? `, serial ${best.part.serial}` : ""}`,
  };
}

function system(graph: Graph, promises: NonNullable<SetupAsked["promises"]>, testPrograms: readonly string[]): SetupItem[] {
  const out: SetupItem[] = [];
  const add = (i: Omit<SetupItem, "group">) => out.push({ group: "System", ...i });
  const drives = partsOfKind(graph, "drive");
  const boot = bootDrive(graph);
  if (!boot) return [];
  const others = drives.filter((d) => d.id !== boot.part);
  add({
    id: "lent",
    what: "The shop's start drive",
    target: "out again",
    how: "On loan in this machine until it is pulled and back on its hook.",
    mustBeOut: true,
  });
  add({
    id: "target-drive",
    what: "The drive for the system",
    target: boot.name,
    how: others.length > 0 ? "By slot, size and serial: an installer takes whichever it likes." : "The only one.",
  });
  const otherNames = others.map((d) => d.part.label ?? d.type.name).join(", ");
  if (others.length > 0)
    add({
      id: "drives-apart",
      what: "Other drives unplugged",
      target: otherNames,
      how: "Mains off first. An installer writes onto whichever drive it likes.",
    });
  add({
    id: "install",
    what: "System",
    target: "installed: edition, language, key or “key follows”, first user",
    how: "Copying takes about ten minutes, all of it twenty to sixty.",
    minutes: 20,
  });
  if (others.length > 0)
    add({
      id: "drives-back",
      what: "Other drives plugged back",
      target: `${otherNames}: in, and listed`,
      how: "Mains off first. Then look that each is listed.",
    });
  const net = [...partsOfKind(graph, "board"), ...partsOfKind(graph, "card")].some((p) => p.type.ratings.wireless);
  add({
    id: "driver:network",
    what: net ? "Driver of network and wireless" : "Driver of the network",
    target: "in, and a restart",
    how: "First, where it fetches the rest. One at a time.",
  });
  add({ id: "driver:chipset", what: "Driver of the chipset", target: "in, and a restart", how: "One at a time." });
  if (partsOfKind(graph, "card").some((c) => c.type.ratings.hasGraphics) || partsOfKind(graph, "cpu").some((c) => c.type.ratings.hasGraphics))
    add({ id: "driver:graphics", what: "Driver of the graphics", target: "in, and a restart", how: "From its maker, not the one the system finds." });
  add({
    id: "updates",
    what: "Updates",
    target: "up to today, by themselves from now on as agreed",
    how: "Before anything is measured: they change it. About half an hour by itself.",
    minutes: 30,
  });
  for (const p of promises.filter((x) => x.about === "installed"))
    add({ id: `program:${named(p.words)}`, what: p.words, target: "installed, started once", how: "In one go by one installer where there is one." });
  for (const p of promises.filter((x) => x.about === "data-moved"))
    add({
      id: `data:${named(p.words)}`,
      what: p.words,
      target: "moved, and looked into by the client or with them",
      how: "The old drive stays as it is until the client says so.",
    });
  if (promises.some((x) => x.about === "data-moved"))
    add({
      id: "wiped",
      what: "The old drive",
      target: "kept as it is, or wiped by written order: how, and the proof of it",
      how: "Never without an order, never before the client has looked into what was moved.",
    });
  for (const t of testPrograms)
    add({
      id: `off:${t}`,
      what: `Test program ${t}`,
      target: "off again",
      how: "Programs and accounts of the shop leave the machine before it does.",
      mustBeOut: true,
    });
  add({ id: "devices", what: "Device list", target: "no device without a driver", how: "Look through it once, to its end." });
  return out;
}

/** How an item stands, as it was written down. */
export interface SetupDone {
  /** What was wanted when it was: where parts or wishes changed since, it is to be looked at again. */
  target: string;
  before: string;
  after: string;
  state: "set" | "later" | "not";
  why: string;
}
export type SetupState = "open" | "as wanted" | "otherwise" | "later" | "not done";

/** A tool that rounds differs by so much, MT/s. */
const ROUNDED_MTS = 2;
/** The number in words that somebody wrote down: "6000 MT/s", "F12"; not a number where there is none. */
export const numberIn = (words: string): number => Number(/\d+(?:[.,]\d+)?/.exec(words)?.[0]?.replace(",", ".") ?? Number.NaN);

/** Is what was written down what is wanted? A number is compared; words are taken as said. What was wanted otherwise then is open again. */
export function stateOf(item: SetupItem, d: SetupDone | undefined): SetupState {
  if (!d || d.target !== item.target) return "open";
  if (d.state === "later") return "later";
  if (d.state === "not") return "not done";
  if (item.value === undefined) return "as wanted";
  const read = numberIn(d.after);
  if (item.unit !== "MT/s") return read >= item.value ? "as wanted" : "otherwise";
  // A tool that shows the clock shows half of the rate (JEDEC: two transfers a clock).
  return read >= item.value - ROUNDED_MTS || Math.abs(2 * read - item.value) <= ROUNDED_MTS ? "as wanted" : "otherwise";
}

import { type Graph, type LeadNode, type PartNode, partsOfKind } from "../assembly";
import type { PartKind } from "../catalogue";
import type { Observable } from "../machine";
import { type Backward, isOff } from "./backward";
import { elsewhere } from "./elsewhere";
import { type Deed, type Hypothesis, NOW_WORKS } from "./inference";
import { type DeedKind, DRAIN, OFF, type Repair } from "./repairs";
import { FOLLOWS, NO_CHANGE, STAYS } from "./results";

/** A deed as hands are told it. */
export interface Told extends Deed {
  kind: DeedKind;
  /** The element that it is about. */
  target: string;
  words: string;
  caution?: string;
  /** What comes out for it, in words. */
  access?: string;
  /** Nothing to swap it for lies here: the minutes are mostly waiting. */
  waits?: true;
}

/** What it takes to get at a step's place in the machine as it lies: minutes out and back, and in words; undefined: nothing is known. */
export type Access = (step: string) => { minutes: number; words: string } | undefined;

export interface Shop {
  /** Minutes of a deed, instead of what is usual, by its id. */
  minutes?: Readonly<Record<string, number>>;
  /** Kinds of which a known-good spare lies here; left out: of all. */
  spares?: readonly string[];
  access?: Access;
}

/** Without a spare in the shop a part is waited for, minutes that nobody wants to begin with. */
const NO_SPARE_MIN = 240;
const [SPARE_MIN, BRIDGE_MIN, SWAP_LEADS_MIN, MINIMAL_MIN] = [4, 2, 5, 10];

/** A look takes so long (common practice): one that needs the firmware, a device or a load takes longer. */
const LOOK_MIN: Partial<Record<Observable["group"], number>> = { Memory: 1, Drives: 1, "Front ports": 1.5, Headers: 1, Heat: 2 };
const ANY_LOOK_MIN = 0.5;
/** A machine that is steady under load shows it so late, minutes. */
const LOAD_MIN = 20;
const UNDER_LOAD = new Set(["cpu-load", "cpu-full", "cpu-clock", "card-full"]);
/** Read only once it was set. */
const AFTER_SETTING = new Set(["memory-speed-profile"]);
/** Where a start stops; what comes after cannot be seen. */
const STAGES = ["standby", "button", "cpu", "memory-stage", "picture", "fan-warning"];
const STARTING = new Set(STAGES.slice(0, -1));
/** Seen as soon as the button has done something, however far the start gets. */
const AT_ONCE: ReadonlySet<Observable["group"]> = new Set(["Fans and pump", "Lights", "Sound"]);

/** After which stage a line can be seen: 0 for before the button. */
function stageOf(o: Observable): number {
  const own = STAGES.indexOf(o.id);
  if (own >= 0) return own;
  return AT_ONCE.has(o.group) ? STAGES.indexOf("button") + 1 : STAGES.length;
}

/** All that hands can do about this machine, and look at, while these lines are wrong. */
export function deedsOf(b: Backward, seen: ReadonlyMap<string, string>, shop: Shop = {}): Told[] {
  const out = new Map<string, Told>();
  const has = (kind: PartKind | undefined) => kind === undefined || !shop.spares || shop.spares.includes(kind);
  for (const [at, s] of b.suspected.entries())
    for (const r of s.repairs) {
      const had = out.get(r.id);
      if (had) (had.cures as Set<number>).add(at);
      else out.set(r.id, repairTold(r, new Set([at]), shop, has(r.spare)));
    }
  const off = [...seen].filter(([line, value]) => isOff(b, { line, value })).map(([line]) => line);
  const stops = Math.min(STAGES.length, ...off.flatMap((l) => (STAGES.includes(l) ? [STAGES.indexOf(l)] : [])));
  for (const o of b.lines.values()) {
    // What ticks is said of the fan that does; decibels nobody tells by ear.
    if (seen.has(o.id) || AFTER_SETTING.has(o.id) || o.group === "Sound") continue;
    if (stageOf(o) > stops && !(AT_ONCE.has(o.group) && stops > STAGES.indexOf("button"))) continue;
    const minutes = UNDER_LOAD.has(o.id) ? LOAD_MIN : (LOOK_MIN[o.group] ?? ANY_LOOK_MIN);
    out.set(`look:${o.id}`, {
      id: `look:${o.id}`,
      kind: o.group === "Heat" || o.group === "Headers" ? "measure" : "look",
      target: o.id,
      minutes,
      cures: new Set(),
      shows: (h) => h.shows(o.id),
      words: lookWords(o),
    });
  }
  for (const t of [...beside(b, off, shop, has("supply")), ...bridged(b, off), ...minimal(b, off), ...exchanged(b, off, seen, shop)])
    out.set(t.id, t);
  const list = [...out.values()];
  for (const d of list) {
    const own = shop.minutes?.[d.id];
    if (own !== undefined) d.minutes = own;
  }
  return list;
}

const lookWords = (o: Observable): string => {
  if (UNDER_LOAD.has(o.id)) return `Put it under full load and read: ${o.what}.`;
  if (o.group === "Headers") return `Look in the firmware what ${o.what}.`;
  return `Look: ${o.what}.`;
};

function repairTold(r: Repair, cures: Set<number>, shop: Shop, hasSpare: boolean): Told {
  const at = r.step ? shop.access?.(r.step) : undefined;
  return {
    id: r.id,
    kind: r.kind,
    target: r.target,
    cures,
    minutes: Math.max(r.minutes, at?.minutes ?? 0) + (hasSpare ? 0 : NO_SPARE_MIN),
    words: r.words,
    ...(hasSpare ? {} : { waits: true }),
    ...(r.caution ? { caution: r.caution } : {}),
    ...(at?.words ? { access: at.words } : {}),
  };
}

/** What all causes of a hypothesis belong to. */
const allOf = (b: Backward, h: Hypothesis, is: (element: string) => boolean): boolean =>
  h.causes.length > 0 && h.causes.every((c) => b.suspected[c]?.causes.every((x) => is(x.element)) === true);

/** A test that goes around some elements: it works then, or nothing changes. */
const around = (b: Backward, is: (element: string) => boolean) => (h: Hypothesis) => (allOf(b, h, is) ? NOW_WORKS : NO_CHANGE);

const partOf = (graph: Graph, element: string) => {
  const lead = graph.leads.get(element.split("@")[0] ?? "");
  const port = graph.ports.get(element);
  return graph.parts.get(element) ?? lead?.part ?? port?.part;
};

const byPart = (graph: Graph, element: string, is: (part: PartNode) => boolean): boolean => {
  const part = partOf(graph, element);
  return part !== undefined && is(part);
};

/** The switch of the case on whose pins the power button hangs. */
export const powerSwitch = (graph: Graph): LeadNode | undefined =>
  [...graph.leads.values()].find(
    (l) => l.part.type.kind === "case" && l.lead.role === "panel" && /power/i.test(l.lead.id) && /switch/i.test(l.lead.id),
  );

const STAYS_ON: ReadonlySet<PartKind> = new Set(["board", "cpu", "cooler", "supply", "case"]);

/** What a test goes around, by its id: an element that is not to blame for what is still wrong then. Undefined: it is no such test. */
export function goesAround(graph: Graph, id: string): ((element: string) => boolean) | undefined {
  if (id.startsWith("beside:")) {
    const supply = id.slice("beside:".length);
    return (e) => e === "mains" || byPart(graph, e, (p) => p.id === supply || p.cable?.owner === supply);
  }
  if (id === "bridge") {
    const at = powerSwitch(graph)?.address ?? "";
    return (e) => e === at || e.startsWith(`${at}@`);
  }
  if (id !== "minimal") return undefined;
  const bare = partsOfKind(graph, "cpu").some((c) => c.type.ratings.hasGraphics);
  const first = partsOfKind(graph, "memory")[0]?.id;
  return (e) =>
    byPart(graph, e, (p) => {
      if (p.cable) return false;
      if (p.type.kind === "memory") return p.id !== first;
      return p.type.kind === "card" ? bare : !STAYS_ON.has(p.type.kind);
    });
}

/** What belongs to the device at a lead, and what to its place, where the lead is put elsewhere. */
export const deviceOf = (graph: Graph, lead: LeadNode) => (e: string) => partOf(graph, e) === lead.part && !e.includes("@") && !graph.ports.has(e);
export const placeOfLead = (graph: Graph, lead: LeadNode) => {
  const port = graph.ofLead.get(lead.address)?.port;
  return (e: string) => e === port || e === `${lead.address}@${port}`;
};

const test = (b: Backward, id: string) => around(b, goesAround(b.graph, id) ?? (() => false));

/** A spare supply beside the case, with only the board's and the CPU's plugs. */
function beside(b: Backward, off: readonly string[], shop: Shop, hasSpare: boolean): Told[] {
  const { graph } = b;
  if (!hasSpare || !off.some((l) => STARTING.has(l) || l === "cpu-load")) return [];
  return partsOfKind(graph, "supply").map((s): Told => {
    const id = `beside:${s.id}`;
    const root = graph.connections.find((c) => graph.ports.get(c.port)?.port.role === "board-power");
    const access = root ? shop.access?.(`plug:${root.lead}`) : undefined;
    return {
      id,
      kind: "spare beside",
      target: s.id,
      cures: new Set(),
      shows: test(b, id),
      minutes: Math.max(SPARE_MIN, access?.minutes ?? 0),
      words: `${OFF} Pull the board's and the CPU's plugs, put those of a spare supply in that lies beside the case, then start. Everything else stays as it is.`,
      caution: `${DRAIN} Two supplies never feed one board at once; the spare's own cables, and no others.`,
    };
  });
}

/** The two pins of the power switch bridged for a moment. */
function bridged(b: Backward, off: readonly string[]): Told[] {
  const panel = off.includes("button") ? powerSwitch(b.graph) : undefined;
  if (!panel) return [];
  return [
    {
      id: "bridge",
      kind: "bridge",
      target: panel.address,
      cures: new Set(),
      shows: test(b, "bridge"),
      minutes: BRIDGE_MIN,
      words: `${OFF} Pull the power switch's plug. Supply on again, then bridge its two pins for a moment with a screwdriver.`,
      caution:
        "Supply switch off and mains lead out while the plug is pulled. Then only these two pins, for a moment, with the other hand out of the case; nothing else of the board is touched.",
    },
  ];
}

/** Board, CPU, cooler and one module alone: what comes off is gone around. */
function minimal(b: Backward, off: readonly string[]): Told[] {
  if (!off.some((l) => STARTING.has(l))) return [];
  const bare = partsOfKind(b.graph, "cpu").some((c) => c.type.ratings.hasGraphics);
  const memory = partsOfKind(b.graph, "memory").length > 0 ? "one module" : "the memory";
  return [
    {
      id: "minimal",
      kind: "minimal",
      target: partsOfKind(b.graph, "board")[0]?.id ?? "board",
      cures: new Set(),
      shows: test(b, "minimal"),
      minutes: MINIMAL_MIN,
      words: `${OFF} Pull everything but board, CPU, its cooler and ${memory}${bare ? "" : ", with the card"}, then start.`,
      caution: DRAIN,
    },
  ];
}

/** One dark thing: its lead goes where another works. It follows the lead: the device. It stays: the position. */
function exchanged(b: Backward, off: readonly string[], seen: ReadonlyMap<string, string>, shop: Shop): Told[] {
  const { graph } = b;
  const works = new Set([...seen].flatMap(([l, v]) => (!isOff(b, { line: l, value: v }) && l.includes(":") ? [l.slice(l.indexOf(":") + 1)] : [])));
  return off.flatMap((line): Told[] => {
    const lead = graph.leads.get(line.slice(line.indexOf(":") + 1));
    const c = lead && graph.ofLead.get(lead.address);
    const other = c && lead.loom !== "seat" ? elsewhere(graph, c.port, works) : undefined;
    if (!lead || !c || !other) return [];
    const [own, place] = [deviceOf(graph, lead), placeOfLead(graph, lead)];
    const access = shop.access?.(`plug:${lead.address}`);
    return [
      {
        id: `exchange:${lead.address}`,
        kind: "swap leads",
        target: lead.address,
        cures: new Set(b.suspected.flatMap((s, i) => (s.causes.every((x) => place(x.element)) ? [i] : []))),
        shows: (h) => (allOf(b, h, own) ? FOLLOWS : allOf(b, h, place) ? NOW_WORKS : STAYS),
        minutes: Math.max(SWAP_LEADS_MIN, access?.minutes ?? 0),
        words: `${OFF} ${other.action}, then start.`,
        caution: DRAIN,
      },
    ];
  });
}

import { airOf, LOW_NOISE, soundSumDb } from "../air";
import { asPlugged, type Graph, type LeadNode, partsOfKind } from "../assembly";
import { memorySpeed } from "../memory";
import { upper } from "../words";
import { type Expectation, NOT_REACHED, type PowerOn } from "./expectation";
import { cardHeatC, cpuHeat, HEAT_OFF_K, type Heat, ROOM_C } from "./heat";
import { type Assignment, badOf } from "./modes";
import type { Observable } from "./observable";
import { fails, type World } from "./paths";
import { powerOn } from "./power-on";
import { type Moment, sequenceOf } from "./sequence";
import { speedPaths } from "./speed";

export interface Simulation extends PowerOn {
  observables: Observable[];
  /** The first seconds, in order. */
  sequence: Moment[];
  heat?: Heat;
  /** What of the assignment was left out, and why. */
  faults: string[];
}

/** Data sheets give a fan's speed to within a tenth (common practice). */
const RPM_OFF = 0.1;
const SOUND_OFF_DB = 3;
/** A worn bearing leaves so much of the speed (common practice). */
const SLOW = 0.6;
/** What a lead in a fan adds is heard over everything, dB(A) (common practice). */
const RUBS_DB = 45;

export interface Asked {
  modes?: Assignment | undefined;
  /** The air around, °C. */
  roomC?: number | undefined;
  /** A machine that is only started to see that it does is not loaded. */
  loaded?: boolean;
}

/** The machine as it is plugged, with each element in a mode, to what is seen, heard and read. The same for the same, without clock or chance. */
export function simulate(whole: Graph, { modes = whole.build.modes ?? {}, roomC = ROOM_C, loaded = true }: Asked = {}): Simulation {
  const { bad, words, faults } = badOf(whole, modes);
  const graph = asPlugged(whole);
  const world: World = { graph, bad, words };
  const on = powerOn(whole, bad, loaded, words);
  const turns = new Map(on.lines.flatMap((l) => (l.id.startsWith("turns:") ? [[l.id.slice("turns:".length), l.works] as const] : [])));
  const runs = on.stopsAt !== "standby" && on.stopsAt !== "button" && on.damage.length === 0;
  const heat = heatOf(world, turns, roomC);
  const observables = [
    ...on.lines.map((l) => ofLine(l, graph)),
    ...readings(world, runs),
    ...sounds(world, turns, runs),
    ...profileSpeed(world, on),
    ...heats(world, heat, on, roomC),
  ];
  return { ...on, observables, sequence: sequenceOf(graph, on, observables), ...(heat ? { heat } : {}), faults };
}

/** What keeps a line of the sheet from what is wanted. */
const ofLine = (l: Expectation, graph: Graph): Observable => {
  const number = l.unit !== undefined && Number.isFinite(Number(l.expected)) ? Number(l.expected) : undefined;
  return {
    id: l.id,
    group: l.group,
    what: l.what,
    value: number ?? l.expected,
    ...(l.unit === "GB" || l.unit === "MT/s" ? { unit: l.unit } : {}),
    ...(l.unit === "MT/s" && number !== undefined ? { tolerance: 2, accepted: [number / 2] } : {}),
    wanted: number === undefined ? l.wanted : Number(l.wanted),
    isWanted: l.expected === l.wanted,
    because: l.id === "picture" && l.works ? `${l.because}${sockets(graph)}` : l.because,
  };
};

function sockets(graph: Graph): string {
  const card = partsOfKind(graph, "card").find((c) => c.type.ratings.hasGraphics);
  const from = card ?? partsOfKind(graph, "board")[0];
  const outputs = from?.type.ratings.outputs ?? [];
  return outputs.length === 0 ? "" : ` It has ${outputs.map((o) => `${o.count} ${o.socket}`).join(" and ")}.`;
}

const FANS: ReadonlySet<string> = new Set(["cpu-fan", "radiator-fan", "case-fan"]);

/** Speed of a fan as a header reads it at its very first start, rpm. */
function rpmOf(world: World, l: LeadNode): number | undefined {
  // What is printed of a cooler is its fans' speed.
  const rpm = FANS.has(l.lead.role) ? l.part.type.ratings.rpm : undefined;
  if (rpm === undefined) return undefined;
  return rpm * (l.part.part.lowNoise ? LOW_NOISE : 1) * (fails(world, "slow", l.address, l.part.id) ? SLOW : 1);
}

/** What each header of the board reads: the one fan whose speed comes through, or nothing. */
function readings(world: World, runs: boolean): Observable[] {
  const { graph } = world;
  const headers = [...graph.ports.values()].filter(
    (p) =>
      p.part.type.kind === "board" &&
      p.port.flow === "out" &&
      (p.port.family === "fan-4" || p.port.family === "fan-3") &&
      graph.atPort.get(p.address)?.length,
  );
  return headers.map((p): Observable => {
    const told = speedPaths(world, p);
    const heard = told.find(({ path }) => path.ok);
    const first = told[0]?.lead;
    const rpm = heard && runs ? rpmOf(world, heard.lead) : undefined;
    const known = first && rpmOf({ ...world, bad: new Set() }, first);
    const base = { id: `reads:${p.address}`, group: "Headers" as const, what: `${p.name} reads`, unit: "rpm" as const };
    if (!first) return { ...base, value: 0, wanted: 0, isWanted: true, because: `Nothing on ${p.name} tells its speed.` };
    const value = heard && runs ? (rpm === undefined ? "some speed" : Math.round(rpm)) : 0;
    return {
      ...base,
      value,
      ...(typeof value === "number" && value > 0 ? { tolerance: Math.round(value * RPM_OFF) } : {}),
      wanted: known === undefined ? "some speed" : Math.round(known),
      isWanted: heard !== undefined && runs && !fails(world, "slow", heard.lead.address, heard.lead.part.id),
      because:
        heard && runs
          ? `The speed of ${heard.lead.name} comes through${told.length > 1 ? "; of several fans only one is read" : ""}. Full speed until curves are set.`
          : `${upper((heard ? undefined : told[0]?.path.missing) ?? `no speed comes to ${p.name}`)}.`,
    };
  });
}

function sounds(world: World, turns: ReadonlyMap<string, boolean>, runs: boolean): Observable[] {
  const { graph } = world;
  const sources = [...turns].flatMap(([address, works]) => {
    const l = graph.leads.get(address);
    return works && l ? [l] : [];
  });
  const parts = [...new Set(sources.map((l) => l.part))];
  const known = parts.flatMap((p) => p.type.ratings.noiseDb ?? []);
  const rubbing = parts.flatMap(
    (p) => fails(world, "rubs", p.id) ?? sources.flatMap((l) => (l.part === p ? (fails(world, "rubs", l.address) ?? []) : [])),
  )[0];
  const full = airOf(graph).noiseFullDb;
  const value = !runs || parts.length === 0 ? 0 : Math.round(soundSumDb([...known, ...(rubbing ? [RUBS_DB] : [])]));
  if (full <= 0) return [];
  return [
    {
      id: "noise",
      group: "Sound",
      what: "Noise at the first start, at 1 m",
      value,
      unit: "dB(A)",
      tolerance: SOUND_OFF_DB,
      wanted: Math.round(full),
      isWanted: runs && rubbing === undefined && value > 0,
      because: rubbing
        ? `${upper(rubbing)}: a ticking or rattling, at once. Off, and move the lead.`
        : runs
          ? "All fans at full speed: normal, and no fault."
          : "Nothing turns.",
    },
  ];
}

/** What the memory will run at once its profile is switched on, and over how many channels. */
function profileSpeed(world: World, on: PowerOn): Observable[] {
  const { graph } = world;
  const after = memorySpeed(graph, true);
  const off = fails(world, "profile", "settings");
  const without = memorySpeed(graph, false)?.mts ?? 0;
  if (!after) return [];
  const reached = on.lines.find((l) => l.id === "memory-speed")?.works ?? false;
  const slots = graph.connections.flatMap((c) => {
    const p = graph.ports.get(c.port);
    return p?.port.role === "memory" ? [/([A-D])\d?$/.exec(p.port.label)?.[1] ?? p.address] : [];
  });
  const channels = new Set(slots).size;
  const most = Math.min(2, partsOfKind(graph, "memory").length);
  return [
    {
      id: "memory-channels",
      group: "Memory",
      what: "Memory channels in use",
      value: reached ? Math.min(channels, 2) : NOT_REACHED,
      wanted: most,
      isWanted: reached && Math.min(channels, 2) >= most,
      because: `${after.modules} ${after.modules === 1 ? "module" : "modules"} in ${channels} ${channels === 1 ? "channel" : "channels"}.`,
    },
    {
      id: "memory-speed-profile",
      group: "Memory",
      what: "Memory speed with its profile on",
      value: !reached ? NOT_REACHED : off ? without : after.mts,
      unit: "MT/s",
      tolerance: 2,
      accepted: [(off ? without : after.mts) / 2],
      wanted: after.mts,
      isWanted: reached && (!off || without === after.mts),
      because: off ? `${upper(off)}.` : `Limited by ${after.because}.`,
    },
  ];
}

function heatOf(world: World, turns: ReadonlyMap<string, boolean>, roomC: number): Heat | undefined {
  const coolers = partsOfKind(world.graph, "cooler");
  const bare = coolers
    .flatMap((c) => fails(world, "film", c.id) ?? fails(world, "paste", c.id) ?? fails(world, "pressure", c.id) ?? [])
    .map((w) => `${upper(w)}: the heat does not get through.`)[0];
  const still = [...turns].find(([address, works]) => !works && world.graph.leads.get(address)?.lead.role === "pump")?.[0];
  const pumpStill = still === undefined ? undefined : `${world.graph.leads.get(still)?.name ?? "The pump"} stands still.`;
  return cpuHeat(world.graph, { share: 1, roomC, bare, pumpStill });
}

function heats(world: World, heat: Heat | undefined, on: PowerOn, roomC: number): Observable[] {
  const out: Observable[] = [];
  const up = on.lines.find((l) => l.id === "picture")?.works === true;
  const good = cpuHeat(world.graph, { share: 1, roomC });
  const c = (id: string, what: string, value: number, wanted: number, isWanted: boolean, because: string) =>
    out.push({
      id,
      group: "Heat",
      what,
      value: up ? Math.round(value) : NOT_REACHED,
      unit: "°C",
      tolerance: HEAT_OFF_K,
      wanted: Math.round(wanted),
      isWanted: up && isWanted,
      because,
    });
  if (heat && good) {
    c("cpu-idle", "CPU at rest", heat.idleC, good.idleC, Math.abs(heat.idleC - good.idleC) <= HEAT_OFF_K, heat.because);
    c("cpu-full", "CPU under full load, fans at full", heat.loadC, good.loadC, heat.holds === good.holds, heat.because);
    out.push({
      id: "cpu-clock",
      group: "Heat",
      what: "Clock of the CPU under load, of its full",
      value: up ? Math.round(heat.clockShare * 100) : NOT_REACHED,
      unit: "%",
      tolerance: 5,
      wanted: Math.round(good.clockShare * 100),
      isWanted: up && heat.holds === good.holds,
      because: heat.holds === "holds" ? "Nothing slows it down." : heat.because,
    });
  }
  if (partsOfKind(world.graph, "card").some((x) => x.type.ratings.hasGraphics)) {
    const { loadC, hotspotC } = cardHeatC(world.graph, 1, roomC);
    c(
      "card-full",
      "Graphics card under full load",
      loadC,
      loadC,
      true,
      `Its own cooler is made for it; its hottest point reads about ${Math.round(hotspotC)} °C.`,
    );
  }
  return out;
}

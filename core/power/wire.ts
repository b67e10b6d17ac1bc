import { type Address, type Graph, kept, type LeadNode, partsOfKind, portNodes } from "../assembly";
import { family, mate } from "../catalogue";
import { cpuSocketsNeeded } from "./cpu";
import { portDrawW } from "./draw";

/** Resistivity of annealed copper at 20 °C, Ω·m (IEC 60028 gives 1/58 Ω·mm²/m = 1.724e-8, from memory). */
const COPPER_OHM_M = 1.724e-8;

/** Diameter of a solid wire in mm: 0.127 · 92^((36 - n) / 39) (ASTM B258, formula). */
export const wireDiameterMm = (awg: number): number => 0.127 * 92 ** ((36 - awg) / 39);
export const wireAreaMm2 = (awg: number): number => (Math.PI / 4) * wireDiameterMm(awg) ** 2;
/** Resistance of one copper wire at 20 °C, Ω/m. */
export const wireOhmPerM = (awg: number): number => (COPPER_OHM_M / wireAreaMm2(awg)) * 1e6;

/** Volts lost on a length of cable, out over some wires and back over others, the current shared evenly among each. */
export const wireDropV = (w: { awg: number; lengthMm: number; currentA: number; out: number; back: number }): number =>
  w.currentA * (w.lengthMm / 1000) * wireOhmPerM(w.awg) * (1 / w.out + 1 / w.back);

/** The 12 V rail holds 5 % at the plug (ATX power supply design guide, Intel, from memory): 0.6 V. */
export const RAIL_TOLERANCE_V = 0.6;

/** 16 AWG in the 16-pin graphics cable, 18 AWG in the others (PCI Express CEM and ATX design guide, from memory). */
const awgOf = (familyId: string) => (familyId === "gfx-16" ? 16 : 18);

export interface PlugDrop {
  port: Address;
  name: string;
  lead: Address;
  /** `false`: no plug is planned here yet, so the longest cable that has one is taken. */
  planned: boolean;
  currentA: number;
  lengthMm: number;
  dropV: number;
}

/** Volts lost between supply and each 12 V plug of CPU and cards, at their peak; the largest first. */
export function plugDrops(graph: Graph): PlugDrop[] {
  const planned = graph.connections.length > 0;
  const out: PlugDrop[] = [];
  for (const part of [...partsOfKind(graph, "board"), ...partsOfKind(graph, "card")]) {
    for (const [i, { role, family: socket }] of part.type.ports.entries()) {
      const port = role === "cpu-power" || role === "graphics-power" ? portNodes(part)[i] : undefined;
      if (!port) continue;
      const currentA = portDrawW(graph, port) / 12;
      if (currentA <= 0) continue;
      const there = planned ? graph.leads.get(graph.atPort.get(port.address)?.[0]?.lead ?? "") : undefined;
      const base = { port: port.address, name: port.name, currentA };
      if (there?.part.cable) {
        const lengthMm = there.lead.lengthMm;
        out.push({ ...base, lead: there.address, planned: true, lengthMm, dropV: along(graph, there, socket, currentA) });
      } else if (!there && (role !== "cpu-power" || cpuSocketsNeeded(graph).includes(port))) {
        const end = longestEnd(graph, socket);
        if (!end) continue;
        const [out12, back] = wiresOf(end.family, socket);
        const dropV = wireDropV({ awg: awgOf(end.family), lengthMm: end.atMm, currentA, out: out12, back });
        out.push({ ...base, lead: end.address, planned: false, lengthMm: end.atMm, dropV });
      }
    }
  }
  return out.sort((a, b) => b.dropV - a.dropV || (a.port < b.port ? -1 : 1));
}

interface End {
  address: Address;
  family: string;
  atMm: number;
}

/** The plug furthest from the supply that goes into a socket. */
function longestEnd(graph: Graph, socket: string): End | undefined {
  const known = kept(graph, "longest-ends", ["supply"], () => new Map<string, End | undefined>());
  if (!known.has(socket)) known.set(socket, searchEnds(graph, socket));
  return known.get(socket);
}

function searchEnds(graph: Graph, socket: string): End | undefined {
  let best: End | undefined;
  for (const supply of partsOfKind(graph, "supply"))
    for (const c of supply.type.cables)
      for (const e of c.ends)
        if (e.atMm > (best?.atMm ?? -1) && mate(e.family, socket).outcome === "fits")
          best = { address: `${supply.id}/${c.id}/1:${e.id}`, family: e.family, atMm: e.atMm };
  return best;
}

/** Pin-outs never change: each pair is counted once. */
const wires = new Map<string, [number, number]>();

/** Wires that carry 12 V, and those back, where plug and socket both have a contact. */
function wiresOf(plug: string, socket: string): [number, number] {
  const key = `${plug}>${socket}`;
  const known = wires.get(key);
  if (known) return known;
  const count = (signal: string) => Math.min(...[plug, socket].map((f) => family(f).pins.filter((w) => w.signal === signal).length)) || 1;
  const made: [number, number] = [count("+12 V"), count("ground")];
  wires.set(key, made);
  return made;
}

/** What is lost up to one plug: on the way that plugs share, the current of all of them flows. */
function along(graph: Graph, lead: LeadNode, socket: string, ownA: number): number {
  const [out, back] = wiresOf(lead.lead.family, socket);
  const others = lead.part.type.leads.filter((l) => l.flow === "out" && l.id !== lead.lead.id);
  const currentAt = (id: string) => {
    const port = graph.ports.get(graph.ofLead.get(`${lead.part.id}:${id}`)?.port ?? "");
    return port ? portDrawW(graph, port) / 12 : 0;
  };
  const marks = [...new Set([...others.map((o) => Math.min(o.lengthMm, lead.lead.lengthMm)), lead.lead.lengthMm])].sort((a, b) => a - b);
  let from = 0;
  let sum = 0;
  for (const to of marks) {
    const currentA = ownA + others.filter((o) => o.lengthMm >= to).reduce((s, o) => s + currentAt(o.id), 0);
    sum += wireDropV({ awg: awgOf(lead.lead.family), lengthMm: to - from, currentA, out, back });
    from = to;
  }
  return sum;
}

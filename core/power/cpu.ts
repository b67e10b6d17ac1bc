import { type Graph, naturally, type PortNode, partsOfKind, wholeParts } from "../assembly";
import { family, mate, usable } from "../catalogue";
import { peakW } from "./peak";

/** CPU power sockets of the board, the main one first: by rank, then by name. */
export const cpuSockets = (graph: Graph): PortNode[] =>
  [...graph.ports.values()]
    .filter((p) => p.port.role === "cpu-power" && p.port.flow === "in" && p.part.type.kind === "board")
    .sort((a, b) => a.port.rank - b.port.rank || contacts(b.port.family) - contacts(a.port.family) || naturally(a.address, b.address));

/** 12 V contacts of a CPU power socket or plug: half of its positions. */
const contacts = (familyId: string): number => family(familyId).pins.filter((p) => p.signal === "+12 V").length;

/** Peak draw of the CPU in W; 0 without one. */
export const cpuDrawW = (graph: Graph): number => {
  const cpu = partsOfKind(graph, "cpu")[0];
  return cpu ? peakW(cpu) : 0;
};

/** What a CPU socket carries in W: the shop's figure for eight positions, half of it for four (formula: by contacts). */
export const cpuSocketW = (graph: Graph, familyId: string): number => (graph.build.policy.cpuPlugW * contacts(familyId)) / 4;

/** Sockets that the draw asks for: the main one always, then the next until their contacts carry it. All, where they do not. */
export function cpuSocketsNeeded(graph: Graph): PortNode[] {
  const out: PortNode[] = [];
  let leftW = cpuDrawW(graph);
  for (const s of cpuSockets(graph)) {
    if (out.length > 0 && leftW <= 1e-9) break;
    out.push(s);
    leftW -= cpuSocketW(graph, s.port.family);
  }
  return out;
}

/** Contacts that really carry: a four-position plug in an eight-position socket brings half of them. */
function filledW(graph: Graph, s: PortNode): number {
  const c = graph.atPort.get(s.address)?.[0];
  const plug = c && graph.leads.get(c.lead);
  // A plug that does not belong there carries nothing.
  return plug && usable(mate(plug.lead.family, s.port.family)) ? Math.min(cpuSocketW(graph, s.port.family), cpuSocketW(graph, plug.lead.family)) : 0;
}

/** What the filled sockets carry together, in W, by contacts. */
export const cpuFilledW = (graph: Graph): number => cpuSockets(graph).reduce((s, p) => s + filledW(graph, p), 0);

/** What a CPU socket takes in W where the plan fills those that are needed; beyond them, where it fills all. */
export function cpuShareWanted(graph: Graph, socket: PortNode): number {
  const needed = cpuSocketsNeeded(graph);
  const among = needed.includes(socket) ? needed : cpuSockets(graph);
  const all = among.reduce((s, p) => s + cpuSocketW(graph, p.port.family), 0);
  return all > 0 ? (cpuDrawW(graph) * cpuSocketW(graph, socket.port.family)) / all : 0;
}

/** What a CPU socket takes in W as things are plugged: the draw shared over the filled sockets by their contacts. Nothing through a wrong plug. */
export function cpuShareFilled(graph: Graph, socket: PortNode): number {
  const all = cpuFilledW(graph);
  if (all === 0 && graph.atPort.get(socket.address)?.length) return 0;
  return all > 0 ? (cpuDrawW(graph) * filledW(graph, socket)) / all : cpuShareWanted(graph, socket);
}

/** What an empty CPU socket would take in W with a whole plug in it: the draw shared over it and the filled ones. */
export function cpuShareOnceFilled(graph: Graph, socket: PortNode): number {
  const own = cpuSocketW(graph, socket.port.family);
  return own > 0 ? (cpuDrawW(graph) * own) / (own + cpuFilledW(graph)) : 0;
}

/** Is there a board with a CPU socket at all? Without one nothing is asked of its power. */
export const hasCpu = (graph: Graph): boolean => wholeParts(graph).some((p) => p.type.kind === "cpu");

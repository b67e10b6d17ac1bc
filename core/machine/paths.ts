import { type Address, type Graph, type LeadNode, mateOf, type PortNode, partsOfKind } from "../assembly";
import { rootOf, wayOfLead } from "../brings";
import { family, type PartKind, usable } from "../catalogue";
import { type Failing, failing } from "./modes";

/** Something that must be good for a result to be seen: a part, a plugged joint, a header or an outlet. */
export interface Element {
  id: string;
  kind: "part" | "board" | "joint" | "port" | "cable" | "mains" | "switch" | "monitor";
  name: string;
  /** What it is or belongs to, where it is a part; what a monitor is plugged into. */
  of?: PartKind;
}

/** Parts of the build that an element is, belongs to or joins; a cable counts as the part whose bag it came out of. */
export const partsOfElement = ({ id }: Pick<Element, "id">): string[] => [
  ...new Set(id.split("@").map((end) => (end.split(":")[0] ?? "").split("/")[0] ?? "")),
];

/** A way from the mains to a consumer, with all it leans on. `missing` says in a clause what breaks it. */
export interface Path {
  ok: boolean;
  leans: Element[];
  /** Ids among `leans` that it could do without: the second CPU plug, one of several modules. Working clears none of them. */
  spare?: string[];
  missing?: string;
}

export interface World {
  graph: Graph;
  /** Elements known or pretended to be bad: for the simulated machine. */
  bad: ReadonlySet<string>;
  /** What is said of each that is bad; else that it is bad. */
  words?: ReadonlyMap<string, string>;
}

/** Said of a function that fails alone, where it does; by the element or one that it belongs to. */
export function fails(world: World, fn: Failing, ...elements: string[]): string | undefined {
  const at = elements.find((e) => world.bad.has(failing(e, fn)));
  return at === undefined ? undefined : (world.words?.get(failing(at, fn)) ?? `${at} fails`);
}

export const partElement = (graph: Graph, id: string): Element => {
  const p = graph.parts.get(id);
  const name = p?.part.label ?? p?.type.name ?? id;
  if (!p) return { id, kind: "part", name };
  return p.cable ? { id, kind: "cable", name } : { id, kind: p.type.kind === "board" ? "board" : "part", name, of: p.type.kind };
};
export const jointElement = (l: LeadNode, p: PortNode): Element => ({
  id: `${l.address}@${p.address}`,
  kind: "joint",
  name: `${l.tag} in ${p.name}`,
});
const portElement = (p: PortNode): Element => ({ id: p.address, kind: "port", name: p.name });
export const MAINS: Element = { id: "mains", kind: "mains", name: "Mains lead and switch" };

/** The monitor with its cable, which somebody has plugged into what gives the picture, or not. */
export function monitorPath(world: World, into: "card" | "board"): Path {
  const elsewhere = fails(world, "input", "monitor") ?? (into === "card" ? fails(world, "elsewhere", "monitor") : undefined);
  return judge(world, [{ id: "monitor", kind: "monitor", name: `Monitor and its cable, in the ${into}`, of: into }], elsewhere);
}

function judge(world: World, leans: Element[], missing?: string): Path {
  const broken = leans.find((e) => world.bad.has(e.id));
  if (missing !== undefined) return { ok: false, leans, missing };
  if (broken) return { ok: false, leans, missing: world.words?.get(broken.id) ?? `${broken.name} is bad` };
  return { ok: true, leans };
}

/** From the mains to a power socket of a part. */
export function powerPath(world: World, socket: PortNode, depth = 0): Path {
  const { graph } = world;
  const c = graph.atPort.get(socket.address)?.[0];
  const l = c && graph.leads.get(c.lead);
  if (!c || !l) return judge(world, [MAINS], `${socket.name} is empty`);
  const joint = jointElement(l, socket);
  if (!usable(mateOf(l, socket))) return judge(world, [MAINS, joint], `${l.tag} does not belong in ${socket.name}`);
  if (!l.part.cable) {
    // An adapter: every one of its sockets must be fed.
    const ins = l.part.type.ports.filter((p) => p.flow === "in").flatMap((p) => graph.ports.get(`${l.part.id}:${p.id}`) ?? []);
    const paths = depth < 5 ? ins.map((p) => powerPath(world, p, depth + 1)) : [];
    const dead = paths.find((p) => !p.ok);
    return judge(world, [...paths.flatMap((p) => p.leans), partElement(graph, l.part.id), joint], dead?.missing);
  }
  const { owner } = l.part.cable;
  const leans = [MAINS, partElement(graph, owner), partElement(graph, l.part.id), joint];
  for (const [n] of l.part.cable.cable.outlets.entries()) {
    const root = graph.ofLead.get(`${l.part.id}:root-${n + 1}`);
    const outlet = root && graph.ports.get(root.port);
    const rootLead = graph.leads.get(`${l.part.id}:root-${n + 1}`);
    if (!outlet || !rootLead) return judge(world, leans, `${l.part.part.label} is not plugged into the supply`);
    // A cable set of the same system is as good as the supply's own; any other cable is not.
    if (!usable(mateOf(rootLead, outlet))) return judge(world, leans, `${l.part.part.label} is in the wrong outlet`);
    leans.push(jointElement(rootLead, outlet));
  }
  return judge(world, leans);
}

export function boardSockets(graph: Graph, role: "board-power" | "cpu-power") {
  return [...graph.ports.values()].filter((p) => p.port.role === role && p.port.flow === "in").sort((a, b) => a.port.rank - b.port.rank);
}

/** Power of the board itself: its 24-pin. */
export function boardPath(world: World): Path {
  const socket = boardSockets(world.graph, "board-power")[0];
  const board = partsOfKind(world.graph, "board")[0];
  if (!socket || !board) return judge(world, [], "there is no board");
  const p = powerPath(world, socket);
  return judge(world, [...p.leans, partElement(world.graph, board.id)], p.missing);
}

/** What hangs on a lead: its part, or of a case, which is not one thing, what this lead alone comes from. */
const ownElement = (graph: Graph, l: LeadNode): Element =>
  l.part.type.kind === "case" ? { id: l.address, kind: "part", of: "case", name: `${l.name} of the case` } : partElement(graph, l.part.id);

/** From the board to a fan, pump, strip or front port that hangs on a lead: current and signal both. */
export function leadPath(world: World, lead: Address, depth = 0): Path {
  const { graph } = world;
  const l = graph.leads.get(lead);
  const c = graph.ofLead.get(lead);
  const p = c && graph.ports.get(c.port);
  if (!l || !c || !p) return judge(world, [], `${l?.tag ?? lead} is not plugged`);
  const leans = [ownElement(graph, l), jointElement(l, p)];
  if (!usable(mateOf(l, p))) return judge(world, leans, `${l.tag} does not work in ${p.name}`);
  const from = p.port.fedBy;
  if (from === undefined) {
    const board = boardPath(world);
    return judge(world, [...board.leans, portElement(p), ...leans], board.missing);
  }
  const socket = graph.ports.get(`${p.part.id}:${from}`);
  if (socket) {
    const fed = powerPath(world, socket);
    return judge(world, [...fed.leans, partElement(graph, p.part.id), portElement(p), ...leans], fed.missing);
  }
  const up = depth < 20 ? leadPath(world, `${p.part.id}:${from}`, depth + 1) : judge(world, [], "its way leads back to itself");
  return judge(world, [...up.leans, partElement(graph, p.part.id), ...leans], up.missing);
}

/**
 * What is on a hub also listens to a command, speed or colour, that comes through the hub's control lead, from a header, through
 * other hubs too. None where a header commands it directly, or the hub's own button or knob does.
 */
export function controlPath(world: World, lead: Address, depth = 0): Path | undefined {
  const { graph } = world;
  const c = graph.ofLead.get(lead);
  const p = c && graph.ports.get(c.port);
  const root = p && rootOf(graph, p);
  if (root?.kind !== "hub" || root.port.port.controlledBy === undefined) return undefined;
  const control = `${root.part.id}:${root.port.port.controlledBy}`;
  if (graph.leads.get(control)?.lead.ownControl && !graph.ofLead.has(control)) return undefined;
  const mute = fails(world, "control", root.part.id);
  const led = leadPath(world, control);
  const own: Path = mute === undefined ? led : { ...led, ok: false, missing: mute };
  const travel = graph.leads.get(lead)?.loom === "lighting" ? "colour" : "control";
  const ring = wayOfLead(graph, control, travel).nowhere?.kind === "ring";
  if (ring || depth > 20) return judge(world, own.leans, `${partElement(graph, root.part.id).name} gets its command from itself`);
  const above = controlPath(world, control, depth + 1);
  return above ? join(world, [own, above]) : own;
}

/** Is a slot or socket filled, and by what? */
export function seatPath(world: World, partId: string): Path {
  const { graph } = world;
  const part = graph.parts.get(partId);
  const seat = part?.type.leads.find((l) => l.role === "seat");
  const address = `${partId}:${seat?.id ?? ""}`;
  const c = graph.ofLead.get(address);
  const p = c && graph.ports.get(c.port);
  const l = graph.leads.get(address);
  if (!p || !l)
    return judge(world, [partElement(graph, partId)], `${part?.part.label ?? partId} is not in its ${seat ? family(seat.family).name : "slot"}`);
  return judge(world, [partElement(graph, partId), jointElement(l, p), portElement(p)]);
}

/** Every one of these must hold. */
export function join(world: World, paths: Path[]): Path {
  const leans = new Map<string, Element>();
  const needed = new Set<string>();
  for (const p of paths) {
    for (const e of p.leans) {
      leans.set(e.id, e);
      if (!p.spare?.includes(e.id)) needed.add(e.id);
    }
  }
  const spare = [...leans.keys()].filter((id) => !needed.has(id));
  const missing = paths.find((p) => !p.ok)?.missing;
  const all = [...leans.values()];
  const judged =
    missing !== undefined
      ? { ok: false, leans: all, missing }
      : judge(
          world,
          all.filter((e) => needed.has(e.id)),
        );
  return { ...judged, leans: all, ...(spare.length > 0 ? { spare } : {}) };
}

/** One of these is enough: what they do not share is spare while more than one holds. */
export function either(paths: Path[]): Path {
  const good = paths.filter((p) => p.ok);
  const first = good[0] ?? paths[0];
  if (!first || good.length < 2) return first ?? { ok: false, leans: [] };
  const leans = new Map(good.flatMap((p) => p.leans).map((e) => [e.id, e]));
  const spare = [...leans.keys()].filter((id) => good.some((p) => !p.leans.some((e) => e.id === id)));
  return { ok: true, leans: [...leans.values()], spare };
}

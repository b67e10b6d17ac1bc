import { type Loom, type PartType, type Point, type Port, withMeasured } from "../catalogue";
import type { Rect } from "./geometry";
import { giveStore, inherit, partsOfKind, storeOf } from "./kept";
import { cableNodes, leadNodes, portNodes } from "./nodes";
import { withRadiators } from "./on-radiators";
import type { Address, Build, Connection, Part } from "./schema";
import type { Graph, LeadNode, PartNode, PortNode } from "./shape";

export type TypeLookup = (id: string) => PartType | undefined;

/** Types of the build itself come before those of the shelf. */
export function typeLookup(build: Pick<Build, "partTypes">, shelf: readonly PartType[]): TypeLookup {
  const all = new Map(shelf.map((t) => [t.id, t]));
  for (const t of build.partTypes) all.set(t.id, t);
  return (id) => all.get(id);
}

export const byText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** Natural order, so that SYS_FAN2 stands before SYS_FAN10. Deterministic in every locale. */
export function naturally(a: string, b: string): number {
  const split = (s: string) => s.split(/(\d+)/);
  const x = split(a);
  const y = split(b);
  for (let i = 0; i < Math.min(x.length, y.length); i++) {
    const p = x[i] ?? "";
    const q = y[i] ?? "";
    if (p === q) continue;
    const n = i % 2 === 1 ? Number(p) - Number(q) : 0;
    return n !== 0 ? n : byText(p, q);
  }
  return x.length - y.length;
}

const add = (a: Point, b: Point): Point => ({ xMm: a.xMm + b.xMm, yMm: a.yMm + b.yMm });

/** Where each part sits, in case millimetres: its mount, or a place that follows from case and board. */
function placer(parts: readonly Placed[]) {
  const caseType = parts.find((p) => p.type.kind === "case")?.type;
  const boardType = parts.find((p) => p.type.kind === "board")?.type;
  const boardAt = caseType?.body.boardAt ?? { xMm: 0, yMm: 0 };
  const mounts = new Map((caseType?.body.mounts ?? []).map((m) => [m.id, m]));
  const firstMount = (what: "supply" | "drive" | "hub") => [...mounts.values()].find((m) => m.takes.includes(what))?.at;
  const boardPort = (role: Port["role"]) => {
    const port = boardType?.ports.find((p) => p.role === role);
    return port && add(boardAt, port.at);
  };
  const middle = {
    xMm: (caseType?.body.widthMm ?? 400) / 2,
    yMm: (caseType?.body.heightMm ?? 400) / 2,
  };
  const origin = ({ part, type }: Placed): Point => {
    const mount = part.mount === undefined ? undefined : mounts.get(part.mount);
    if (mount) return mount.at;
    switch (type.kind) {
      case "case":
        return { xMm: 0, yMm: 0 };
      case "board":
        return boardAt;
      case "cpu":
      case "cooler":
        return boardPort("cpu") ?? boardAt;
      case "memory":
        return boardPort("memory") ?? boardAt;
      case "card":
        return boardPort("expansion") ?? boardAt;
      case "supply":
        return firstMount("supply") ?? middle;
      case "drive":
        return firstMount("drive") ?? middle;
      case "hub":
        return firstMount("hub") ?? middle;
      default:
        return middle;
    }
  };
  const size = boardType?.body;
  const boardRect: Rect | undefined = boardType ? { ...boardAt, widthMm: size?.widthMm ?? 244, heightMm: size?.heightMm ?? 305 } : undefined;
  const cutouts = (caseType?.body.cutouts ?? []).map((c) => c.at);
  return { origin, boardRect, cutouts, frontIo: caseType?.body.frontIoAt, caseType, boardType };
}

interface Placed {
  part: Part;
  type: PartType;
}

const KIND_NAME: Partial<Record<PartType["kind"], string>> = { fan: "fan", drive: "drive", hub: "hub", lighting: "light", memory: "memory" };
/** The same part with the same name is the same object, so that what was worked out from it still holds. */
const namedParts = new WeakMap<Part, Map<string, Part>>();

function withLabel(part: Part, label: string): Part {
  const known = namedParts.get(part) ?? new Map<string, Part>();
  namedParts.set(part, known);
  const made = known.get(label) ?? { ...part, label };
  known.set(label, made);
  return made;
}

/** Parts that nobody named are called by their place, else by their type; those that would be called alike are numbered. */
function named(placed: readonly Placed[]): Placed[] {
  const shell = placed.find((p) => p.type.kind === "case")?.type;
  const mounts = new Map([...(shell?.body.mounts ?? []), ...(shell?.body.radiatorPlaces ?? [])].map((m) => [m.id, m.label]));
  const bare = placed.filter((p) => p.part.label === undefined);
  const nameOf = ({ part, type }: Placed): string => {
    const [kind, place] = [KIND_NAME[type.kind], part.mount === undefined ? undefined : mounts.get(part.mount)];
    if (kind === undefined || place === undefined) return type.name;
    const name = place.includes(kind) ? place : `${kind} ${place}`;
    return `${name.charAt(0).toUpperCase()}${name.slice(1)}`;
  };
  const names = new Map(bare.map((p) => [p, nameOf(p)]));
  const taken = new Map<string, number>();
  for (const n of [...names.values(), ...placed.flatMap((p) => p.part.label ?? [])]) taken.set(n, (taken.get(n) ?? 0) + 1);
  const given = new Map<string, number>();
  return placed.map((p) => {
    const name = names.get(p);
    if (name === undefined) return p;
    if ((taken.get(name) ?? 0) < 2) return name === p.type.name ? p : { ...p, part: withLabel(p.part, name) };
    const n = (given.get(name) ?? 0) + 1;
    given.set(name, n);
    return { ...p, part: withLabel(p.part, `${name} ${n}`) };
  });
}

/**
 * Lays a parsed build out as one graph. The build must be sound (see `readBuild`):
 * an unknown type is a programming error here and throws. Nodes of `from` that did not change are taken over as they
 * are, so that what was worked out from them still holds (see `kept`).
 */
export function buildGraph(build: Build, types: TypeLookup, from?: Graph): Graph {
  const placed = named(
    withRadiators(
      build.parts.map((part): Placed => {
        const type = types(part.type);
        if (!type) throw new Error(`No part type "${part.type}"`);
        return { part, type: withMeasured(type, part.measured) };
      }),
    ),
  );
  const place = placer(placed);
  const older = from && storeOf(from);
  // Where a part sits follows from case and board, so that with the same two nothing else can have moved.
  const still = older?.kinds.get("case")?.[0]?.type === place.caseType && older?.kinds.get("board")?.[0]?.type === place.boardType;
  const whole = placed.map((p): PartNode => {
    const { part, type } = p;
    const was = older?.byId.get(part.id);
    const alike = was && was.part === part && was.type === type;
    if (alike && still) return was;
    const origin = place.origin(p);
    return alike && was.origin.xMm === origin.xMm && was.origin.yMm === origin.yMm ? was : { id: part.id, type, part, origin };
  });
  // Laid out when first asked for: many a question is answered by the parts alone.
  let parts: Map<string, PartNode> | undefined;
  let ports: Map<Address, PortNode> | undefined;
  let leads: Map<Address, LeadNode> | undefined;
  const graph: Graph = {
    build,
    get parts() {
      parts ??= allParts(whole);
      return parts;
    },
    get leads() {
      leads ??= allLeads(graph.parts, place.frontIo);
      return leads;
    },
    get ports() {
      ports ??= new Map([...graph.parts.values()].flatMap((p) => portNodes(p).map((x) => [x.address, x] as const)));
      return ports;
    },
    connections: build.connections,
    ...atEnds(build.connections),
    cutouts: place.cutouts,
    ...(place.boardRect ? { boardRect: place.boardRect } : {}),
  };
  giveStore(graph, whole);
  if (from) inherit(graph, from);
  return graph;
}

/** The parts, each with the cables out of its bag behind it. */
function allParts(whole: readonly PartNode[]): Map<string, PartNode> {
  const out = new Map<string, PartNode>();
  for (const node of whole) {
    out.set(node.id, node);
    for (const cable of cableNodes(node)) out.set(cable.id, cable);
  }
  return out;
}

function allLeads(parts: ReadonlyMap<string, PartNode>, frontIo: Point | undefined): Map<Address, LeadNode> {
  const out = new Map<Address, LeadNode>();
  const counts = new Map<Loom, number>();
  for (const node of parts.values()) for (const l of leadNodes(node, counts, frontIo)) out.set(l.address, l);
  return out;
}

function atEnds(connections: readonly Connection[]): Pick<Graph, "atPort" | "ofLead"> {
  const atPort = new Map<Address, Connection[]>();
  const ofLead = new Map<Address, Connection>();
  for (const c of connections) {
    const there = atPort.get(c.port);
    if (there) there.push(c);
    else atPort.set(c.port, [c]);
    ofLead.set(c.lead, c);
  }
  return { atPort, ofLead };
}

/** Held where it is: fixed by the technician, or already plugged. The planner never moves it. */
export const isConstant = (c: Connection) => c.state !== "planned";

export const isDone = (c: Connection) => c.state === "plugged" || c.state === "checked";

/** The same graph with other connections: as really plugged, or as a plan would have it. */
export function withConnections(graph: Graph, connections: Connection[]): Graph {
  return { ...graph, connections, ...atEnds(connections) };
}

/** Only what hands have done. */
export function asPlugged(graph: Graph): Graph {
  return withConnections(graph, graph.connections.filter(isDone));
}

export function lead(graph: Graph, address: Address): LeadNode {
  const found = graph.leads.get(address);
  if (!found) throw new Error(`No lead ${address}`);
  return found;
}

export function port(graph: Graph, address: Address): PortNode {
  const found = graph.ports.get(address);
  if (!found) throw new Error(`No port ${address}`);
  return found;
}

/** Where fans turn together: the part's own zone, else the region of its mount, else the CPU. */
export function zoneOf(graph: Graph, node: LeadNode): string {
  if (node.part.part.zone) return node.part.part.zone;
  if (["cpu-fan", "radiator-fan", "cooler-speed"].includes(node.lead.role)) return "cpu";
  if (node.lead.role === "pump") return "pump";
  return regionOf(graph, node.part) ?? "case";
}

export function regionOf(graph: Graph, node: PartNode): string | undefined {
  const mount = node.part.mount;
  if (mount === undefined) return undefined;
  for (const p of partsOfKind(graph, "case")) {
    const found = p.type.body.mounts.find((m) => m.id === mount);
    if (found) return found.region;
  }
  return undefined;
}

import { type Cable, family, type Lead, LOOM_TAG, type Loom, type PartType, type Point, type Port } from "../catalogue";
import type { Rect } from "./geometry";
import type { Address, Build, Connection, Part } from "./schema";

/** A part of the build, or one cable out of a part's bag. */
export interface PartNode {
  id: string;
  type: PartType;
  part: Part;
  /** Top left corner (or middle, for things that hang on a mount) in case millimetres. */
  origin: Point;
  /** Set on cable instances: the part it came with and the cable's entry. */
  cable?: { owner: string; cable: Cable; captive: boolean };
}

export interface LeadNode {
  address: Address;
  part: PartNode;
  lead: Lead;
  loom: Loom;
  tag: string;
  name: string;
  /** Where its wire leaves its part, in case millimetres. */
  origin: Point;
}

export interface PortNode {
  address: Address;
  part: PartNode;
  port: Port;
  name: string;
  at: Point;
}

/** The one graph that every question is put to. */
export interface Graph {
  build: Build;
  parts: Map<string, PartNode>;
  leads: Map<Address, LeadNode>;
  ports: Map<Address, PortNode>;
  connections: Connection[];
  atPort: Map<Address, Connection[]>;
  ofLead: Map<Address, Connection>;
  cutouts: Point[];
  boardRect?: Rect;
}

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

function cableNodes(owner: PartNode): PartNode[] {
  return owner.type.cables.flatMap((cable) =>
    Array.from({ length: cable.count }, (_, i): PartNode => {
      const id = `${owner.id}/${cable.id}/${i + 1}`;
      const total = Math.max(...cable.ends.map((e) => e.atMm));
      const isData = cable.ends.every((e) => family(e.family).loom === "data");
      const leads: Lead[] = [
        ...cable.outlets.map(
          (key, n): Lead => ({
            id: `root-${n + 1}`,
            label: `${cable.label}, supply end`,
            family: "supply-outlet",
            key,
            flow: "in",
            role: "cable-root",
            lengthMm: total,
            need: "optional",
            load: { currentA: 0 },
          }),
        ),
        ...cable.ends.map(
          (end, n): Lead => ({
            id: end.id,
            label: cable.ends.length > 1 ? `${cable.label}, plug ${n + 1}` : cable.label,
            family: end.family,
            flow: "out",
            role: isData ? "data" : "power-out",
            lengthMm: end.atMm,
            need: "optional",
            load: { currentA: 0 },
            limit: end.limit,
          }),
        ),
      ];
      return {
        id,
        type: { ...owner.type, id: `${owner.type.id}/${cable.id}`, name: cable.label, ports: [], cables: [], leads },
        part: { ...owner.part, id, label: cable.count > 1 ? `${cable.label} ${i + 1}` : cable.label },
        origin: owner.origin,
        cable: { owner: owner.id, cable, captive: cable.captive },
      };
    }),
  );
}

const add = (a: Point, b: Point): Point => ({ xMm: a.xMm + b.xMm, yMm: a.yMm + b.yMm });

/** Where each part sits, in case millimetres. */
function placer(build: Build, types: TypeLookup) {
  const kindOf = (p: Part) => types(p.type)?.kind;
  const casePart = build.parts.find((p) => kindOf(p) === "case");
  const caseType = casePart && types(casePart.type);
  const boardPart = build.parts.find((p) => kindOf(p) === "board");
  const boardType = boardPart && types(boardPart.type);
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
  const origin = (part: Part): Point => {
    const mount = part.mount === undefined ? undefined : mounts.get(part.mount);
    if (mount) return mount.at;
    switch (kindOf(part)) {
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
  return { origin, boardRect, cutouts: (caseType?.body.cutouts ?? []).map((c) => c.at), frontIo: caseType?.body.frontIoAt, mounts };
}

/**
 * Lays a parsed build out as one graph. The build must be sound (see `readBuild`):
 * an unknown type is a programming error here and throws. Nodes of `from` that did not change are taken over as they
 * are, so that what was worked out from them still holds.
 */
export function buildGraph(build: Build, types: TypeLookup, from?: Graph): Graph {
  const place = placer(build, types);
  const parts = new Map<string, PartNode>();
  for (const part of build.parts) {
    const type = types(part.type);
    if (!type) throw new Error(`No part type "${part.type}"`);
    const origin = place.origin(part);
    const was = from?.parts.get(part.id);
    if (was && was.part === part && was.type === type && was.origin.xMm === origin.xMm && was.origin.yMm === origin.yMm) {
      parts.set(was.id, was);
      for (const cable of type.cables) {
        for (let i = 1; i <= cable.count; i++) {
          const c = from?.parts.get(`${part.id}/${cable.id}/${i}`);
          if (c) parts.set(c.id, c);
        }
      }
      continue;
    }
    const node: PartNode = { id: part.id, type, part, origin };
    parts.set(node.id, node);
    for (const cable of cableNodes(node)) parts.set(cable.id, cable);
  }
  const leads = new Map<Address, LeadNode>();
  const ports = new Map<Address, PortNode>();
  const counts = new Map<Loom, number>();
  for (const part of parts.values()) {
    const who = part.part.label ?? part.type.name;
    for (const port of part.type.ports) {
      const address = `${part.id}:${port.id}`;
      const was = from?.ports.get(address);
      if (was && was.part === part) {
        ports.set(address, was);
        continue;
      }
      const onBoard = part.type.kind === "board";
      ports.set(address, {
        address,
        part,
        port,
        name: onBoard || port.role === "outlet" ? port.label : `${who} ${port.label}`,
        at: add(part.origin, onBoard || part.type.kind === "case" ? port.at : { xMm: 0, yMm: 0 }),
      });
    }
    for (const entry of part.type.leads) {
      // The same fan is a radiator fan when the build says that it cools the radiator.
      const lead = entry.role === "case-fan" && part.part.zone === "radiator" ? { ...entry, role: "radiator-fan" as const } : entry;
      const loom = family(lead.family).loom;
      const n = (counts.get(loom) ?? 0) + 1;
      counts.set(loom, n);
      const address = `${part.id}:${lead.id}`;
      const tag = `${LOOM_TAG[loom]}-${String(n).padStart(2, "0")}`;
      const was = from?.leads.get(address);
      if (was && was.part === part && was.tag === tag && part.type.kind !== "case") {
        leads.set(address, was);
        continue;
      }
      leads.set(address, {
        address,
        part,
        lead,
        loom,
        tag,
        name:
          part.cable || part.type.kind === "case"
            ? lead.label
            : part.type.leads.length > 1 || part.type.kind === "cooler"
              ? `${who}, ${lead.label}`
              : who,
        origin: part.type.kind === "case" ? (place.frontIo ?? part.origin) : part.origin,
      });
    }
  }
  const atPort = new Map<Address, Connection[]>();
  const ofLead = new Map<Address, Connection>();
  for (const c of build.connections) {
    atPort.set(c.port, [...(atPort.get(c.port) ?? []), c]);
    ofLead.set(c.lead, c);
  }
  return {
    build,
    parts,
    leads,
    ports,
    connections: build.connections,
    atPort,
    ofLead,
    cutouts: place.cutouts,
    ...(place.boardRect ? { boardRect: place.boardRect } : {}),
  };
}

export const isDone = (c: Connection) => c.state === "plugged" || c.state === "checked";

/** The same graph with other connections: as really plugged, or as a plan would have it. */
export function withConnections(graph: Graph, connections: Connection[]): Graph {
  const atPort = new Map<Address, Connection[]>();
  const ofLead = new Map<Address, Connection>();
  for (const c of connections) {
    atPort.set(c.port, [...(atPort.get(c.port) ?? []), c]);
    ofLead.set(c.lead, c);
  }
  return { ...graph, connections, atPort, ofLead };
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

export function partsOfKind(graph: Graph, kind: PartType["kind"]): PartNode[] {
  let index = kinds.get(graph.parts);
  if (!index) {
    index = new Map();
    for (const p of graph.parts.values()) {
      if (p.cable) continue;
      const list = index.get(p.type.kind);
      if (list) list.push(p);
      else index.set(p.type.kind, [p]);
    }
    kinds.set(graph.parts, index);
  }
  return index.get(kind) ?? [];
}
const kinds = new WeakMap<ReadonlyMap<string, PartNode>, Map<PartType["kind"], PartNode[]>>();

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

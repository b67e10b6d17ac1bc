import type { Cable, Lead, Loom, PartKind, PartType, Point, Port } from "../catalogue";
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
  /** What follows from this part alone, worked out once. Read it through the functions that name it. */
  once?: OfPart;
}

/** Fields of the node itself, since a WeakMap of many nodes makes every sweep of the collector slow. */
export interface OfPart {
  ports?: readonly PortNode[];
  cables?: readonly PartNode[];
  leads?: { nodes: readonly LeadNode[]; frontIo: Point | undefined; first: readonly [Loom, number][]; after: readonly [Loom, number][] };
  draw?: unknown;
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

/** What was worked out from a graph, with the parts that it was worked out from. */
export interface Store {
  /** Everything but cables out of a bag. */
  whole: readonly PartNode[];
  byId: ReadonlyMap<string, PartNode>;
  kinds: Map<PartKind, readonly PartNode[]>;
  own: Map<string, { reads: readonly PartKind[]; value: unknown }>;
  /** What was worked out from the graph that this one was made from, and the kinds of parts that changed since. */
  older?: { store: Pick<Store, "own">; changed: readonly PartKind[] };
}

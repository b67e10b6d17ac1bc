import type { PartKind, Port } from "../catalogue";
import { portNodes } from "./nodes";
import type { Graph, PartNode, PortNode, Store } from "./shape";

function newStore(whole: readonly PartNode[]): Store {
  const kinds = new Map<PartKind, PartNode[]>();
  const byId = new Map<string, PartNode>();
  for (const p of whole) {
    byId.set(p.id, p);
    const list = kinds.get(p.type.kind);
    if (list) list.push(p);
    else kinds.set(p.type.kind, [p]);
  }
  return { whole, byId, kinds, own: new Map() };
}

/** Beside the graph, not in it: a graph that is copied with something changed starts with nothing worked out. */
const stores = new WeakMap<Graph, Store>();

export function storeOf(graph: Graph): Store {
  const known = stores.get(graph);
  if (known) return known;
  const made = newStore([...graph.parts.values()].filter((p) => !p.cable));
  stores.set(graph, made);
  return made;
}

export const giveStore = (graph: Graph, whole: readonly PartNode[]): void => {
  stores.set(graph, newStore(whole));
};

const NONE: readonly PartNode[] = [];
function equal(a: readonly PartNode[], b: readonly PartNode[]): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/** What was worked out from `from` holds for `graph` where the parts that it read are the very same nodes. */
export function inherit(graph: Graph, from: Graph): void {
  const [a, b] = [graph.build, from.build];
  const still = graph.connections === from.connections || graph.connections.length + from.connections.length === 0;
  if (!still || a.wishes !== b.wishes || a.settings !== b.settings || a.policy !== b.policy || a.ways !== b.ways) return;
  const store = storeOf(graph);
  const older = storeOf(from);
  const changed: PartKind[] = [];
  for (const [kind, list] of store.kinds) {
    const was = older.kinds.get(kind);
    if (was && equal(list, was)) store.kinds.set(kind, was);
    else changed.push(kind);
  }
  for (const kind of older.kinds.keys()) if (!store.kinds.has(kind)) changed.push(kind);
  store.older = { store: { own: older.own }, changed };
}

export const partsOfKind = (graph: Graph, kind: PartKind): readonly PartNode[] => storeOf(graph).kinds.get(kind) ?? NONE;

/** Every part of the build, without the cables in their bags. */
export const wholeParts = (graph: Graph): readonly PartNode[] => storeOf(graph).whole;

/** The boards' own ports of one role, from the top of the board down. */
export const boardPorts = (graph: Graph, role: Port["role"]): readonly PortNode[] =>
  kept(graph, `board-ports:${role}`, ["board"], () =>
    partsOfKind(graph, "board")
      .flatMap((b) => portNodes(b).filter((p) => p.port.role === role))
      .sort((a, b) => a.at.yMm - b.at.yMm),
  );

/** An entry of the graph before that reads nothing which changed since. */
function stillHolds({ store, changed }: NonNullable<Store["older"]>, name: string) {
  const entry = store.own.get(name);
  if (!entry) return undefined;
  for (const kind of changed) if (entry.reads.includes(kind)) return undefined;
  return entry;
}

/**
 * What `work` gives, worked out once for a graph, and taken over from the graph it was made from when no part of the
 * kinds in `reads` changed. `work` must look at nothing else but wishes, settings, schools, ways and connections.
 */
export function kept<T>(graph: Graph, name: string, reads: readonly PartKind[], work: () => T): T {
  const store = storeOf(graph);
  const own = store.own.get(name);
  if (own) return own.value as T;
  const was = store.older && stillHolds(store.older, name);
  if (was) return was.value as T;
  const value = work();
  store.own.set(name, { reads, value });
  return value;
}

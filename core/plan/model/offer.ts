import { type Build, byText, type Graph, isConstant, naturally, type Part, partIdOf, type TypeLookup } from "../../assembly";
import { mate, type PartType, passesPower, usable } from "../../catalogue";
import type { Splitter } from "./net-variables";

/** Copies of one accessory type that are worth offering: more never pays in a build of the size Imbra takes. */
const MOST_UNITS_FROM_SHELF = 2;
const MOST_UNITS_TO_ORDER = 1;
const MOST_SPLITTERS_TO_ORDER = 6;

const isSplitter = (t: PartType) => t.kind === "splitter" || t.kind === "extension";
const isUnit = (t: PartType) => t.kind === "hub" || t.kind === "usb-hub" || passesPower(t);

/**
 * Accessories that an earlier plan took and nobody has plugged go back to the shelf,
 * so that planning again starts from the same stock.
 */
export function withoutUnusedAccessories(build: Build): Build {
  const touched = new Set(build.connections.filter(isConstant).flatMap((c) => [partIdOf(c.lead), partIdOf(c.port)]));
  const gone = new Set(build.parts.filter((p) => p.from !== "client" && !touched.has(p.id)).map((p) => p.id));
  if (gone.size === 0) return build;
  const back = new Map<string, number>();
  for (const p of build.parts) if (gone.has(p.id) && p.from === "shelf") back.set(p.type, (back.get(p.type) ?? 0) + 1);
  const listed = new Set(build.accessories.map((a) => a.type));
  return {
    ...build,
    parts: build.parts.filter((p) => !gone.has(p.id)),
    connections: build.connections.filter((c) => !gone.has(partIdOf(c.lead)) && !gone.has(partIdOf(c.port))),
    accessories: [
      ...build.accessories.map((a) => ({ ...a, count: a.count + (back.get(a.type) ?? 0) })),
      ...[...back].filter(([t]) => !listed.has(t)).map(([type, count]) => ({ type, count })),
    ],
  };
}

function accessoryTypes(build: Build, types: TypeLookup): { type: PartType; count: number; ordered: number }[] {
  const counts = new Map<string, { count: number; ordered: number }>();
  for (const a of build.accessories) {
    const sum = counts.get(a.type) ?? { count: 0, ordered: 0 };
    counts.set(a.type, { count: sum.count + a.count, ordered: sum.ordered + (a.ordered ?? 0) });
  }
  return [...counts]
    .sort(([a], [b]) => byText(a, b))
    .flatMap(([id, counted]) => {
      const type = types(id);
      return type ? [{ type, ...counted }] : [];
    });
}

/** Splitters and extensions as types with counts: no copies, so the model has no look-alikes to sort out. */
export function splittersOf(build: Build, types: TypeLookup, orderAll = false): Splitter[] {
  return accessoryTypes(build, types)
    .filter((a) => isSplitter(a.type))
    .flatMap(({ type, count, ordered }) => {
      const input = type.leads.find((l) => l.flow === "in");
      const ports = type.ports.filter((p) => p.flow === "out");
      if (!input || !ports[0]) return [];
      return [
        {
          type,
          family: ports[0].family,
          ports: ports.length,
          lengthMm: input.lengthMm,
          shelf: count,
          order: ordered + (orderAll || build.policy.mayOrder ? MOST_SPLITTERS_TO_ORDER : 0),
        },
      ];
    });
}

/**
 * Hubs and adapters as parts that may or may not be taken: those that serve a troubled family only. Where a family's
 * plugs cost nothing down to the accessories, one more accessory can only make the plan worse.
 */
export function unitParts(build: Build, types: TypeLookup, troubled: ReadonlySet<string>, orderAll = 0): Part[] {
  const ids = new Set(build.parts.map((p) => p.id));
  return accessoryTypes(build, types)
    .filter((a) => isUnit(a.type) && serves(a.type).some((f) => troubled.has(f) || [...troubled].some((t) => usable(mate(f, t)))))
    .flatMap(({ type, count, ordered }) => {
      const shelf = Math.min(count, MOST_UNITS_FROM_SHELF);
      // What is ordered already comes; beyond it one more may be.
      const order = Math.min(ordered, MOST_UNITS_FROM_SHELF) + Math.max(orderAll, build.policy.mayOrder ? MOST_UNITS_TO_ORDER : 0);
      return Array.from(
        { length: shelf + order },
        (_, i): Part => ({ id: freshId(type.id, ids), type: type.id, from: i < shelf ? "shelf" : "order" }),
      );
    });
}

/** The families of port that a unit adds, or (an adapter) the sockets that its plug goes into. */
const serves = (t: PartType): string[] =>
  passesPower(t) ? t.leads.filter((l) => l.flow === "out").map((l) => l.family) : t.ports.filter((p) => p.flow === "out").map((p) => p.family);

/** The next id of the form `type.1` that no part has. Remembers what it gave. */
export function freshId(type: string, ids: Set<string>): string {
  const stem = type.replace(/[^A-Za-z0-9_.+-]/g, "-").slice(0, 50);
  let n = 1;
  while (ids.has(`${stem}.${n}`)) n++;
  ids.add(`${stem}.${n}`);
  return `${stem}.${n}`;
}

/** Candidates of one type and origin in the order in which they are to be taken. */
export function alike(graph: Graph, units: readonly Part[]): string[][] {
  const groups = new Map<string, string[]>();
  for (const u of units) {
    const key = `${u.type} ${u.from}`;
    groups.set(key, [...(groups.get(key) ?? []), u.id]);
  }
  return [...groups.values()].map((g) => g.filter((id) => graph.parts.has(id)).sort(naturally));
}

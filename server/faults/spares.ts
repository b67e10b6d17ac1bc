import { type Build, typeLookup } from "../../core/assembly";
import type { PartType } from "../../core/catalogue";
import { type EntityManager, ShelfType } from "../../db";
import { entryOf } from "../build/parts-of-job";

const MOST_TYPES = 500;

/** Sockets and slots of a board that decide what goes into it. */
const TAKES: ReadonlySet<string> = new Set(["cpu-socket", "memory-slot"]);

/** What a part goes into, and what of that kind goes into it: a spare of the other sort is none. */
const sort = (t: PartType): string =>
  [
    ...t.leads.flatMap((l) => (l.role === "seat" ? [`${l.family} ${l.key ?? ""}`] : [])),
    ...t.ports.flatMap((p) => (TAKES.has(p.family) ? [`${p.family} ${p.key ?? ""}`] : [])),
  ]
    .filter((x, i, all) => all.indexOf(x) === i)
    .sort()
    .join(", ");

/**
 * Kinds of part of which the shelf has one that would go into this machine: kept as a known-good spare, or new in stock. Undefined where
 * the shop keeps no record of spares: then a spare of everything is taken to lie somewhere.
 */
export async function sparesFor(em: EntityManager, build: Build): Promise<string[] | undefined> {
  const rows = await em.find(
    ShelfType,
    { $or: [{ spares: { $gt: 0 } }, { stock: { $gt: 0 } }] },
    { fields: ["kind", "body", "spares"], limit: MOST_TYPES, orderBy: { spares: "desc", id: "asc" } },
  );
  if (!rows.some((r) => r.spares > 0)) return undefined;
  const types = typeLookup(build, []);
  const inIt = new Set(
    build.parts.flatMap((p) => {
      const t = types(p.type);
      return t ? [`${t.kind}: ${sort(t)}`] : [];
    }),
  );
  return [...new Set(rows.flatMap((r) => (inIt.has(`${r.kind}: ${sort(entryOf(r.body))}`) ? [r.kind] : [])))].sort();
}

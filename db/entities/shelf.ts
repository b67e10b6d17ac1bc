import { defineEntity, p } from "@mikro-orm/core";
import { id, now } from "./columns";
import { Person } from "./people";

/** A part type of the shelf, whole, as `core/catalogue` reads it. */
export const ShelfType = defineEntity({
  name: "ShelfType",
  tableName: "shelf_type",
  properties: {
    id: p.string().primary(),
    kind: p.string().index(),
    maker: p.string(),
    name: p.string(),
    revision: p.integer(),
    body: p.json<unknown>(),
    stock: p.integer().default(0),
    /** Kept for testing, known to be good; never built in. */
    spares: p.integer().default(0),
  },
  // Over an expression: written by the migration, named here so that both agree.
  indexes: [
    { name: "shelf_type_name_index", properties: ["name", "id"] },
    {
      name: "shelf_type_search_index",
      expression: `create index "shelf_type_search_index" on "shelf_type" using gin ((lower("maker" || ' ' || "name" || ' ' || "id" || ' ' || "kind")) gin_trgm_ops)`,
    },
  ],
});

/** What a part type was at each revision, and who made it so. */
export const ShelfRevision = defineEntity({
  name: "ShelfRevision",
  tableName: "shelf_revision",
  properties: {
    id: p.integer().primary().autoincrement(),
    type: p.string(),
    revision: p.integer(),
    body: p.json<unknown>(),
    by: () => p.manyToOne(Person),
    at: now(),
    because: p.text().default(""),
  },
  uniques: [{ properties: ["type", "revision"] }],
});

/** What a colleague found out about a part type: one line, and the step that it is about. */
export const Tip = defineEntity({
  name: "Tip",
  tableName: "tip",
  properties: {
    id: id(),
    type: p.string().index("tip_type_index"),
    step: p.string().nullable(),
    words: p.text(),
    by: () => p.manyToOne(Person),
    at: now(),
    stillSoAt: p.datetime().nullable(),
    stillSoBy: () => p.manyToOne(Person).nullable(),
    /** In the photo store under this id; lengths in px and bytes. */
    photo: p.uuid().nullable().unique(),
    photoWidth: p.integer().nullable(),
    photoHeight: p.integer().nullable(),
    photoBytes: p.integer().nullable(),
    withdrawnAt: p.datetime().nullable(),
  },
});

/** The shop's own photo of a part type, under its drawing; the picture itself is in the photo store under the id. Lengths in px and bytes. */
export const TypePhoto = defineEntity({
  name: "TypePhoto",
  tableName: "type_photo",
  properties: {
    id: id(),
    type: p.string().unique(),
    width: p.integer(),
    height: p.integer(),
    bytes: p.integer(),
    /** Points of the photo whose place on the part is known: px of the photo, mm of the part. */
    taps: p.json<{ xPx: number; yPx: number; xMm: number; yMm: number }[]>().defaultRaw("'[]'"),
    by: () => p.manyToOne(Person),
    at: now(),
  },
});

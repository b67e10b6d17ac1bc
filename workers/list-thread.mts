// A thread that reads lists against the shelf: it keeps the shelf's index from one list to the next, and asks the database itself.
import pg from "pg";
import { type Listed, type ListRow, type ReadList, readAgainst, type ShelfIndex, shelfIndex } from "../core/intake";

let known: { url: string; revision: number; index: ShelfIndex } | undefined;

/** What decides whether a row means a part type, and no more of it. */
const SLIM = `select "id", "maker", "name", "kind",
  jsonb_strip_nulls(jsonb_build_object('sizeGb', "body"->'ratings'->'sizeGb', 'powerW', "body"->'ratings'->'powerW', 'profileMts', "body"->'ratings'->'profileMts')) as "ratings",
  jsonb_strip_nulls(jsonb_build_object('radiator', "body"->'body'->'radiator', 'widthMm', "body"->'body'->'widthMm',
    'formFactor', "body"->'body'->'formFactor')) as "body"
  from "shelf_type" order by "id" limit 100000`;

async function indexNow(url: string): Promise<ShelfIndex> {
  const client = new pg.Client({ connectionString: url, application_name: "imbra lists" });
  await client.connect();
  try {
    const { rows } = await client.query<{ revision: number }>(`select "shelf_revision" as "revision" from "shop" where "id" = 1`);
    const revision = rows[0]?.revision ?? 0;
    if (known?.url !== url || known.revision !== revision) known = { url, revision, index: shelfIndex((await client.query<Listed>(SLIM)).rows) };
    return known.index;
  } finally {
    await client.end();
  }
}

export default async function read({ url, rows }: { url: string; rows: ListRow[] }): Promise<ReadList> {
  return readAgainst(rows, await indexNow(url));
}

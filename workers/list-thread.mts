// A thread that reads lists against the shelf: it keeps the shelf's index from one list to the next, and asks the database itself.
import pg from "pg";
import { fromStored } from "../core/catalogue";
import { corrected, type Fix, fromMail, type Listed, type ReadList, readAgainst, readMail, type ShelfIndex, shelfIndex } from "../core/intake";
import type { Beside, MailRead } from "../server/job/mail-read";

let known: { url: string; revision: number; index: ShelfIndex } | undefined;

/** What decides whether a row means a part type, and no more of it. */
const SLIM = `select "id", "maker", "name", "kind",
  jsonb_strip_nulls(jsonb_build_object('sizeGb', "body"->'ratings'->'sizeGb', 'powerW', "body"->'ratings'->'powerW', 'profileMts', "body"->'ratings'->'profileMts')) as "ratings",
  jsonb_strip_nulls(jsonb_build_object('radiator', "body"->'body'->'radiator', 'widthMm', "body"->'body'->'widthMm',
    'formFactor', "body"->'body'->'formFactor')) as "body"
  from "shelf_type" order by "id" limit 100000`;

async function withShelf<T>(url: string, work: (index: ShelfIndex, client: pg.Client) => Promise<T> | T): Promise<T> {
  const client = new pg.Client({ connectionString: url, application_name: "imbra lists" });
  await client.connect();
  try {
    const { rows } = await client.query<{ revision: number }>(`select "shelf_revision" as "revision" from "shop" where "id" = 1`);
    const revision = rows[0]?.revision ?? 0;
    if (known?.url !== url || known.revision !== revision) known = { url, revision, index: shelfIndex((await client.query<Listed>(SLIM)).rows) };
    return await work(known.index, client);
  } finally {
    await client.end();
  }
}

function mailBeside(url: string, text: string, fixes: readonly Fix[], today: string): Promise<MailRead> {
  return withShelf(url, async (index, client) => {
    const read = readMail(text, index, today);
    const ids = [...new Set([...read.lines.flatMap((l) => l.known?.id ?? []), ...fixes.flatMap((f) => f.type ?? [])])];
    const { rows } = await client.query<{ body: unknown }>(`select "body" from "shelf_type" where "id" = any($1) limit 1000`, [ids]);
    const types = new Map(rows.map((r) => fromStored(r.body)).map((t) => [t.id, t]));
    const mail = corrected(read, fixes, (id) => types.get(id));
    const made = fromMail(mail, (id) => types.get(id));
    return { mail, build: made.build, made: made.made, known: [...types.values()], parts: [...made.parts] };
  });
}

export default async function read(asked: Beside): Promise<ReadList | MailRead> {
  if ("text" in asked) return mailBeside(asked.url, asked.text, asked.fixes, asked.today);
  return withShelf(asked.url, (index) => readAgainst(asked.rows, index));
}

import { MikroORM } from "@mikro-orm/postgresql";
import { migratingConfig } from "../db/migrating";
import { seed } from "../db/seed";
import { hashSecret } from "../server/people/password";
import { wantsFirstLead } from "../server/people/wants-first-lead";
import { renewHeads } from "../server/views/heads";

/**
 * Migrates, and seeds when asked: `tsx scripts/prepare-db.mts [--seed | --without-demo] [--fresh] [--today=2026-11-23T09:00:00Z]`. Run by
 * start, dev and the tests. A database that a shop began without a demo, or into which a backup was brought back, says so itself
 * (in its comment, which its owner may write) and never gets one, unless a fresh one is asked for; the status is 3 then.
 */
const day = process.argv.find((a) => a.startsWith("--today="))?.slice("--today=".length);
const today = day ? new Date(day) : new Date();
const NO_DEMO = "Imbra: no demo";
const url = process.env.DATABASE_URL;
if (!url) throw new Error("DATABASE_URL is not set");
const orm = await MikroORM.init(migratingConfig(url));
try {
  if (process.argv.includes("--fresh")) {
    await orm.em.getConnection().execute("drop schema public cascade");
    await orm.em.getConnection().execute("create schema public");
  }
  const sql = orm.em.getConnection();
  const asked = await sql.execute<{ name: string; note: string | null }[]>(
    `select current_database() as "name", shobj_description(d."oid", 'pg_database') as "note" from pg_database d where d."datname" = current_database()`,
  );
  const name = (asked[0]?.name ?? "").replaceAll('"', '""');
  const fresh = process.argv.includes("--fresh");
  const without = process.argv.includes("--without-demo") || (asked[0]?.note === NO_DEMO && !fresh);
  // What belongs to a shop is kept with its database, so that it holds whatever happens to this folder.
  if (without) await sql.execute(`comment on database "${name}" is '${NO_DEMO}'`);
  else if (asked[0]?.note === NO_DEMO) await sql.execute(`comment on database "${name}" is null`);
  const ran = await orm.migrator.up();
  if (ran.length > 0) console.log(`  migrated: ${ran.map((m) => m.name).join(", ")}`);
  if (without) process.exitCode = 3;
  else if (process.argv.includes("--seed")) {
    const did = await orm.em.fork().transactional((em) => seed(em as never, process.cwd(), today, (text) => console.log(`  ${text}`), hashSecret));
    console.log(did ? "  demo seeded" : "  demo is there already");
    // Lists are right from the first page on.
    while ((await renewHeads(orm.em.fork() as never)) > 0);
  }
  if (await wantsFirstLead(orm.em.fork() as never))
    console.log(`  nobody can sign in as a lead yet: open /first and use the set-up code ${process.env.IMBRA_SETUP_CODE ?? "of the server"}`);
} finally {
  await orm.close();
}

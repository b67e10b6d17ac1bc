import { MikroORM } from "@mikro-orm/postgresql";
import { migratingConfig } from "../db/migrating";
import { seed } from "../db/seed";
import { hashSecret } from "../server/people/password";
import { wantsFirstLead } from "../server/people/wants-first-lead";
import { renewHeads } from "../server/views/heads";

/** Migrates, and seeds when asked: `tsx scripts/prepare-db.mts [--seed] [--fresh] [--today=2026-11-23T09:00:00Z]`. Run by start, dev and the tests. */
const day = process.argv.find((a) => a.startsWith("--today="))?.slice("--today=".length);
const today = day ? new Date(day) : new Date();
const url = process.env.DATABASE_URL;
if (!url) throw new Error("DATABASE_URL is not set");
const orm = await MikroORM.init(migratingConfig(url));
try {
  if (process.argv.includes("--fresh")) {
    await orm.em.getConnection().execute("drop schema public cascade");
    await orm.em.getConnection().execute("create schema public");
  }
  const ran = await orm.migrator.up();
  if (ran.length > 0) console.log(`  migrated: ${ran.map((m) => m.name).join(", ")}`);
  if (process.argv.includes("--seed")) {
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

import type { MikroORM } from "@mikro-orm/postgresql";
import type { Client } from "pg";
import { afterAll, vi } from "vitest";
import { ownDatabase } from "../fixtures/own-database";

/** What the application keeps for as long as its process lives, but for the planning threads, which know nothing of a database. */
interface KeptByProcess {
  imbraOrm?: Promise<MikroORM>;
  imbraChannel?: { hearers: Set<unknown>; client?: Client };
  imbraViews?: unknown;
  imbraParts?: unknown;
  imbraMinutes?: unknown;
  imbraLists?: { destroy: () => Promise<void> };
}

/** Ends and forgets all of it. */
async function putAway(): Promise<void> {
  const kept = globalThis as KeptByProcess;
  kept.imbraChannel?.hearers.clear();
  await kept.imbraChannel?.client?.end();
  await (await kept.imbraOrm?.catch(() => undefined))?.close();
  await kept.imbraLists?.destroy();
  for (const key of ["imbraOrm", "imbraChannel", "imbraViews", "imbraParts", "imbraMinutes", "imbraLists"] as const) delete kept[key];
}
/** News are told a moment after what they are of: until then they would open the next file's database, or one that is gone. */
const NEWS_MS = 100;

// Before each file of this folder: a database of its own, so that files run side by side and none leans on another's leftovers.
const own = await ownDatabase("fixed");
process.env.DATABASE_URL = own.url;
await putAway();

// Files of a worker share the packages they use. Of the application itself each has its own, as if it were a process of its own.
afterAll(async () => {
  await new Promise((resolve) => setTimeout(resolve, NEWS_MS));
  await putAway();
  vi.resetModules();
  await own.drop();
});

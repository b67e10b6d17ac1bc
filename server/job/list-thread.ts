import { existsSync } from "node:fs";
import { join } from "node:path";
import Piscina from "piscina";
import type { Fix, ListRow, ReadList } from "../../core/intake";
import type { Beside, MailRead } from "./mail-read";

/** More lists that wait than this are refused: somebody's browser asks in a loop. */
const MOST_WAITING = 12;
/** A list that takes longer is given up, ms. */
const MOST_MS = 30_000;
const IDLE_MS = 120_000;

const holder = globalThis as typeof globalThis & { imbraLists?: Piscina<Beside, ReadList | MailRead> };

function pool() {
  // As the build made it; tests and a development server run the sources.
  const built = join(process.cwd(), ".data", "list-thread.mjs");
  const filename = process.env.NODE_ENV === "production" && existsSync(built) ? built : join(process.cwd(), "workers", "list-thread.mjs");
  holder.imbraLists ??= new Piscina({ filename, minThreads: 0, maxThreads: 1, maxQueue: MOST_WAITING, idleTimeout: IDLE_MS });
  return holder.imbraLists;
}

function beside(asked: Beside): Promise<ReadList | MailRead> | undefined {
  const p = pool();
  return p.queueSize >= MOST_WAITING ? undefined : p.run(asked, { signal: AbortSignal.timeout(MOST_MS) });
}
const url = () => process.env.DATABASE_URL ?? "";

/** Rows of a list against the shelf, in a thread, so that no page waits for it; undefined: too many wait already. */
export const readListBeside = async (rows: ListRow[]): Promise<ReadList | undefined> => (await beside({ url: url(), rows })) as ReadList | undefined;

/** A mail against the shelf, in the same thread; undefined: too many wait already. */
export const readMailBeside = async (text: string, fixes: Fix[], today: string): Promise<MailRead | undefined> =>
  (await beside({ url: url(), text, fixes, today })) as MailRead | undefined;

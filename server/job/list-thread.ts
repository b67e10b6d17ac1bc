import { existsSync } from "node:fs";
import { join } from "node:path";
import Piscina from "piscina";
import type { ListRow, ReadList } from "../../core/intake";

/** More lists that wait than this are refused: somebody's browser asks in a loop. */
const MOST_WAITING = 12;
/** A list that takes longer is given up, ms. */
const MOST_MS = 30_000;
const IDLE_MS = 120_000;

const holder = globalThis as typeof globalThis & { imbraLists?: Piscina<{ url: string; rows: ListRow[] }, ReadList> };

function pool() {
  // As the build made it; tests and a development server run the sources.
  const built = join(process.cwd(), ".data", "list-thread.mjs");
  const filename = process.env.NODE_ENV === "production" && existsSync(built) ? built : join(process.cwd(), "workers", "list-thread.mjs");
  holder.imbraLists ??= new Piscina({ filename, minThreads: 0, maxThreads: 1, maxQueue: MOST_WAITING, idleTimeout: IDLE_MS });
  return holder.imbraLists;
}

/** Rows of a list against the shelf, in a thread, so that no page waits for it; undefined: too many wait already. */
export async function readListBeside(rows: ListRow[]): Promise<ReadList | undefined> {
  const url = process.env.DATABASE_URL ?? "";
  const p = pool();
  if (p.queueSize >= MOST_WAITING) return undefined;
  return p.run({ url, rows }, { signal: AbortSignal.timeout(MOST_MS) });
}

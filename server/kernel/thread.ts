import { existsSync } from "node:fs";
import { join } from "node:path";
import Piscina from "piscina";

const holder = globalThis as typeof globalThis & { imbraThreads?: Map<string, Piscina> };

export interface ThreadBounds {
  /** More that wait than this are refused. */
  mostWaiting: number;
  /** What takes longer is given up, ms. */
  mostMs: number;
  /** Unused for so long it ends, ms. */
  idleMs: number;
}

/** Asks one thread beside this process, so that no page waits for what is heavy; undefined: too many wait already. `name` is a file of `workers/`. */
export async function besideThis<Asked, Said>(name: string, asked: Asked, { mostWaiting, mostMs, idleMs }: ThreadBounds): Promise<Said | undefined> {
  holder.imbraThreads ??= new Map();
  let pool = holder.imbraThreads.get(name);
  if (!pool) {
    // As the build made it; tests and a development server run the sources.
    const built = join(process.cwd(), ".data", `${name}.mjs`);
    const filename = process.env.NODE_ENV === "production" && existsSync(built) ? built : join(process.cwd(), "workers", `${name}.mjs`);
    pool = new Piscina({ filename, minThreads: 0, maxThreads: 1, maxQueue: mostWaiting, idleTimeout: idleMs });
    holder.imbraThreads.set(name, pool);
  }
  if (pool.queueSize >= mostWaiting) return undefined;
  return (await pool.run(asked, { signal: AbortSignal.timeout(mostMs) })) as Said;
}

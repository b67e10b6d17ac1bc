import { RateLimiterPostgres, RateLimiterRes } from "rate-limiter-flexible";
import type { EntityManager } from "../../db";

/** Wrong tries within a quarter of an hour, then no more until it is over (OWASP Authentication Cheat Sheet: throttle by account). */
const WINDOW_S = 900;
export const MOST_WRONG = { password: 5, account: 20, pin: 5, "pin-anywhere": 20, code: 10 } as const;
export type Tried = keyof typeof MOST_WRONG;

/** Counted in the database, so that every server counts the same. */
const limiter = (em: EntityManager, what: Tried) =>
  new RateLimiterPostgres({
    storeClient: (em as unknown as { getKnex: () => unknown }).getKnex(),
    storeType: "knex",
    tableName: "attempt",
    tableCreated: true,
    clearExpiredByTimeout: false,
    keyPrefix: what,
    points: MOST_WRONG[what],
    duration: WINDOW_S,
  });

/** Minutes until somebody may try again under this key; 0 when they may now. */
export async function waitMinutes(em: EntityManager, what: Tried, key: string): Promise<number> {
  const now = await limiter(em, what).get(key.slice(0, 200));
  return now && now.consumedPoints >= MOST_WRONG[what] ? Math.max(1, Math.ceil(now.msBeforeNext / 60_000)) : 0;
}

/** Counts a try before it is judged, so that many at once are counted too; false when it is one too many. */
export async function countTry(em: EntityManager, what: Tried, key: string): Promise<boolean> {
  try {
    await limiter(em, what).consume(key.slice(0, 200));
    return true;
  } catch (e) {
    if (e instanceof RateLimiterRes) return false;
    throw e;
  }
}

/** A right one wipes the slate. */
export const forgive = async (em: EntityManager, what: Tried, key: string): Promise<void> => {
  await limiter(em, what).delete(key.slice(0, 200));
};

/** Counts that are over. */
export const forgetAttempts = (em: EntityManager) => em.execute(`delete from "attempt" where "expire" < ?`, [Date.now() - WINDOW_S * 1000]);

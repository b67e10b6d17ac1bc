import { RateLimiterPostgres, RateLimiterRes } from "rate-limiter-flexible";
import { type EntityManager, queryBuilderOf } from "../../db";

/*
 * Wrong tries. In a row under one key they wait longer and longer, and of a PIN at last ask for the password (OWASP Authentication Cheat
 * Sheet: exponential lockout; NIST SP 800-63B-4, 3.2.2: rate limiting, from memory). What keys there are follows the published pattern
 * of device cookies (OWASP, "Slow Down Online Guessing Attacks with Device Cookies"): a device at which somebody has signed in before has
 * a count of its own for them, so that strangers cannot keep them out there. Each try is counted before it is judged, in a transaction of
 * its own, so that many at once are counted too and a refusal takes nothing back.
 */

/** Right after so many wrong ones in a row the first wait begins. */
const FREE_TRIES = 5;
const FIRST_WAIT_S = 60;
const LONGEST_WAIT_S = 900;
/** So many wrong PINs in a row at one device, or in a day anywhere, and only the password opens it again. */
const MOST_PINS_HERE = 10;
const MOST_PINS_ANYWHERE = 30;

interface Rule {
  /** A row of wrong ones is over when the first of them is so old, s. */
  forgetsS: number;
  free: number;
  /** After so many no wait helps. */
  most?: number;
}
const RULES = {
  /** A name, from a device where nobody of that name has signed in before. */
  name: { forgetsS: 3600, free: FREE_TRIES },
  /** A person at a device of theirs. */
  "own-device": { forgetsS: 3600, free: FREE_TRIES },
  /** Somebody's own password, asked for once more. */
  own: { forgetsS: 3600, free: FREE_TRIES },
  pin: { forgetsS: 86_400, free: FREE_TRIES, most: MOST_PINS_HERE },
  "pin-anywhere": { forgetsS: 86_400, free: MOST_PINS_ANYWHERE, most: MOST_PINS_ANYWHERE },
} as const satisfies Record<string, Rule>;
export type Tried = keyof typeof RULES;

export interface Tries {
  /** Minutes until the next one is taken, 0 when this one is; "password": none is. */
  wait: number | "password";
  /** In a row, with this one. */
  count: number;
  /** This one began a wait, or the end of all waits. */
  worse: boolean;
}

const rowOf = (what: Tried, key: string) => `${what}:${key.toLowerCase()}`.slice(0, 255);

/** Wait after the n-th wrong one in a row, s: a minute after the fifth, then twice as long each time. */
export const waitAfter = (n: number, free: number = FREE_TRIES): number =>
  n < free ? 0 : Math.min(LONGEST_WAIT_S, FIRST_WAIT_S * 2 ** Math.min(10, n - free));

/** Counts a try, as wrong until it is forgiven, and says whether it may be judged. */
export async function countTry(em: EntityManager, what: Tried, key: string): Promise<Tries> {
  const rule: Rule = RULES[what];
  const row = rowOf(what, key);
  return em.fork().transactional(async (tx) => {
    // One try of a key after the other, whatever server takes it.
    await tx.execute(`select pg_advisory_xact_lock(hashtextextended(?, 0))`, [row]);
    const [had] = await tx.execute<{ count: number; age: number; wait: number }[]>(
      `select "count", extract(epoch from now() - "since")::float8 as "age", extract(epoch from "until" - now())::float8 as "wait" from "wrong_try" where "key" = ?`,
      [row],
    );
    const before = had && had.age < rule.forgetsS ? had : undefined;
    if (before && rule.most !== undefined && before.count >= rule.most) return { wait: "password", count: before.count, worse: false };
    if (before && before.wait > 0) return { wait: Math.ceil(before.wait / 60), count: before.count, worse: false };
    const count = (before?.count ?? 0) + 1;
    const waitS = waitAfter(count, rule.free);
    await tx.execute(
      `insert into "wrong_try" ("key", "count", "since", "until") values (?, ?, now(), now() + ? * interval '1 second')
       on conflict ("key") do update set "count" = excluded."count", "until" = excluded."until", "since" = case when ? then "wrong_try"."since" else now() end`,
      [row, count, waitS, before !== undefined],
    );
    return { wait: 0, count, worse: waitS > 0 };
  });
}

/** A right one wipes the slate of its own key, and of no other. */
export const forgive = (em: EntityManager, what: Tried, key: string) => em.execute(`delete from "wrong_try" where "key" = ?`, [rowOf(what, key)]);

/** A right one was none of the wrong ones: the others stay counted. */
export const notWrong = (em: EntityManager, what: Tried, key: string) =>
  em.execute(`update "wrong_try" set "count" = greatest("count" - 1, 0), "until" = now() where "key" = ?`, [rowOf(what, key)]);

/** All counts of a person are over: a lead gave them a new password. */
export const forgiveAll = (em: EntityManager, person: { id: string; name: string }) =>
  em.execute(`delete from "wrong_try" where "key" = ? or "key" like ?`, [rowOf("name", person.name), `%${person.id}%`]);

/** From one address so many tries of strange devices in a quarter of an hour, before any of them is looked at. */
export const MOST_FROM_ADDRESS = 60;
const WINDOW_S = 900;

/** Counted in the database, so that every server counts the same. */
const limiter = (em: EntityManager, prefix: string, points: number) =>
  new RateLimiterPostgres({
    storeClient: queryBuilderOf(em),
    storeType: "knex",
    tableName: "attempt",
    tableCreated: true,
    clearExpiredByTimeout: false,
    keyPrefix: prefix,
    points,
    duration: WINDOW_S,
  });

/** Counts a try under an address or a code; false when it is one too many. */
export async function countFrom(em: EntityManager, what: "address" | "code", key: string): Promise<boolean> {
  try {
    await limiter(em, what, what === "code" ? 10 : MOST_FROM_ADDRESS).consume(key.slice(0, 200));
    return true;
  } catch (e) {
    if (e instanceof RateLimiterRes) return false;
    throw e;
  }
}

/** Counts that are over. */
export async function forgetAttempts(em: EntityManager): Promise<void> {
  await em.execute(`delete from "attempt" where "expire" < ?`, [Date.now() - WINDOW_S * 1000]);
  await em.execute(`delete from "wrong_try" where "since" < now() - interval '2 days'`);
}

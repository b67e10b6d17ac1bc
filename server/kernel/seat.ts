import { createHash } from "node:crypto";
import { getIronSession } from "iron-session";
import { LRUCache } from "lru-cache";
import { entityManager } from "../../db";
import type { Actor } from "./actor";

/** A sign-in ends after so long, and where it was not used for so long (OWASP Session Management Cheat Sheet: both, by the risk). */
export const SESSION_DAYS = 30;
export const IDLE_DAYS = 7;
/** Written at most so often: a look is no reason to write. */
const SEEN_EVERY_MS = 5 * 60_000;

export interface Cookie {
  /** This device, over all sign-ins at it. */
  device?: string;
  /** What proves the sign-in: 256 bits at random. The database has only its hash. */
  token?: string;
}

/** Sealed, for this server alone, not for scripts, never sent from other sites (RFC 6265bis; `__Host-` where there is TLS). */
export function cookieRules() {
  const password = process.env.IMBRA_SECRET;
  if (!password) throw new Error("IMBRA_SECRET is not set. Start Imbra with npm start, which makes one.");
  const secure = process.env.IMBRA_TLS === "1";
  return {
    password,
    cookieName: secure ? "__Host-imbra" : "imbra",
    ttl: SESSION_DAYS * 86_400,
    cookieOptions: { secure, sameSite: "strict" as const, httpOnly: true, path: "/" },
  };
}

export const hashOfToken = (token: string) => createHash("sha256").update(token).digest("hex");

/** Who sits at a device now, and since when nobody touched it. */
export interface Seat {
  session: string;
  device: string;
  actor: Actor;
  actedAt: Date;
  /** Minutes after which a bench that nobody touched asks who it is; 0: never. */
  lockMinutes: number;
  /** All of this as the database writes it: `STILL_SO` asks whether it is so still. */
  stamp: string;
  /** As it was a moment ago: whoever changes something by it asks `STILL_SO` in the same transaction. */
  remembered?: true;
}

/** What makes a sign-in (`s`) of a person (`p`) worth anything. */
const LIVES = `s."ended_at" is null and p."active"
  and s."started_at" > now() - interval '${SESSION_DAYS} days' and s."seen_at" > now() - interval '${IDLE_DAYS} days'`;
const LOCK = `coalesce((select "bench_lock_minutes" from "shop" where "id" = 1), 15)`;
const STAMP = `concat_ws(' ', s."device", s."acted_at", s."by_pin", p."id", p."role", p."name", ${LOCK})`;

/** SQL: is a seat as it was? Its sign-in and its stamp are the parameters. */
export const STILL_SO = `exists(select 1 from "session" s join "person" p on p."id" = s."person_id" where s."id" = ? and ${LIVES} and ${STAMP} = ?)`;

interface SeatRow {
  session: string;
  device: string;
  person: string;
  name: string;
  role: string;
  by_pin: boolean;
  acted_at: string | Date;
  seen_at: string | Date;
  lock_minutes: number;
  stamp: string;
}

/** Seats of devices that send one entry after the other: to open their cookie and to ask for them takes longer than to keep an entry. */
const REMEMBERED_MS = 10_000;
const known = new LRUCache<string, Seat>({ max: 500, ttl: REMEMBERED_MS });

/** The seat of a request that is answered beside the framework, by its `Cookie` header: as it was a moment ago, or `anew`. */
export async function seatIn(cookies: string | undefined, anew: boolean): Promise<Seat | undefined> {
  if (!cookies) return undefined;
  const before = anew ? undefined : known.get(cookies);
  if (before) return { ...before, remembered: true };
  const request = new Request("http://localhost", { headers: { cookie: cookies } });
  const { token, device } = await getIronSession<Cookie>(request, new Response(), cookieRules());
  const seat = await seatOf(token, device);
  if (seat) known.set(cookies, seat);
  else known.delete(cookies);
  return seat;
}

/** The seat that a cookie proves; undefined where its sign-in was ended, is too old, or its person has left. */
export async function seatOf(token: string | undefined, device: string | undefined): Promise<Seat | undefined> {
  if (!token || !device) return undefined;
  const em = await entityManager();
  const [row] = await em.execute<SeatRow[]>(
    `select s."id" as session, s."device", p."id" as person, p."name", p."role", s."by_pin", s."acted_at", s."seen_at",
       ${LOCK} as lock_minutes, ${STAMP} as stamp
     from "session" s join "person" p on p."id" = s."person_id"
     where s."token_hash" = ? and ${LIVES}`,
    [hashOfToken(token)],
  );
  if (!row) return undefined;
  if (Date.now() - new Date(row.seen_at).getTime() > SEEN_EVERY_MS)
    await em.execute(`update "session" set "seen_at" = now() where "id" = ?`, [row.session]);
  return {
    session: row.session,
    device: row.device,
    actor: { id: row.person, name: row.name, role: row.role, session: row.session, ...(row.by_pin ? { byPin: true } : {}) },
    actedAt: new Date(row.acted_at),
    lockMinutes: row.lock_minutes,
    stamp: row.stamp,
  };
}
